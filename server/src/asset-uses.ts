/** Which assets projects name, in any of their states: what none names is cleared away after a time, and no project names too much. */
import type { EntityManager } from '@mikro-orm/postgresql';
import { ProblemError } from './problem.ts';

/** How many bytes of pictures and meshes are kept. */
export interface AssetLimits {
  /** Of what one project names. */
  ofProject: number;
  /** Of all together. */
  ofAll: number;
  /** Of those that no project names. */
  unnamed: number;
}

const gigabyte = 1e9;
export const usualLimits: AssetLimits = { ofProject: gigabyte, ofAll: 20 * gigabyte, unnamed: gigabyte };

const digests = /"sha256":"([0-9a-f]{64})"/g;

/** The SHA-256 of all assets that texts of documents or edits name. */
export const namedIn = (...texts: string[]): string[] => [
  ...new Set(texts.flatMap((text) => [...text.matchAll(digests)].map((match) => match[1]!))),
];

/** Remembers what a project names from now on. @throws ProblemError 413 where that is more than one may hold. */
export async function keepUses(
  em: EntityManager,
  project: string,
  texts: readonly string[],
  { ofProject }: AssetLimits,
): Promise<void> {
  const named = namedIn(...texts);
  if (named.length === 0) return;
  const fresh = await em.execute<unknown[]>(
    `insert into "asset_use" ("project", "sha256") select ?, unnest(?::text[]) on conflict do nothing returning 1`,
    [project, `{${named.join(',')}}`],
  );
  if (fresh.length === 0) return;
  const [held] = await em.execute<{ bytes: string | null }[]>(
    `select sum("size") as "bytes" from "asset" join "asset_use" using ("sha256") where "project" = ?`,
    [project],
  );
  if (Number(held?.bytes ?? 0) > ofProject)
    throw new ProblemError(
      413,
      { kind: 'too-many-pictures', title: 'The project holds too much' },
      `The pictures and meshes of one project, with those in its history, may hold ${megabytes(ofProject)} MB together. Use smaller ones, or begin another project.`,
    );
}

export const megabytes = (bytes: number): string => String(Math.round(bytes / 1e6));

/** Assets that neither a project nor the shelf names. */
export const unnamedAssets = `not exists (select 1 from "asset_use" where "asset_use"."sha256" = "asset"."sha256")
  and not exists (select 1 from "shelf" where position("asset"."sha256" in "shelf"."file") > 0)`;
