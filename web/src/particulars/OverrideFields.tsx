/** What an opening has otherwise than its pattern: parts off, materials and handle of its own; taken back, or made a pattern. */
import {
  handleKinds,
  infillPart,
  leavesOf,
  limits,
  slides,
  type Leaf,
  type Opening,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import {
  changeOpening,
  materialsIn,
  override,
  overriddenAlike,
  ownIn,
  patternOfOverrides,
  takeBack,
} from '@yard-arch/edit';
import { AngleField, Choice, ShareField, Tick } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { choose } from '../state/choice.ts';
import { commit } from '../state/store.ts';
import { calledOf } from './called.ts';

interface OverrideProps {
  document: ProjectDocument;
  opening: Opening;
  pattern: Pattern;
}

export function OverrideFields({ document, opening, pattern }: OverrideProps) {
  const { infill, parts = [] } = pattern;
  if (!infill && parts.length === 0) return null;
  const told = ownIn(opening).filter((words) => words !== 'its dimensions');
  const off = new Set(opening.overrides?.without ?? []);
  const put = (id: string, on: boolean): boolean =>
    commit(
      override(
        opening,
        { without: on ? [...off].filter((one) => one !== id) : [...off, id] },
        on ? 'put a part back to' : 'leave a part off',
      ),
    );
  const leaves = infill ? leavesOf(infill.field) : [];
  const handled = leaves.find(({ handle }) => handle);
  return (
    <>
      <Stands opening={opening} leaves={leaves} />
      <details className="reveal" open={told.length > 0}>
        <summary>Its own{told.length > 0 ? `: ${told.join(', ')}` : ', nothing: as the pattern'}</summary>
        {infill && <Tick label="Infill" value={!off.has(infillPart)} onChange={(on) => void put(infillPart, on)} />}
        {parts.map((part) => (
          <Tick
            key={part.id}
            label={calledOf(part)}
            value={!off.has(part.id)}
            onChange={(on) => void put(part.id, on)}
          />
        ))}
        {handled && (
          <Choice
            label="Handle"
            value={opening.overrides?.handle ?? ''}
            options={[
              { value: '', label: `as the pattern, a ${handled.handle!.kind}` },
              ...handleKinds.map((kind) => ({ value: kind, label: `a ${kind}` })),
            ]}
            onChange={(kind) =>
              commit(
                override(
                  opening,
                  { handle: kind ? (kind as (typeof handleKinds)[number]) : undefined },
                  'change the handle of',
                ),
              )
            }
          />
        )}
        {materialsIn(pattern).map((id) => (
          <MaterialChoice
            key={id}
            label={document.materials[id]?.name ?? id}
            value={opening.overrides?.materials?.[id] ?? ''}
            none="as the pattern"
            document={document}
            onChange={(own) =>
              commit(
                override(
                  opening,
                  { materials: { ...opening.overrides?.materials, [id]: own || id } },
                  'change a material of',
                ),
              )
            }
          />
        ))}
        {told.length > 0 && <Alike document={document} opening={opening} pattern={pattern} />}
      </details>
    </>
  );
}

/** What becomes of overrides: taken back, or a pattern of their own, which all that are alike take. */
function Alike({ document, opening }: OverrideProps) {
  const alike = opening.overrides ? overriddenAlike(document, opening).length : 0;
  return (
    <div className="buttons">
      <button onClick={() => commit(takeBack(opening))}>be as the pattern</button>
      {alike > 0 && (
        <button
          title={alike === 1 ? 'Only this opening has these' : `All ${alike} openings that have the same take it`}
          onClick={() => {
            const made = patternOfOverrides(document, opening);
            if (commit(made.changeSet)) choose({ kind: 'openings', ids: [opening.id] });
          }}
        >
          make a pattern of it{alike > 1 ? `, for all ${alike} alike` : ''}
        </button>
      )}
    </div>
  );
}

/** How far its leaves stand open: as the pattern says, or its own. */
function Stands({ opening, leaves }: { opening: Opening; leaves: readonly Leaf[] }) {
  const turning = leaves.find((leaf) => !slides(leaf));
  const sliding = leaves.find(slides);
  const back = (over: Partial<Opening>) => (
    <button
      className="link"
      onClick={() => commit(changeOpening(opening, over, 'stand the leaves as the pattern says of'))}
    >
      as the pattern
    </button>
  );
  return (
    <>
      {turning && (
        <AngleField
          label="Leaves at"
          value={opening.open ?? turning.angle}
          within={limits.open}
          note={opening.open === undefined ? 'as the pattern' : back({ open: undefined })}
          onChange={(open) => commit(changeOpening(opening, { open }, 'open the leaves of'))}
        />
      )}
      {sliding && (
        <ShareField
          label="Slid by"
          ends
          value={opening.slid ?? sliding.slid ?? 0}
          note={opening.slid === undefined ? 'as the pattern' : back({ slid: undefined })}
          onChange={(slid) => commit(changeOpening(opening, { slid }, 'slide the leaves of'))}
        />
      )}
    </>
  );
}
