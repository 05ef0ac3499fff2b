import { Refused } from '../../worker/engineClient';

/** It was stopped by the analyst: nothing came of it. */
export class Stopped extends Error {
  constructor() {
    super('Stopped. Nothing was kept.');
  }
}

/** Work beside the figures on the page: the report being made, a file being written. One at a time. */
export class Errand {
  /** What is done, in words, and the share of it where that is known. */
  now = $state.raw<{ readonly what: string; readonly share: number | null } | null>(null);
  #stop: (() => void) | null = null;
  /** Whether the errand counts itself what of it is done. */
  #counts = false;

  /** @param cancel has the engine give up what is under way */
  constructor(readonly cancel: () => void) {}

  /**
   * Does it, seen and stopped in the page. A newer errand takes the place of an older one on the page.
   * @throws Stopped where the analyst ended it
   * @example await bench.errand.run('Writing the file', (signal, told) => …)
   */
  async run<T>(
    what: string,
    work: (signal: AbortSignal, told: (share: number, words?: string) => void) => Promise<T>,
  ): Promise<T> {
    const control = new AbortController();
    const stop = (): void => {
      control.abort();
      this.cancel();
    };
    this.#stop = stop;
    this.#counts = false;
    this.now = { what, share: null };
    try {
      return await work(control.signal, (share, words = what) => {
        if (this.#stop !== stop) return;
        this.#counts = true;
        this.now = { what: words, share };
      });
    } catch (error) {
      const given = error instanceof Refused && error.code === 'stopped';
      throw control.signal.aborted || given ? new Stopped() : error;
    } finally {
      if (this.#stop === stop) {
        this.#stop = null;
        this.now = null;
      }
    }
  }

  /** What the engine says of its own work, where nobody counts what is done. */
  heard(share: number | null): void {
    if (this.now && !this.#counts && share !== null) this.now = { ...this.now, share };
  }

  stop(): void {
    this.#stop?.();
  }
}
