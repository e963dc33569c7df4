/** Reading a project file, and writing one. */
import { documentFaults, faultsOf, Refused, type Fault } from './faults.ts';
import { sentence } from './change-set.ts';
import { documentSchema, formatVersion, type ProjectDocument, type Units } from './schema.ts';

/** An empty project. */
export function emptyDocument(name: string, units: Units = 'mm'): ProjectDocument {
  return {
    format: 'yard-arch',
    version: formatVersion,
    name,
    units,
    elements: {},
    patterns: {},
    openings: {},
    materials: {},
    datums: {},
    axes: {},
  };
}

function refuse(faults: readonly Fault[]): never {
  throw new Refused(`The project cannot be read: ${sentence(faults)}`, faults);
}

/**
 * Checks that a value is a whole document: its shape, and that every name in it leads somewhere.
 * @throws Refused with the path and reason of each fault.
 */
export function checkDocument(value: unknown): ProjectDocument {
  if (typeof value === 'object' && value !== null && 'version' in value && typeof value.version === 'number' && value.version > formatVersion)
    refuse([{ path: 'version', reason: `is ${value.version}, but this program reads up to ${formatVersion}; open it with a newer Yard Arch` }]);
  const checked = documentSchema.safeParse(value);
  if (!checked.success) refuse(faultsOf(checked.error));
  const faults = documentFaults(checked.data);
  if (faults.length > 0) refuse(faults);
  return checked.data;
}

/** Reads a project file's text. @throws Refused when it is not JSON or not a document. */
export function readDocument(text: string): ProjectDocument {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    refuse([{ path: '', reason: `is not JSON: ${(error as Error).message}` }]);
  }
  return checkDocument(value);
}

/** Writes a document as the text of a project file: indented JSON, tables and rows in the order they have. */
export function writeDocument(document: ProjectDocument): string {
  return `${JSON.stringify(document, null, 2)}\n`;
}
