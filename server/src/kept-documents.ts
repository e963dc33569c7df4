/** Documents that were read from the database, kept in memory by the mark of their state, so that an edit does not read and check all of it again. */
import { readDocument, type ProjectDocument } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';

/** The most that is kept, in characters of the documents' texts. */
const most = 64_000_000;

export class KeptDocuments {
  private readonly kept = new LRUCache<string, { document: ProjectDocument; size: number }>({
    maxSize: most,
    sizeCalculation: ({ size }) => Math.max(1, size),
  });

  /** The document of a state, or undefined where it is not in memory. */
  get(mark: string): ProjectDocument | undefined {
    return this.kept.get(mark)?.document;
  }

  keep(mark: string, document: ProjectDocument, size: number): void {
    this.kept.set(mark, { document, size });
  }

  /** The document of a state from its text. @throws Refused where it cannot be read. */
  read(mark: string, text: string): ProjectDocument {
    const known = this.get(mark);
    if (known) return known;
    const document = readDocument(text);
    this.keep(mark, document, text.length);
    return document;
  }
}
