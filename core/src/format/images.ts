/** The pictures of materials for the files that name them: a material's own, or that of its texture. */
import {
  pictureSlots,
  type Asset,
  type Material,
  type Pictures,
  type PictureSlot,
  type ProjectDocument,
} from '@yard-arch/document';
import { encode } from 'fast-png';
import { textureOf } from '../texture/index.ts';
import { pictureEnding } from './picture-file.ts';
import type { AssetSource } from './project-file.ts';

/** A picture of a material; its bytes are made when they are asked for. */
export interface MaterialImage {
  slot: PictureSlot;
  type: Asset['type'];
  ending: string;
  bytes: () => Uint8Array;
}

export interface MaterialImages {
  /** How wide and high a piece of surface they show, metres. */
  metres: readonly [number, number];
  images: MaterialImage[];
}

/** The pictures of a material; null where it has none that can be had. A picture that is missing is left out. */
export function imagesOf(document: ProjectDocument, material: Material, source: AssetSource): MaterialImages | null {
  const { pictures, texture, colour } = material;
  const own = pictures ? ownImages(document, pictures, source) : [];
  if (pictures && own.length > 0) return { metres: [pictures.width, pictures.height], images: own };
  if (!texture) return null;
  const { metres } = textureOf(texture, colour);
  const bytes = (): Uint8Array => {
    const { width, height, data } = textureOf(texture, colour);
    return encode({ width, height, data, channels: 3 });
  };
  return { metres, images: [{ slot: 'colour', type: 'image/png', ending: 'png', bytes }] };
}

function ownImages(document: ProjectDocument, pictures: Pictures, source: AssetSource): MaterialImage[] {
  return pictureSlots.flatMap((slot) => {
    const asset = document.assets[pictures[slot] ?? ''];
    const held = asset && source(asset.sha256);
    return asset && held ? [{ slot, type: asset.type, ending: pictureEnding(asset.type), bytes: () => held }] : [];
  });
}
