/** Writing several files so that all of them are there, whole, or none. */
import { closeSync, openSync, renameSync, rmSync, writeSync } from 'node:fs';

/** A file to be written, its content in pieces. */
export interface FileToWrite {
  path: string;
  pieces: Iterable<string | Uint8Array>;
}

/** Writes files beside their places first, and moves them there when all are whole. @throws what went wrong; nothing has been written then. */
export function writeFiles(files: readonly FileToWrite[]): void {
  const parts = files.map(({ path }) => `${path}.${process.pid}.part`);
  try {
    files.forEach(({ pieces }, i) => {
      const file = openSync(parts[i]!, 'w');
      try {
        for (const piece of pieces) writeAll(file, typeof piece === 'string' ? Buffer.from(piece) : piece);
      } finally {
        closeSync(file);
      }
    });
    files.forEach(({ path }, i) => renameSync(parts[i]!, path));
  } finally {
    for (const part of parts) rmSync(part, { force: true });
  }
}

function writeAll(file: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) at += writeSync(file, bytes, at);
}
