/** Assets: bytes that documents name by their SHA-256, kept once for all projects. */
import type { EntityManager } from '@mikro-orm/postgresql';
import { pictureFacts, type keptMeshFacts, type PictureFacts } from '@yard-arch/core/format';
import { meshType, type KeptMesh } from '@yard-arch/document';
import type { Database } from './database.ts';
import { AssetEntity } from './entities.ts';
import { ProblemError } from './problem.ts';

export interface KeptAsset {
  type: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** What a mesh that is kept is like. */
export type MeshKept = Omit<KeptMesh, 'id' | 'name'> & { type: typeof meshType };

export const isGlb = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x67 && bytes[1] === 0x6c && bytes[2] === 0x54 && bytes[3] === 0x46;

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
        { kind: 'no-picture', title: 'The picture cannot be taken' },
        `${facts.reason.charAt(0).toUpperCase()}${facts.reason.slice(1)}. ${facts.mend}`,
      );
    const { sha256, type, width, height } = facts;
    await this.em.execute(
      `insert into "asset" ("sha256", "type", "width", "height", "bytes", "at") values (?, ?, ?, ?, ?, now()) on conflict do nothing`,
      [sha256, type, width, height, Buffer.from(bytes)],
    );
    return facts;
  }

  /** Keeps a mesh, of which a worker has told what it is. @throws ProblemError 422 where it is none that can be kept. */
  async putMesh(bytes: Uint8Array, facts: ReturnType<typeof keptMeshFacts>): Promise<MeshKept> {
    if ('reason' in facts)
      throw new ProblemError(
        422,
        { kind: 'no-mesh', title: 'The mesh cannot be taken' },
        `${facts.reason.charAt(0).toUpperCase()}${facts.reason.slice(1)}. ${facts.mend}`,
      );
    await this.em.execute(
      `insert into "asset" ("sha256", "type", "width", "height", "bytes", "at") values (?, ?, 0, 0, ?, now()) on conflict do nothing`,
      [facts.sha256, meshType, Buffer.from(bytes)],
    );
    return { ...facts, type: meshType };
  }

  /** @throws ProblemError 404 */
  async get(sha256: string): Promise<KeptAsset> {
    const row = await this.em.findOne(AssetEntity, { sha256 });
    if (!row)
      throw new ProblemError(
        404,
        { kind: 'no-such-asset', title: 'There is no such picture or mesh' },
        'It may have been brought in on another server. Choose it anew where it is used.',
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
