import { Stopped, Superseded } from '../core/errors';
import type { Task } from '../core/task/task';

interface Job {
  readonly lane: string;
  readonly steps: Task<unknown>;
  /** Time worked on it, and the largest share that it told. */
  worked: number;
  share: number | null;
  resolve(value: unknown): void;
  reject(error: unknown): void;
}

/** How long work goes on before it looks for newer requests. */
const SLICE_MS = 10;
/** Work that took longer is told of, slice by slice. */
const LONG_MS = 400;

/** A job that takes long. */
export interface LongWork {
  readonly lane: string;
  /** The share done, from 0 to 1; null where the work does not know. */
  readonly share: number | null;
}

/**
 * Runs work in slices, lanes of higher rank first. A newer job in a lane takes the place of an
 * older one there, which ends with `Superseded`.
 */
export class Scheduler {
  readonly #jobs = new Map<string, Job>();
  /** The newest that came in each lane and waits for what it needs. */
  readonly #awaited = new Map<string, symbol>();
  #running = false;

  /**
   * @param lanes in falling rank; lanes not named come last
   * @param pause lets messages come in; resolves soon after
   * @param told is called after each slice of a job that takes long
   */
  constructor(
    readonly lanes: readonly string[],
    readonly pause: () => Promise<void>,
    readonly now: () => number,
    readonly told: (work: LongWork) => void = () => undefined,
  ) {}

  /**
   * Work that has first to wait for something: newer than what came before it and older than what
   * comes while it waits, however long each of them waits.
   */
  async postWhen<T>(lane: string, ready: Promise<Task<T>>): Promise<T> {
    this.#give(lane);
    const turn = Symbol(lane);
    this.#awaited.set(lane, turn);
    const steps = await ready;
    const newest = this.#awaited.get(lane);
    if (newest !== turn) throw newest ? new Superseded() : new Stopped();
    return this.post(lane, steps);
  }

  post<T>(lane: string, steps: Task<T>): Promise<T> {
    this.#give(lane);
    this.#awaited.set(lane, Symbol(lane));
    return new Promise<T>((resolve, reject) => {
      this.#jobs.set(lane, {
        lane,
        steps,
        worked: 0,
        share: null,
        resolve: resolve as (value: unknown) => void,
        reject,
      });
      if (!this.#running) void this.#run();
    });
  }

  /** Gives up all that is under way; each ends with `Stopped`. */
  stop(): void {
    for (const job of this.#jobs.values()) job.reject(new Stopped());
    this.#jobs.clear();
    this.#awaited.clear();
  }

  /** Gives a lane up to a newer job. */
  #give(lane: string): void {
    this.#jobs.get(lane)?.reject(new Superseded());
    this.#jobs.delete(lane);
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
    const from = this.now();
    let now = from;
    try {
      do {
        const step = job.steps.next();
        if (step.done) {
          this.#jobs.delete(job.lane);
          job.resolve(step.value);
          return;
        }
        if (step.value !== undefined) job.share = Math.max(job.share ?? 0, step.value);
        now = this.now();
      } while (now < from + SLICE_MS);
    } catch (error) {
      this.#jobs.delete(job.lane);
      job.reject(error);
      return;
    }
    job.worked += now - from;
    if (job.worked >= LONG_MS) this.told({ lane: job.lane, share: job.share });
  }
}
