/** The shelf: patterns that are kept for all projects, with the materials that they name. */
import { randomUUID } from 'node:crypto';
import type { EntityManager } from '@mikro-orm/postgresql';
import { readPatternFile, type PatternFile } from '@yard-arch/document';
import type { Database } from './database.ts';
import { ShelfEntity } from './entities.ts';
import { ProblemError } from './problem.ts';

/** One pattern on the shelf. */
export interface ShelfItem {
  id: string;
  revision: number;
  name: string;
  at: string;
  file: PatternFile;
}

/** One that is there but can not be read, as where a newer program put it there; and why. */
export type UnreadItem = Omit<ShelfItem, 'file'> & { file: null; why: string };

/** The most that a shelf holds, and the most characters that one pattern takes there. */
const [mostItems, mostText] = [500, 400_000];

const full = (): ProblemError =>
  new ProblemError(
    409,
    { kind: 'shelf-full', title: 'The shelf is full' },
    `It holds ${mostItems} patterns. Take some from it first.`,
  );

export class Shelf {
  constructor(private readonly database: Database) {}

  private get em(): EntityManager {
    return this.database.em.fork();
  }

  /** All of it, by name. */
  async list(): Promise<(ShelfItem | UnreadItem)[]> {
    const rows = await this.em.find(ShelfEntity, {}, { orderBy: { name: 'asc', id: 'asc' }, limit: mostItems });
    return rows.map(({ id, revision, name, at, file }) => {
      const item = { id, revision, name, at: at.toISOString() };
      try {
        return { ...item, file: readPatternFile(JSON.parse(file)) };
      } catch (error) {
        return { ...item, file: null, why: (error as Error).message };
      }
    });
  }

  /** Puts a pattern on the shelf. @throws Refused, ProblemError where it is too large or the shelf full */
  async put(value: unknown): Promise<ShelfItem> {
    const { text, name, file } = checked(value);
    const em = this.em;
    if ((await em.count(ShelfEntity)) >= mostItems) throw full();
    const row = em.create(ShelfEntity, { id: randomUUID(), revision: 1, name, file: text, at: new Date() });
    await em.flush();
    return { id: row.id, revision: 1, name, at: row.at.toISOString(), file };
  }

  /** Puts a pattern in the place of one that is there. @throws ProblemError 404; Refused */
  async replace(id: string, value: unknown): Promise<ShelfItem> {
    const { text, name, file } = checked(value);
    return this.em.transactional(async (em) => {
      const row = await em.findOne(ShelfEntity, { id }, { lockMode: 4 });
      if (!row) throw gone();
      row.revision += 1;
      row.name = name;
      row.file = text;
      row.at = new Date();
      await em.flush();
      return { id, revision: row.revision, name, at: row.at.toISOString(), file };
    });
  }

  /** Takes a pattern off the shelf; projects that have it keep theirs. @throws ProblemError 404 */
  async remove(id: string): Promise<void> {
    if ((await this.em.nativeDelete(ShelfEntity, { id })) === 0) throw gone();
  }
}

const gone = (): ProblemError =>
  new ProblemError(
    404,
    { kind: 'not-on-shelf', title: 'It is not on the shelf' },
    'Someone has taken it off. Projects keep what they took.',
  );

function checked(value: unknown): { text: string; name: string; file: PatternFile } {
  const file = readPatternFile(value);
  const text = JSON.stringify(file);
  if (text.length > mostText)
    throw new ProblemError(
      413,
      { kind: 'too-large', title: 'The pattern is too large for the shelf' },
      `It has ${text.length} characters; ${mostText} are taken.`,
    );
  return { text, name: file.pattern.name, file };
}
