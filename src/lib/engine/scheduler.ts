import { Superseded } from '../core/errors';
import type { Steps } from '../core/steps/steps';

interface Job {
  readonly lane: string;
  readonly steps: Steps<unknown>;
  resolve(value: unknown): void;
  reject(error: unknown): void;
}

/** How long work goes on before it looks for newer requests. */
const SLICE_MS = 10;

/**
 * Runs work in slices, lanes of higher rank first. A newer job in a lane takes the place of an
 * older one there, which ends with `Superseded`.
 */
export class Scheduler {
  readonly #jobs = new Map<string, Job>();
  #running = false;

  /**
   * @param lanes in falling rank; lanes not named come last
   * @param pause lets messages come in; resolves soon after
   */
  constructor(
    readonly lanes: readonly string[],
    readonly pause: () => Promise<void>,
    readonly now: () => number,
  ) {}

  post<T>(lane: string, steps: Steps<T>): Promise<T> {
    this.#jobs.get(lane)?.reject(new Superseded());
    return new Promise<T>((resolve, reject) => {
      this.#jobs.set(lane, { lane, steps, resolve: resolve as (value: unknown) => void, reject });
      if (!this.#running) void this.#run();
    });
  }

  #next(): Job | undefined {
    for (const lane of this.lanes) {
      const job = this.#jobs.get(lane);
      if (job) return job;
    }
    return this.#jobs.values().next().value;
  }

  async #run(): Promise<void> {
    this.#running = true;
    await this.pause();
    for (let job = this.#next(); job; job = this.#next()) {
      this.#slice(job);
      await this.pause();
    }
    this.#running = false;
  }

  #slice(job: Job): void {
    const until = this.now() + SLICE_MS;
    try {
      do {
        const step = job.steps.next();
        if (step.done) {
          this.#jobs.delete(job.lane);
          job.resolve(step.value);
          return;
        }
      } while (this.now() < until);
    } catch (error) {
      this.#jobs.delete(job.lane);
      job.reject(error);
    }
  }
}
