/** One copy at a time: a file that says who is using a data folder, and where it can be seen. */
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

interface Holder {
  pid: number;
  started: string;
  url: string | null;
}

/** When a process was started, by the kernel's own count, so that a number used again is not mistaken for it. */
function startOf(pid: number): string | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
}

export interface Lock {
  /** Tells others where this copy can be seen. */
  tell(url: string): void;
  release(): void;
}

/** Takes a data folder for this process. @throws Error that says where the other copy runs. */
export function takeLock(folder: string): Lock {
  const path = join(folder, 'in-use.json');
  const mine: Holder = { pid: process.pid, started: startOf(process.pid) ?? '', url: null };
  for (let tries = 0; ; tries++) {
    try {
      writeFileSync(path, JSON.stringify(mine), { flag: 'wx' });
      break;
    } catch (error) {
      if ((error as { code?: string }).code !== 'EEXIST' || tries > 3) throw error;
      let holder: Holder | null = null;
      try {
        holder = JSON.parse(readFileSync(path, 'utf8')) as Holder;
      } catch {
        // Half-written by a copy that crashed.
      }
      if (holder && startOf(holder.pid) === holder.started)
        throw new Error(
          holder.url
            ? `Yard Arch is already running from this folder, at ${holder.url}. Use that, or stop it first (process ${holder.pid}).`
            : `Another copy (process ${holder.pid}) is just using this folder. Wait until it is done, or stop it.`,
          { cause: error },
        );
      rmSync(path, { force: true });
    }
  }
  const holds = (): boolean =>
    existsSync(path) && (JSON.parse(readFileSync(path, 'utf8')) as Holder).pid === process.pid;
  return {
    tell: (url) => writeFileSync(path, JSON.stringify({ ...mine, url })),
    release: () => {
      if (holds()) rmSync(path, { force: true });
    },
  };
}
