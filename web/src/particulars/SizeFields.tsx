/** One size of a pattern: its dimensions, and whether it is about to be placed. */
import { Button, Flex } from '@chakra-ui/react';
import {
  dimensionLabel,
  dimensionNames,
  sizeLabel,
  type Pattern,
  type ProjectDocument,
  type Size,
} from '@yard-arch/document';
import { removeSize, resize, uses } from '@yard-arch/edit';
import { LengthField } from '../fields/Fields.tsx';
import { place, turnTo } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';

interface SizeProps {
  document: ProjectDocument;
  pattern: Pattern;
  size: Size;
}

export function SizeFields({ document, pattern, size }: SizeProps) {
  const placing = useEditor((state) => state.placing);
  const count = uses(document, pattern.id, size.id);
  const current = placing?.pattern === pattern.id && placing.size === size.id;
  return (
    <div className="size">
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
        {count === 0 && Object.keys(pattern.sizes).length > 1 && (
          <Button size="xs" variant="ghost" color="brick" onClick={() => commit(removeSize(pattern, size))}>
            Remove size
          </Button>
        )}
      </Flex>
    </div>
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
