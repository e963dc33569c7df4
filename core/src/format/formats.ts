/** The file formats in which a model is taken away or single sheets are brought in: what a person and a program need to know of each, without what writes or reads it. */
export interface FileFormat {
  /** How it is named, and the ending of its files. */
  id: string;
  /** What it is called where little is said. */
  label: string;
  /** What it is for, where it is chosen. */
  about: string;
  /** Whether a model is written in it, and as what it goes over the wire. */
  written: { type: string; ending: string } | null;
  /** Whether single sheets are read from it. */
  read: boolean;
}

export const formats = [
  {
    id: 'glb',
    label: 'GLB',
    about: 'GLB, for renderers',
    written: { type: 'model/gltf-binary', ending: 'glb' },
    read: true,
  },
  {
    id: 'glb-instanced',
    label: 'GLB of instances',
    about: 'GLB of instances, small where much is alike',
    written: { type: 'model/gltf-binary', ending: 'instanced.glb' },
    read: false,
  },
  {
    id: 'obj',
    label: 'OBJ',
    about: 'OBJ with MTL (ZIP)',
    written: { type: 'application/zip', ending: 'obj.zip' },
    read: true,
  },
] as const satisfies readonly FileFormat[];

export type WrittenFormat = Extract<(typeof formats)[number], { written: object }>['id'];

/** Formats in which a model is written. */
export const writtenFormats: readonly (FileFormat & {
  id: WrittenFormat;
  written: NonNullable<FileFormat['written']>;
})[] = formats;

/** Endings of the files that single sheets are read from. */
export const readEndings: readonly string[] = formats.filter(({ read }) => read).map(({ id }) => `.${id}`);

/** How many are told of by name. */
const mostNamed = 3;

/** The elements that are left out of a file since they could not be made, as a sentence. */
export function leftOutWords(left: readonly { name: string; reason: string }[]): string {
  const named = left.slice(0, mostNamed).map(({ name, reason }) => `“${name}” ${reason}`);
  const more = left.length - named.length;
  return `${named.join('; ')}${more > 0 ? `; and ${more} more` : ''}.`;
}
