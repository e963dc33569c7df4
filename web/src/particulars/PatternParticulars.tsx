/** Particulars of a pattern: its profile, its reveal, and its sizes, which all their openings follow. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { depthOf } from '@yard-arch/core';
import { profileShapes, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { addSize, changePattern, redrawn, copyPattern, removePattern, uses } from '@yard-arch/edit';
import { choose, turnTo } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { CutFields } from './CutFields.tsx';
import { FreeText, NameField, Row } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { InfillFields } from './InfillFields.tsx';
import { PartFields } from './PartFields.tsx';
import { PatternWays } from './PatternWays.tsx';
import { ProfileFields } from './ProfileFields.tsx';
import { SizeFields } from './SizeFields.tsx';
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
  const sizes = Object.values(pattern.sizes);
  const used = uses(document, pattern.id);
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
      <RevealFields document={document} pattern={pattern} />
      <InfillFields pattern={pattern} document={document} />
      <PartFields pattern={pattern} document={document} />
      <SideMaterials pattern={pattern} document={document} />
      <TextureFields
        roles={roles}
        textures={pattern.texture}
        units={document.units}
        onChange={(texture) => commit(changePattern(pattern, { texture }, 'lay the texture of'))}
      />
      {sizes.map((size) => (
        <SizeFields key={size.id} document={document} pattern={pattern} size={size} />
      ))}
      <PatternButtons document={document} pattern={pattern} used={used} />
    </section>
  );
}

/** Of what the reveal is, and how it is worked. */
function RevealFields({ document, pattern }: PatternProps) {
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
    <>
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
      <PatternWays pattern={pattern} />
      <details className="reveal" open={pattern.sections !== undefined}>
        <summary>Section of the reveal{pattern.sections ? '' : ', square'}</summary>
        <SectionFields
          pattern={pattern}
          units={document.units}
          depth={depth}
          onChange={(sections) => commit(changePattern(pattern, { sections }, 'change the section of'))}
        />
      </details>
    </>
  );
}

function PatternButtons({ document, pattern, used }: PatternProps & { used: number }) {
  const sizes = Object.values(pattern.sizes);
  return (
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
