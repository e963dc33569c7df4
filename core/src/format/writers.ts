/** What writes a model in each format. A new format is a line here and one in `formats`. */
import type { ProjectDocument } from '@yard-arch/document';
import type { Model } from '../model/model.ts';
import type { WrittenFormat } from './formats.ts';
import { glbPieces } from './glb.ts';
import { refuseEmpty } from './left-out.ts';
import { objFiles, objPieces } from './obj.ts';
import type { AssetSource } from './project-file.ts';

/** A file, by its name; what it holds comes in pieces. */
export interface WrittenFile {
  name: string;
  pieces: Iterable<Uint8Array | string>;
}

export interface Writer {
  /** All in one file, to be downloaded. @param onShare hears how much of it is written, from 0 to 1. */
  pieces: (
    document: ProjectDocument,
    model: Model,
    stem: string,
    { onShare, source }: { onShare: (share: number) => void; source: AssetSource },
  ) => Promise<Iterable<Uint8Array>> | Iterable<Uint8Array>;
  /** The file that is asked for first, and those that it names, to stand side by side in a folder. */
  files: (document: ProjectDocument, model: Model, stem: string, source: AssetSource) => Promise<WrittenFile[]>;
}

const unguarded: Readonly<Record<WrittenFormat, Writer>> = {
  glb: {
    pieces: (document, model, _stem, { source }) => glbPieces(document, model, source),
    files: async (document, model, stem, source) => [
      { name: `${stem}.glb`, pieces: await glbPieces(document, model, source) },
    ],
  },
  'glb-instanced': {
    pieces: (document, model, _stem, { source }) => glbPieces(document, model, source, true),
    files: async (document, model, stem, source) => [
      { name: `${stem}.glb`, pieces: await glbPieces(document, model, source, true) },
    ],
  },
  obj: {
    pieces: objPieces,
    files: (document, model, stem, source) =>
      Promise.resolve(objFiles(document, model, stem, { onShare: undefined, source })),
  },
};

/** A writer that refuses to write a file of nothing. */
const refusing = ({ pieces, files }: Writer): Writer => ({
  pieces: (document, model, stem, options) => {
    refuseEmpty(document, model);
    return pieces(document, model, stem, options);
  },
  files: async (document, model, stem, source) => {
    refuseEmpty(document, model);
    return files(document, model, stem, source);
  },
});

/** Each raises Refused where a file would hold nothing. */
export const writers = Object.fromEntries(
  Object.entries(unguarded).map(([format, writer]) => [format, refusing(writer)]),
) as unknown as Readonly<Record<WrittenFormat, Writer>>;
