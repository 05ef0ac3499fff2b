import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Tests and benchmarks are run from the repository's root. */
const root = process.cwd();

/** The built application in a process and a data folder of its own. */
export class TestServer {
  readonly data = mkdtempSync(path.join(tmpdir(), 'tally-loft-test-'));
  address = '';
  #process: ChildProcess | null = null;
  #env: Record<string, string>;

  constructor(env: Record<string, string> = {}) {
    this.#env = env;
  }

  /** Starts it and waits until it says its address. */
  async start(): Promise<string> {
    const child = spawn(process.execPath, ['scripts/serve.mjs'], {
      cwd: root,
      env: {
        ...process.env,
        TALLY_LOFT_DATA: this.data,
        TALLY_LOFT_PORT: '0',
        TALLY_LOFT_LOG: 'error',
        ...this.#env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.#process = child;
    this.address = await new Promise<string>((resolve, reject) => {
      let text = '';
      const take = (data: Buffer): void => {
        text += data.toString();
        const found = /Tally Loft is at (http\S+)\//.exec(text);
        if (found) resolve(found[1]);
      };
      child.stdout?.on('data', take);
      child.stderr?.on('data', take);
      child.on('exit', (code) => reject(new Error(`The server ended (${code}):\n${text}`)));
    });
    return this.address;
  }

  /** Ends it at once, as a power cut would. */
  async kill(): Promise<void> {
    const child = this.#process;
    if (!child || child.exitCode !== null) return;
    await new Promise<void>((resolve) => {
      child.once('exit', () => resolve());
      child.kill('SIGKILL');
    });
  }

  /** Asks it to end, as a service manager does, and as one kills it after 5 s. @returns how it ended; null: killed */
  async end(): Promise<number | null> {
    const child = this.#process;
    if (!child) return null;
    return new Promise((resolve) => {
      const impatient = setTimeout(() => child.kill('SIGKILL'), 5000);
      child.once('exit', (code) => {
        clearTimeout(impatient);
        resolve(code);
      });
      child.kill('SIGTERM');
    });
  }

  async stop(): Promise<void> {
    await this.kill();
    rmSync(this.data, { recursive: true, force: true });
  }
}
