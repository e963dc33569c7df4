/** Assets: bytes that documents name by their SHA-256, kept once for all projects. */
import type { EntityManager } from '@mikro-orm/postgresql';
import { keptMeshFacts, pictureFacts, type PictureFacts } from '@yard-arch/core/format';
import { meshType, Refused, type KeptMesh } from '@yard-arch/document';
import { megabytes, unnamedAssets, usualLimits, type AssetLimits } from './asset-uses.ts';
import type { Database } from './database.ts';
import { AssetEntity } from './entities.ts';
import { ProblemError } from './problem.ts';
import { executeWithBytes } from './with-bytes.ts';

export { namedIn } from './asset-uses.ts';

export interface KeptAsset {
  type: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** What a mesh that is kept is like. */
export type MeshKept = Omit<KeptMesh, 'id' | 'name'> & { type: typeof meshType };

export const isGlb = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x67 && bytes[1] === 0x6c && bytes[2] === 0x54 && bytes[3] === 0x46;

/** What is told of an asset that is kept. */
export type AssetFacts = PictureFacts | MeshKept;

/** What no project names is kept for so long; where there is too much of it, only for so long. */
const [keptUnnamed, leastUnnamed] = ['7 days', '1 hour'];

/** What an asset is, by its bytes. Long work: in a worker. @throws Refused where it is none, or too large. */
export function factsOfAsset(bytes: Uint8Array): AssetFacts {
  const mesh = isGlb(bytes);
  const facts = mesh ? keptMeshFacts(bytes) : pictureFacts(bytes);
  if ('reason' in facts) {
    const reason = `${facts.reason.charAt(0).toUpperCase()}${facts.reason.slice(1)}. ${facts.mend}`;
    throw new Refused(`The ${mesh ? 'mesh' : 'picture'} cannot be taken. ${reason}`, []);
  }
  return 'width' in facts ? facts : { ...facts, type: meshType };
}

export class Assets {
  constructor(
    private readonly database: Database,
    private readonly limits: AssetLimits = usualLimits,
  ) {}

  private get em(): EntityManager {
    return this.database.em.fork();
  }

  /** Keeps an asset, of which a worker has told what it is. The same bytes are kept once. @throws ProblemError 507 where there is no room. */
  async keep(bytes: Uint8Array, facts: AssetFacts): Promise<void> {
    const em = this.em;
    // What is brought in anew may be about to be named.
    const known = await em.execute<unknown[]>(`update "asset" set "at" = now() where "sha256" = ? returning 1`, [
      facts.sha256,
    ]);
    if (known.length > 0) return;
    await this.makeRoom(em, bytes.length);
    const [width, height] = 'width' in facts ? [facts.width, facts.height] : [0, 0];
    await executeWithBytes(
      this.database,
      `insert into "asset" ("sha256", "type", "width", "height", "bytes", "size", "at") values (?, ?, ?, ?, ?, ?, now()) on conflict do nothing`,
      [
        facts.sha256,
        facts.type,
        width,
        height,
        Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length),
        bytes.length,
      ],
    );
  }

  private async makeRoom(em: EntityManager, bytes: number): Promise<void> {
    const { ofAll, unnamed } = this.limits;
    if ((await this.sum(em, unnamedAssets)) + bytes > unnamed) await this.clearUnnamed(em, leastUnnamed);
    const [free, all] = [await this.sum(em, unnamedAssets), await this.sum(em, 'true')];
    if (free + bytes <= unnamed && all + bytes <= ofAll) return;
    throw new ProblemError(
      507,
      { kind: 'no-room', title: 'There is no room for it' },
      all + bytes > ofAll
        ? `All pictures and meshes on this server may hold ${megabytes(ofAll)} MB together. Whoever runs it can allow more with YARD_ASSETS_GB.`
        : `Pictures and meshes that no project uses yet may hold ${megabytes(unnamed)} MB together. Use them or try again in an hour.`,
    );
  }

  private async sum(em: EntityManager, which: string): Promise<number> {
    const [row] = await em.execute<{ bytes: string | null }[]>(
      `select sum("size") as "bytes" from "asset" where ${which}`,
    );
    return Number(row?.bytes ?? 0);
  }

  private async clearUnnamed(em: EntityManager, age: string): Promise<void> {
    await em.execute(`delete from "asset" where "at" < now() - interval '${age}' and ${unnamedAssets}`);
  }

  /** Clears away what no project has named for a time. */
  async purge(): Promise<void> {
    await this.clearUnnamed(this.em, keptUnnamed);
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

  /** The SHA-256 of all that there are. */
  async all(): Promise<string[]> {
    return (await this.em.execute<{ sha256: string }[]>(`select "sha256" from "asset"`)).map(({ sha256 }) => sha256);
  }
}
