/** Particulars of a pattern: its profile, its reveal, and its sizes, which all their openings follow. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { depthOf } from '@yard-arch/core';
import {
  dimensionLabel,
  dimensionNames,
  profileShapes,
  sizeLabel,
  type Pattern,
  type ProjectDocument,
  type Size,
} from '@yard-arch/document';
import { addSize, changePattern, redrawn, copyPattern, removePattern, removeSize, resize, uses } from '@yard-arch/edit';
import { choose, place, turnTo } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { CutFields } from './CutFields.tsx';
import { Choice, FreeText, LengthField, NameField, Row, Tick } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { InfillFields } from './InfillFields.tsx';
import { PartFields } from './PartFields.tsx';
import { ProfileFields } from './ProfileFields.tsx';
import { SizeProof } from './SizeProof.tsx';
import { SectionFields } from './SectionFields.tsx';
import { TextureFields } from './TextureFields.tsx';

interface PatternProps {
  document: ProjectDocument;
  pattern: Pattern;
  /** Whether its sizes are shown side by side; not where they are already. */
  proof?: boolean;
}

export function PatternParticulars({ document, pattern, proof = true }: PatternProps) {
  const placing = useEditor((state) => state.placing);
  const sizes = Object.values(pattern.sizes);
  const used = uses(document, pattern.id);
  // Sections are drawn as they are in the element where the pattern is first used.
  const element = useEditor((state) => state.element);
  const first =
    Object.values(document.openings).find((opening) => opening.pattern === pattern.id)?.element ?? element ?? '';
  const found = depthOf(
    pattern,
    document.elements[first]?.layers ?? [{ thickness: 0.4, material: '' }],
    document.units,
  );
  const depth = typeof found === 'number' ? found : 0.4;
  return (
    <section aria-label={`Particulars of ${pattern.name}`} data-testid="particulars">
      <Flex align="baseline" justify="space-between">
        <Heading as="h2" fontFamily="heading" fontSize="17px">
          Pattern
        </Heading>
        <span className="state idle">{used === 0 ? 'unused' : `${used} opening${used === 1 ? '' : 's'}`}</span>
      </Flex>
      {proof && (
        <>
          <SizeProof document={document} pattern={pattern} />
          <button className="link" onClick={() => turnTo('book')}>
            open in the pattern book
          </button>
        </>
      )}
      <NameField
        label="Name"
        value={pattern.name}
        onChange={(name) => commit(changePattern(pattern, { name }, 'rename pattern'))}
      />
      <TagsField pattern={pattern} />
      <Row label="Profile">{profileShapes[pattern.profile.shape].name}</Row>
      <ProfileFields
        pattern={pattern}
        units={document.units}
        onChange={(profile, what) => commit(changePattern(pattern, { profile }, what))}
        onDrawn={(drawn) => commit(redrawn(pattern, drawn))}
      />
      <CutFields
        pattern={pattern}
        document={document}
        onChange={(cut) => commit(changePattern(pattern, { cut }, 'change the cut of'))}
      />
      <MaterialChoice
        label="Reveal"
        value={pattern.reveal.material ?? ''}
        none="as the wall"
        document={document}
        onChange={(id) =>
          commit(
            changePattern(pattern, { reveal: { ...pattern.reveal, material: id || null } }, 'change the reveal of'),
          )
        }
      />
      <Choice
        label="On curves"
        value={pattern.jambs ?? 'parallel'}
        options={[
          { value: 'parallel', label: 'parallel jambs' },
          { value: 'radial', label: 'radial jambs' },
        ]}
        onChange={(jambs) =>
          commit(changePattern(pattern, { jambs: jambs as 'parallel' | 'radial' }, 'turn the jambs of'))
        }
      />
      <Choice
        label="On slopes"
        value={pattern.onSlope ?? 'level'}
        options={[
          { value: 'level', label: 'head level, sill plumb' },
          { value: 'plumb', label: 'all plumb' },
          { value: 'square', label: 'square to the slope' },
        ]}
        onChange={(onSlope) =>
          commit(changePattern(pattern, { onSlope: onSlope as 'level' | 'plumb' | 'square' }, 'slope the reveal of'))
        }
      />
      <Choice
        label="In barrels"
        value={pattern.inBarrels ?? 'radial'}
        options={[
          { value: 'radial', label: 'radial' },
          { value: 'level', label: 'level, upright in the flank' },
        ]}
        onChange={(way) =>
          commit(changePattern(pattern, { inBarrels: way === 'level' ? way : undefined }, 'turn in barrels'))
        }
      />
      <Tick
        label="On floor"
        value={pattern.onFloor ?? false}
        onChange={(onFloor) =>
          commit(
            changePattern(
              pattern,
              { onFloor: onFloor || undefined },
              onFloor ? 'stand on the floor' : 'take off the floor',
            ),
          )
        }
      />
      <details className="reveal" open={pattern.sections !== undefined}>
        <summary>Section of the reveal{pattern.sections ? '' : ', square'}</summary>
        <SectionFields
          pattern={pattern}
          units={document.units}
          depth={depth}
          onChange={(sections) => commit(changePattern(pattern, { sections }, 'change the section of'))}
        />
      </details>
      <InfillFields pattern={pattern} document={document} />
      <PartFields pattern={pattern} document={document} />
      <SideMaterials pattern={pattern} document={document} />
      <TextureFields
        roles={roles}
        textures={pattern.texture}
        units={document.units}
        onChange={(texture) => commit(changePattern(pattern, { texture }, 'lay the texture of'))}
      />
      {sizes.map((size) => {
        const count = uses(document, pattern.id, size.id);
        const current = placing?.pattern === pattern.id && placing.size === size.id;
        return (
          <div key={size.id} className="size">
            <Flex align="baseline" justify="space-between" gap="2">
              <h3>{sizeLabel(pattern, size, document.units)}</h3>
              <span className="state idle">{count === 0 ? 'unused' : `${count} use it`}</span>
            </Flex>
            {dimensionNames(pattern.profile.shape).map((name) => (
              <LengthField
                key={name}
                positive
                label={dimensionLabel(pattern.profile.shape, name)}
                value={size.dimensions[name]!}
                units={document.units}
                onChange={(metres) => change(document, { pattern, size }, name, metres)}
              />
            ))}
            <Flex gap="2" mt="2">
              <Button
                size="xs"
                variant={current ? 'solid' : 'outline'}
                bg={current ? 'brick' : undefined}
                color={current ? 'white' : 'ink'}
                onClick={() => {
                  // It is placed on a sheet.
                  if (useEditor.getState().board === 'book') turnTo('sheet');
                  place(current ? null : { pattern: pattern.id, size: size.id });
                }}
              >
                {current ? 'Placing: click on the sheet' : 'Place this size'}
              </Button>
              {count === 0 && sizes.length > 1 && (
                <Button size="xs" variant="ghost" color="brick" onClick={() => commit(removeSize(pattern, size))}>
                  Remove size
                </Button>
              )}
            </Flex>
          </div>
        );
      })}
      <Flex wrap="wrap" mt="3" gap="2">
        <Button size="sm" variant="outline" onClick={() => commit(addSize(pattern, sizes.at(-1)!).changeSet)}>
          Add a size
        </Button>
        <Button
          size="sm"
          variant="outline"
          onClick={() => {
            const made = copyPattern(document, pattern);
            if (commit(made.changeSet)) choose({ kind: 'pattern', id: made.id });
          }}
        >
          Copy pattern
        </Button>
        <Button size="sm" variant="outline" color="brick" onClick={() => commit(removePattern(document, pattern))}>
          {used === 0 ? 'Remove pattern' : `Remove with its ${used} opening${used === 1 ? '' : 's'}`}
        </Button>
      </Flex>
    </section>
  );
}

