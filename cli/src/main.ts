/** The shell: the same core without an interface or a database. */
import { readFileSync } from 'node:fs';
import { basename, dirname, extname, join } from 'node:path';
import { parseArgs } from 'node:util';
import {
  bentWords,
  cutModel,
  elementsOfSheets,
  learnMeshes,
  reportOn,
  singleSheetsOf,
  usualTolerance,
} from '@yard-arch/core';
import {
  drawPicture,
  leftOutOf,
  readMesh,
  readProjectFile,
  writeProjectFile,
  writers,
  writtenFormats,
  type ProjectFile,
} from '@yard-arch/core/format';
import { solidLibrary } from '@yard-arch/core/solid';
import { demos } from '@yard-arch/demo';
import { doScript, scriptHelp, steps } from '@yard-arch/edit';
import { writeFiles } from './write-files.ts';
import { emptyDocument, parseJson, Refused, writeDocument, type ProjectDocument } from '@yard-arch/document';

const usage = `Usage:
  npm run --silent yard -- check FILE.json                                print a report as JSON; fails where something is not sound
  npm run --silent yard -- export FILE.json --format glb --out OUT.glb    write GLB
  npm run --silent yard -- export FILE.json --format obj --out OUT.obj    write OBJ, and OUT.mtl and its pictures beside it
                                                                          (an element that cannot be made is left out and told of, with exit code 3)
  npm run --silent yard -- edit FILE.json --do EDIT.json --out OUT.json   do an edit script, all of it or nothing, and print the ids of what it has made by step
                                                                          (its steps: ${Object.keys(steps).join(', ')}; what each takes: npm run --silent yard -- edit --help)
  npm run --silent yard -- picture FILE.json --out OUT.png                write a picture of the model
  npm run --silent yard -- thicken SHEETS.obj --thickness 0.2 --out OUT.json
                                                                          write a project of the single sheets in an OBJ or GLB file, each given a thickness in metres
                                                                          (--unit: metres that one of the file's units is, 1 unless said; --up: y or z; --tolerance: how far a wall, panel or slab may stray from what was drawn, in metres, 0.001 unless said)
  npm run --silent yard -- demo NAME [--out OUT.json]                     write a demo document: ${Object.keys(demos).join(', ')}
`;

class Misused extends Error {}

function readWhole(path: string | undefined): ProjectFile {
  if (path === undefined) throw new Misused('No project file was named.');
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(path);
  } catch (error) {
    throw new Misused(`${path} cannot be read: ${(error as Error).message}`);
  }
  const file = readProjectFile(bytes);
  learnMeshes(file.document, (sha256) => file.assets.get(sha256) ?? null);
  return file;
}

const read = (path: string | undefined): ProjectDocument => readWhole(path).document;

/** An edit script from a file. */
function readScript(path: string | undefined): unknown {
  if (path === undefined) throw new Misused('Say which script is to be done with --do.');
  try {
    return parseJson(readFileSync(path, 'utf8'));
  } catch (error) {
    throw new Misused(`${path} cannot be read: ${(error as Error).message}`);
  }
}

function target(out: string | undefined): string {
  if (out === undefined) throw new Misused('Say where to write with --out.');
  return out;
}

/** A project of the single sheets in a mesh file. */
async function thickened(
  path: string | undefined,
  given: { thickness?: string; unit?: string; up?: string; tolerance?: string },
): Promise<ProjectDocument> {
  if (path === undefined) throw new Misused('No file of sheets was named.');
  const [thickness, unit] = [Number(given.thickness), Number(given.unit ?? 1)];
  if (!(thickness > 0 && thickness <= 10))
    throw new Misused('Say a thickness in metres, more than 0 and at most 10, with --thickness.');
  if (!(unit > 0)) throw new Misused('--unit must be a number of metres, more than 0.');
  if (given.up !== undefined && given.up !== 'y' && given.up !== 'z') throw new Misused('--up must be y or z.');
  const tolerance = Number(given.tolerance ?? usualTolerance);
  if (!(tolerance > 0 && tolerance <= 1))
    throw new Misused('--tolerance must be a number of metres, more than 0 and at most 1.');
  const { sheets, closed, bent } = singleSheetsOf(
    await readMesh(basename(path), new Uint8Array(readFileSync(path)), { unit, up: given.up ?? 'y' }),
    tolerance,
  );
  if (bent.length > 0)
    throw new Error(
      `${path} was not taken in: ${bentWords(bent, (metres) => `${Math.ceil(metres * 1e4) / 10} mm`)} With --tolerance ${Math.ceil(Math.max(...bent.map(({ off }) => off)) * 1e4) / 1e4} ${bent.length === 1 ? 'it is' : 'they are'} taken as flat.`,
    );
  if (sheets.length === 0)
    throw new Error(
      `${path} holds no single sheet${closed > 0 ? `; ${closed} closed solids have a thickness already` : ''}.`,
    );
  const name = basename(path, extname(path));
  const material = { id: 'm1', name: 'Plaster', colour: '#d8d2c4', roughness: 0.9, texture: 'plaster' as const };
  const names = sheets.map((_, i) => ({ id: `p${i + 1}`, name: sheets.length === 1 ? name : `${name} ${i + 1}` }));
  const elements = elementsOfSheets(sheets, [{ thickness, material: 'm1' }], names);
  return {
    ...emptyDocument(name),
    materials: { m1: material },
    elements: Object.fromEntries(elements.map((element) => [element.id, element])),
  };
}

