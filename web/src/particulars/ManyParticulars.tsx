/** Particulars of several openings: what they are, and what can be done with all of them at once. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { grouped, type Opening, type ProjectDocument } from '@yard-arch/document';
import { blockAll, removeAll } from '@yard-arch/edit';
import { AlikeButtons } from '../arrange/AlikeButtons.tsx';
import { AlignSection } from '../arrange/AlignSection.tsx';
import { CopySection, CopyToSection, MirrorSection } from '../arrange/CopySection.tsx';
import { EvenOutSection } from '../arrange/EvenOutSection.tsx';
import { SwapSection } from '../arrange/SwapSection.tsx';
import { SpreadSection } from '../arrange/SpreadSection.tsx';
import { chooseOpenings } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';

export function ManyParticulars({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  const statuses = useEditor((state) => state.statuses);
  const byPattern = grouped(openings, ({ pattern }) => pattern);
  const failed = openings.filter(({ id }) => statuses.get(id)?.state === 'not cut');
  return (
    <section aria-label={`Particulars of ${openings.length} openings`} data-testid="particulars">
      <Flex align="baseline" justify="space-between" gap="3">
        <Heading as="h2" fontFamily="heading" fontSize="17px">
          {openings.length} openings
        </Heading>
        {failed.length > 0 && <span className="state bad">{failed.length} not cut</span>}
      </Flex>
      <p>
        {[...byPattern].map(([id, list], i) => (
          <span key={id}>
            {i > 0 && ', '}
            {byPattern.size > 1 ? (
              <button
                className="link"
                title="Choose only these"
                onClick={() => chooseOpenings(list.map((opening) => opening.id))}
              >
                {list.length} {document.patterns[id]?.name}
              </button>
            ) : (
              `all ${document.patterns[id]?.name}`
            )}
          </span>
        ))}
      </p>
      <AlikeButtons document={document} openings={openings} />
      <SwapSection document={document} openings={openings} />
      <AlignSection document={document} openings={openings} />
      <SpreadSection document={document} openings={openings} />
      <EvenOutSection document={document} openings={openings} />
      <MirrorSection document={document} openings={openings} />
      <CopySection document={document} openings={openings} />
      <CopyToSection document={document} openings={openings} />
      <Flex gap="2" mt="4">
        <Button size="sm" variant="outline" onClick={() => commit(blockAll(openings))}>
          {openings.every(({ blockedUp }) => blockedUp) ? 'Open up' : 'Block up'}
        </Button>
        <Button size="sm" variant="outline" color="brick" onClick={() => commit(removeAll(document, openings))}>
          Remove all {openings.length}
        </Button>
      </Flex>
    </section>
  );
}
