/** Bringing up to date what an earlier version of the program wrote: files, what the server keeps, the change log, and what is kept in the browser. */
import { Refused } from '../refused.ts';
import { isObject, type Migration } from './migration.ts';
import { toVersion2 } from './to-2.ts';
import { toVersion3 } from './to-3.ts';
import { toVersion4 } from './to-4.ts';
import { toVersion5 } from './to-5.ts';
import { toVersion6 } from './to-6.ts';

/** Version of the file format. It rises whenever what is written becomes otherwise, with a step in `migrate` and a file of the version before among the tests' fixtures. */
export const formatVersion = 6;

/** By version: the step from it to the next. */
export const migrate: Readonly<Record<number, Migration>> = {
  1: toVersion2,
  2: toVersion3,
  3: toVersion4,
  4: toVersion5,
  5: toVersion6,
};

/** What is written in no version that this program knows. */
function refuseVersion(what: string, version: number): never {
  const reason =
    version > formatVersion
      ? `is ${version}, but this program reads up to ${formatVersion}; open it with a newer Yard Arch`
      : `is ${version}, which no version of the format has been`;
  throw new Refused(`${what} cannot be read: version ${reason}.`, [{ path: 'version', reason }]);
}

/** Takes a value from version to version. @throws Refused where a step does not go through; nothing is changed then. */
function climb<T>(what: string, from: number, value: T, step: (migration: Migration, value: T) => T): T {
  let made = value;
  for (let version = from; version < formatVersion; version++)
    try {
      made = step(migrate[version]!, made);
    } catch (error) {
      const reason = `is ${from}, and what it holds could not be brought from ${version} to ${version + 1}: ${(error as Error).message}`;
      throw new Refused(`${what} cannot be read: version ${reason}.`, [{ path: 'version', reason }]);
    }
  return made;
}

const isVersion = (value: unknown): value is number => typeof value === 'number' && Number.isInteger(value);

/**
 * A document of any version as one of this one. Only what old versions had is mended; whether it is a document is not told here.
 * @throws Refused where it is of a version that is not known, or a step fails.
 */
export function upToDate(value: unknown): unknown {
  if (!isObject(value) || value.format !== 'yard-arch' || !isVersion(value.version)) return value;
  const { version } = value;
  if (version === formatVersion) return value;
  if (version > formatVersion || version < 1) refuseVersion('The project', version);
  return {
    ...climb('The project', version, value, (migration, document) => migration.document(document)),
    version: formatVersion,
  };
}

/** The changes of a change set of any version. @throws Refused as upToDate */
export function changeSetUpToDate<T>(value: T, version: number): T {
  if (version === formatVersion || !isObject(value) || !Array.isArray(value.changes)) return value;
  if (version > formatVersion || version < 1) refuseVersion('The edit', version);
  const changes = climb('The edit', version, value.changes as unknown[], (migration, list) =>
    list.flatMap((change) => (isObject(change) ? migration.change(change) : [change])),
  );
  return { ...value, changes };
}

/** How a document's text begins as it is written where it is kept. */
const head = /^\{"format":"yard-arch","version":(\d+),/;

/** Whether a document's text, as it is written where it is kept, is of the present version. */
export function isUpToDate(text: string): boolean {
  return Number(head.exec(text)?.[1]) === formatVersion;
}