const options = {
  format: { type: 'string' },
  thickness: { type: 'string' },
  unit: { type: 'string' },
  up: { type: 'string' },
  tolerance: { type: 'string' },
  do: { type: 'string' },
  out: { type: 'string' },
  help: { type: 'boolean', short: 'h' },
} as const;

type Values = Partial<Record<Exclude<keyof typeof options, 'help'>, string>>;

/** What a command is given: its file, its options, and where it prints. */
interface Asked {
  file: string | undefined;
  values: Values;
  print: (text: string) => void;
  complain: (text: string) => void;
}

/** The exit code where a file was written, but not all that was to be in it. */
const incomplete = 3;

/** The commands; each gives its exit code. */
const commands: Record<string, (asked: Asked) => number | Promise<number>> = {
  check: ({ file, print }) => {
    const document = read(file);
    const report = reportOn(document, cutModel(document));
    print(`${JSON.stringify(report, null, 2)}\n`);
    return report.sound ? 0 : 1;
  },
  export: async ({ file, values, complain }) => {
    const { document, assets } = readWhole(file);
    const out = target(values.out);
    const format = writtenFormats.find(({ id }) => id === values.format);
    if (!format) {
      const instead = values.format === undefined ? '' : `, not ${values.format}`;
      throw new Misused(`--format must be ${writtenFormats.map(({ id }) => id).join(' or ')}${instead}.`);
    }
    const [folder, name] = [dirname(out), basename(out, extname(out))];
    const assetOf = (sha256: string): Uint8Array | null => assets.get(sha256) ?? null;
    // The first is called as was said; the files that it names are called after it.
    const model = cutModel(document);
    const files = await writers[format.id].files(document, model, name, assetOf);
    writeFiles(files.map(({ name, pieces }, k) => ({ path: k === 0 ? out : join(folder, name), pieces })));
    const left = leftOutOf(document, model);
    for (const { name, reason, mend } of left) complain(`Left out: “${name}” ${reason}. ${mend ?? ''}`.trim() + '\n');
    return left.length > 0 ? incomplete : 0;
  },
  demo: ({ file, values, print }) => {
    const make = file !== undefined && Object.hasOwn(demos, file) ? demos[file] : undefined;
    if (!make)
      throw new Misused(`There is no demo document “${file ?? ''}”; there are ${Object.keys(demos).join(', ')}.`);
    const text = writeDocument(make());
    if (values.out === undefined) print(text);
    else writeFiles([{ path: values.out, pieces: [text] }]);
    return 0;
  },
  thicken: async ({ file, values, print }) => {
    const document = await thickened(file, values);
    writeFiles([{ path: target(values.out), pieces: [writeDocument(document)] }]);
    const count = Object.keys(document.elements).length;
    print(`${count} sheet${count === 1 ? '' : 's'}\n`);
    return 0;
  },
  edit: ({ file, values, print }) => {
    const { document, assets } = readWhole(file);
    const out = target(values.out);
    const { document: made, made: ids, changeSet } = doScript(document, readScript(values.do));
    writeFiles([{ path: out, pieces: [writeProjectFile(made, (sha256) => assets.get(sha256) ?? null).bytes] }]);
    print(`${JSON.stringify({ name: changeSet.name, changes: changeSet.changes.length, made: ids }, null, 2)}\n`);
    return 0;
  },
  picture: ({ file, values }) => {
    const document = read(file);
    const picture = drawPicture(document, cutModel(document), { width: 1280, height: 800 });
    writeFiles([{ path: target(values.out), pieces: [picture] }]);
    return 0;
  },
};

/** Runs one command. @returns the exit code: 0 done, 1 refused or not sound, 2 misused, 3 written without elements that could not be made. */
export async function run(
  args: string[],
  print: (text: string) => void,
  complain: (text: string) => void,
): Promise<number> {
  try {
    const { values, positionals } = parseArgs({ args, allowPositionals: true, options });
    const [command, file] = positionals;
    if (values.help && command === 'edit') {
      print(scriptHelp());
      return 0;
    }
    if (values.help || command === undefined) {
      print(usage);
      return values.help ? 0 : 2;
    }
    if (!Object.hasOwn(commands, command)) throw new Misused(`There is no command “${command}”.`);
    if (command !== 'demo') await solidLibrary();
    return await commands[command]!({ file, values, print, complain });
  } catch (error) {
    return told(error, complain);
  }
}

/** Says what went wrong. @returns the exit code */
function told(error: unknown, complain: (text: string) => void): number {
  complain(`${(error as Error).message}\n`);
  if (error instanceof Refused) {
    for (const fault of error.faults) complain(`  ${fault.path || '(file)'}: ${fault.reason}\n`);
    return 1;
  }
  if (!(error instanceof Misused) && !(error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS')) return 1;
  complain(`\n${usage}`);
  return 2;
}
