/** Assets: bytes that documents name by their SHA-256, kept once for all projects. */
import type { EntityManager } from '@mikro-orm/postgresql';
import { pictureFacts, type PictureFacts } from '@yard-arch/core/format';
import type { Database } from './database.ts';
import { AssetEntity } from './entities.ts';
import { ProblemError } from './problem.ts';

export interface KeptAsset {
  type: string;
  bytes: Uint8Array<ArrayBuffer>;
}

const digests = /"sha256":"([0-9a-f]{64})"/g;

/** The SHA-256 of all assets that the text of a document names. */
export const namedIn = (text: string): string[] => [...new Set([...text.matchAll(digests)].map((match) => match[1]!))];

export class Assets {
  constructor(private readonly database: Database) {}

  private get em(): EntityManager {
    return this.database.em.fork();
  }

  /** Keeps a picture. The same bytes are kept once. @throws ProblemError 422 where it is none, or too large. */
  async put(bytes: Uint8Array): Promise<PictureFacts> {
    const facts = pictureFacts(bytes);
    if ('reason' in facts)
      throw new ProblemError(
        422,
        'no-picture',
        'The picture cannot be taken',
        `${facts.reason.charAt(0).toUpperCase()}${facts.reason.slice(1)}. ${facts.mend}`,
      );
    const { sha256, type, width, height } = facts;
    await this.em.execute(
      `insert into "asset" ("sha256", "type", "width", "height", "bytes", "at") values (?, ?, ?, ?, ?, now()) on conflict do nothing`,
      [sha256, type, width, height, Buffer.from(bytes)],
    );
    return facts;
  }

  /** @throws ProblemError 404 */
  async get(sha256: string): Promise<KeptAsset> {
    const row = await this.em.findOne(AssetEntity, { sha256 });
    if (!row)
      throw new ProblemError(
        404,
        'no-such-asset',
        'There is no such picture',
        'It may have been brought in on another server. Choose it anew in the materials.',
      );
    return { type: row.type, bytes: new Uint8Array(row.bytes) };
  }

  /** Those of some assets that there are, with their bytes. */
  async some(sha256: readonly string[]): Promise<Map<string, Uint8Array>> {
    if (sha256.length === 0) return new Map();
    const rows = await this.em.find(AssetEntity, { sha256: { $in: [...sha256] } });
    return new Map(rows.map((row) => [row.sha256, new Uint8Array(row.bytes)]));
  }

  /** Those of some assets that there are. */
  async known(sha256: readonly string[]): Promise<string[]> {
    if (sha256.length === 0) return [];
    const rows = await this.em.find(AssetEntity, { sha256: { $in: [...sha256] } }, { fields: ['sha256'] });
    return rows.map((row) => row.sha256);
  }
}
