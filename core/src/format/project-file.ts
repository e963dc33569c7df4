/** Project files: JSON by itself, or where it names pictures or meshes a ZIP of it and them. */
import {
  checkDocument,
  Refused,
  writeDocument,
  type Asset,
  type KeptMesh,
  type Fault,
  type ProjectDocument,
  parseJson,
} from '@yard-arch/document';
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { keptMeshFacts } from './import-mesh.ts';
import { digestOf, pictureEnding, pictureFacts } from './picture-file.ts';

/** Bytes by their SHA-256; null where they are not to be had. */
export type AssetSource = (sha256: string) => Uint8Array | null;
export const noAssets: AssetSource = () => null;

const projectName = 'project.json';
/** What is kept beside the document: pictures and meshes. */
type Held = Asset | KeptMesh;
const heldBy = ({ assets, meshes }: ProjectDocument): Held[] => [...Object.values(assets), ...Object.values(meshes)];
const isPicture = (held: Held): held is Asset => 'type' in held;
const assetName = (held: Held): string => `assets/${held.sha256}.${isPicture(held) ? pictureEnding(held.type) : 'glb'}`;

/** The most that a project file may hold once it is unpacked. */
const mostBytes = 512 * 1024 * 1024;
const mostFiles = 4000;

/** Whether bytes are a ZIP. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** Pictures and meshes that a document names and that are not to be had, each by what it is called. */
export function missingAssets(document: ProjectDocument, source: AssetSource): Held[] {
  return heldBy(document).filter(({ sha256 }) => source(sha256) === null);
}

/** A project file: JSON where the document names neither pictures nor meshes, else a ZIP. @throws Refused where one is missing. */
export function writeProjectFile(document: ProjectDocument, source: AssetSource): { bytes: Uint8Array; zip: boolean } {
  const text = strToU8(writeDocument(document));
  const assets = heldBy(document);
  if (assets.length === 0) return { bytes: text, zip: false };
  const missing = missingAssets(document, source);
  if (missing.length > 0)
    throw new Refused(
      `The project cannot be written whole: ${missing.map(({ name }) => `“${name}”`).join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing. Choose ${missing.length === 1 ? 'it' : 'them'} anew where ${missing.length === 1 ? 'it is' : 'they are'} used, or take ${missing.length === 1 ? 'it' : 'them'} off.`,
      missing.map((held) => ({ path: pathOf(held), reason: 'is missing' })),
    );
  // The same project gives the same file.
  const mtime = '2000-01-01T12:00:00';
  const files: Zippable = { [projectName]: [text, { level: 6, mtime }] };
  // Pictures are compressed already.
  for (const asset of assets) files[assetName(asset)] = [source(asset.sha256)!, { level: 0, mtime }];
  return { bytes: zipSync(files), zip: true };
}

export interface ProjectFile {
  document: ProjectDocument;
  /** Pictures and meshes that came with it, by their SHA-256. */
  assets: ReadonlyMap<string, Uint8Array>;
}

/**
 * Reads a project file of either kind, all of it or nothing.
 * @param known whether bytes are there already, so that they need not come with the file.
 * @throws Refused with what is wrong: of the document as `checkDocument`; a picture that is missing, or is not what the document says.
 */
export function readProjectFile(bytes: Uint8Array, known: (sha256: string) => boolean = () => false): ProjectFile {
  const files = isZip(bytes) ? unpacked(bytes) : { [projectName]: bytes };
  const text = files[projectName];
  if (!text) throw new Refused(`The file is no project: it holds no ${projectName}.`, []);
  let json: unknown;
  try {
    json = parseJson(strFromU8(text));
  } catch (error) {
    throw new Refused(`The project is not JSON: ${(error as Error).message}`, []);
  }
  const document = checkDocument(json);
  const assets = new Map<string, Uint8Array>();
  const faults: Fault[] = [];
  for (const asset of heldBy(document)) {
    const held = files[assetName(asset)];
    const reason = held ? mismatch(asset, held) : known(asset.sha256) ? null : 'is not in the file';
    if (reason) faults.push({ path: pathOf(asset), reason: `“${asset.name}” ${reason}` });
    else if (held) assets.set(asset.sha256, held);
  }
  if (faults.length > 0)
    throw new Refused(
      `The project cannot be read: ${faults
        .map(({ reason }) => reason)
        .slice(0, 5)
        .join('; ')}. Write it again where it came from, with its pictures and meshes, or take them off there.`,
      faults,
    );
  return { document, assets };
}

const pathOf = (held: Held): string => `${isPicture(held) ? 'assets' : 'meshes'}/${held.id}`;

function mismatch(asset: Held, bytes: Uint8Array): string | null {
  if (digestOf(bytes) !== asset.sha256) return 'is not what it was: its bytes have another SHA-256';
  if (!isPicture(asset)) return meshMismatch(asset, bytes);
  const facts = pictureFacts(bytes);
  if ('reason' in facts) return `cannot be taken: ${facts.reason}`;
  const wrong = (['type', 'bytes', 'width', 'height'] as const).find((key) => facts[key] !== asset[key]);
  return wrong ? `is not what the project says of it: its ${wrong} is ${facts[wrong]}, not ${asset[wrong]}` : null;
}

function meshMismatch(mesh: KeptMesh, bytes: Uint8Array): string | null {
  const facts = keptMeshFacts(bytes);
  if ('reason' in facts) return `cannot be taken: ${facts.reason}`;
  const wrong = (['bytes', 'triangles', 'openEdges', 'size', 'materials'] as const).find(
    (key) => JSON.stringify(facts[key]) !== JSON.stringify(mesh[key]),
  );
  return wrong ? `is not what the project says of it: its ${wrong} are others` : null;
}

function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  const ours = ({ name }: { name: string }): boolean => name === projectName || name.startsWith('assets/');
  let [size, count] = [0, 0];
  try {
    // The sizes of all first, without unpacking any, so that a small file cannot fill the memory.
    unzipSync(bytes, {
      filter: (file) => {
        if (ours(file)) [size, count] = [size + file.originalSize, count + 1];
        return false;
      },
    });
    if (size > mostBytes || count > mostFiles)
      throw new Refused(
        `The file holds more than a project may: ${mostBytes / 1024 / 1024} MB in ${mostFiles} files.`,
        [],
      );
    return unzipSync(bytes, { filter: ours });
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(`The ZIP cannot be read: ${(error as Error).message}.`, []);
  }
}
