/** The application as a person starts it, with data of its own, to be killed and started again by tests. */
import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

export class Application {
  private child: ChildProcess | null = null;
  output = '';

  private constructor(
    readonly folder: string,
    readonly port: number,
    readonly command: string,
    private readonly env: Record<string, string>,
  ) {}

  /** @param env further settings, as they would be given in the shell. */
  static async make(command = 'start', env: Record<string, string> = {}): Promise<Application> {
    const folder = mkdtempSync(join(tmpdir(), 'yard-arch-e2e-'));
    chmodSync(folder, 0o711);
    return new Application(folder, await freePort(), command, env);
  }

  /** The number of its process while it runs. */
  get pid(): number | undefined {
    return this.child?.pid;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Runs the command and waits until it is ready, or ends. @returns its exit code when it ended. */
  start(...args: string[]): Promise<number | null> {
    this.output = '';
    const child = spawn(process.execPath, ['ops/bootstrap.mjs', this.command, ...args], {
      cwd: root,
      env: { ...process.env, PORT: String(this.port), YARD_DATA: this.folder, NODE_OPTIONS: '', ...this.env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child = child;
    return new Promise((resolve, reject) => {
      const late = setTimeout(() => reject(new Error(`It was not ready in two minutes:\n${this.output}`)), 120_000);
      const heard = (chunk: Buffer): void => {
        this.output += chunk.toString();
        if (!this.output.includes('Yard Arch is ready')) return;
        clearTimeout(late);
        resolve(null);
      };
      child.stdout!.on('data', heard);
      child.stderr!.on('data', heard);
      child.on('exit', (code) => {
        clearTimeout(late);
        resolve(code ?? 1);
      });
    });
  }

  private ended(signal: NodeJS.Signals): Promise<number | null> {
    const child = this.child;
    if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve(child?.exitCode ?? null);
    return new Promise((resolve, reject) => {
      const late = setTimeout(() => {
        child.kill('SIGKILL');
        reject(new Error(`It did not end in a minute:\n${this.output}`));
      }, 60_000);
      child.on('exit', (code) => {
        clearTimeout(late);
        resolve(code);
      });
      child.kill(signal);
    });
  }

  /** Ctrl-C. @returns the exit code. */
  stop(): Promise<number | null> {
    return this.ended('SIGINT');
  }

  /** As a crash would: nothing is put in order, the database's server is left running. */
  crash(): Promise<number | null> {
    return this.ended('SIGKILL');
  }

  async remove(): Promise<void> {
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
