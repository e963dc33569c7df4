/** The bytes of a pattern's meshes, in its file: so that it can be taken to another server. */
import type { PatternFile } from '@yard-arch/document';
import { api, assetUrl } from '../state/api.ts';
import { take } from '../state/meshes.ts';

function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}

/** A pattern file that stands alone: with the bytes of its meshes. @throws Error where one cannot be had */
export async function withFiles(file: PatternFile): Promise<PatternFile> {
  const shas = Object.keys(file.meshes);
  if (shas.length === 0) return file;
  const files: Record<string, string> = {};
  for (const sha256 of shas) {
    const response = await fetch(assetUrl(sha256));
    if (!response.ok) throw new Error(`The mesh “${file.meshes[sha256]!.name}” is not on the server.`);
    files[sha256] = base64Of(new Uint8Array(await response.arrayBuffer()));
  }
  return { ...file, files };
}

/** Keeps the meshes that came with a file. @throws ApiError where the server refuses one */
export async function keepFiles(value: unknown): Promise<void> {
  const { files = {} } = value as { files?: Record<string, unknown> };
  for (const text of Object.values(files)) {
    if (typeof text !== 'string') continue;
    const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
    const { sha256 } = await api.keepMesh(bytes);
    await take(sha256, bytes);
  }
}
