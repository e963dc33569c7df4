/** Pictures from outside: what they are is told by their bytes, not by their names. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { mostPictureBytes, mostPictureSide, type Asset, type PictureType } from '@yard-arch/document';
import { imageSize } from 'image-size';

/** What a picture's bytes say of it. */
export type PictureFacts = Pick<Asset, 'sha256' | 'type' | 'bytes' | 'width' | 'height'>;

const types: Readonly<Record<string, PictureType>> = { png: 'image/png', jpg: 'image/jpeg', webp: 'image/webp' };

/** By which bytes a file is known. */
export const digestOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** What a picture is, or why it cannot be taken, in a sentence. */
export function pictureFacts(bytes: Uint8Array): PictureFacts | { reason: string; mend: string } {
  if (bytes.length === 0) return { reason: 'the file is empty', mend: 'Choose another.' };
  if (bytes.length > mostPictureBytes)
    return {
      reason: `it has ${Math.ceil(bytes.length / 1024 / 1024)} MB`,
      mend: `Save it with at most ${mostPictureBytes / 1024 / 1024} MB: as JPEG, or with fewer dots.`,
    };
  let read;
  try {
    read = imageSize(bytes);
  } catch {
    read = null;
  }
  const type = types[read?.type ?? ''];
  if (!read || !type) return { reason: 'it is no PNG, JPEG or WebP picture', mend: 'Save it as one of these.' };
  const { width, height } = read;
  if (!(width >= 1 && height >= 1)) return { reason: 'its size cannot be read', mend: 'Save it anew.' };
  if (Math.max(width, height) > mostPictureSide)
    return {
      reason: `it is ${width.toLocaleString('en')} by ${height.toLocaleString('en')} dots`,
      mend: `Make it smaller: at most ${mostPictureSide.toLocaleString('en')} dots along either side.`,
    };
  return { sha256: digestOf(bytes), type, bytes: bytes.length, width, height };
}

/** The ending of a picture's file. */
export const pictureEnding = (type: PictureType): string =>
  ({ 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' })[type];