/** Words by which a pattern is found, set apart by commas. */
function TagsField({ pattern }: { pattern: Pattern }) {
  return (
    <FreeText
      label="Tags"
      value={(pattern.tags ?? []).join(', ')}
      otherwise="none"
      onChange={(text) => {
        const tags = [...new Set(text.split(',').map((tag) => tag.trim().slice(0, 40)))].filter(Boolean).slice(0, 12);
        return commit(changePattern(pattern, { tags: tags.length > 0 ? tags : undefined }, 'tag'));
      }}
    />
  );
}

const sides = [
  { value: 'jamb-left', label: 'left jamb', rounded: true },
  { value: 'jamb-right', label: 'right jamb', rounded: true },
  { value: 'head', label: 'head', rounded: true },
  { value: 'sill', label: 'sill', rounded: true },
] as const;
const roles = [...sides, { value: 'back', label: 'back of a niche' }, { value: 'imprint', label: 'imprint' }] as const;

/** Materials of single sides of the reveal, where they differ from the rest. */
function SideMaterials({ pattern, document }: { pattern: Pattern; document: ProjectDocument }) {
  const { reveal } = pattern;
  const own = Object.keys(reveal.sides ?? {}).length;
  return (
    <details className="reveal">
      <summary>
        Sides of the reveal{own > 0 ? `, ${own} of ${own === 1 ? 'its' : 'their'} own material` : ', all alike'}
      </summary>
      {sides.map(({ value: side, label }) => (
        <MaterialChoice
          key={side}
          label={label.charAt(0).toUpperCase() + label.slice(1)}
          value={reveal.sides?.[side] ?? ''}
          none="as the rest"
          document={document}
          onChange={(material) => {
            const next = { ...reveal.sides };
            if (material) next[side] = material;
            else Reflect.deleteProperty(next, side);
            commit(
              changePattern(
                pattern,
                { reveal: { material: reveal.material, ...(Object.keys(next).length > 0 ? { sides: next } : {}) } },
                `change the ${label} of`,
              ),
            );
          }}
        />
      ))}
    </details>
  );
}

function change(
  document: ProjectDocument,
  { pattern, size }: { pattern: Pattern; size: Size },
  name: string,
  metres: number,
): boolean | string {
  const outcome = resize(document, pattern, size, { ...size.dimensions, [name]: metres });
  if ('reason' in outcome)
    return `${outcome.reason.charAt(0).toUpperCase()}${outcome.reason.slice(1)}. ${outcome.mend}`;
  return commit(outcome);
}
