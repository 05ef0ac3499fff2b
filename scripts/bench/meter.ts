import { z } from 'zod';

/** One line of the table: what was done, its bar, what was measured. */
export const Result = z.strictObject({
  work: z.string(),
  bar: z.string(),
  measured: z.string(),
  holds: z.boolean(),
});
export type Result = z.infer<typeof Result>;

/** Measures, and keeps what came out. */
export interface Meter {
  /** The best of several runs, in milliseconds. */
  time(work: () => unknown, runs?: number): number;
  ratio(work: () => unknown, against: () => unknown, rounds?: number): number;
  atMost(work: string, ratio: number, limit: number, against: string): void;
  atLeast(work: string, ratio: number, limit: number, against: string): void;
  within(work: string, ms: number, limit: number): void;
}

/**
 * The best of several runs, in milliseconds, after two to warm up: other work on the machine only
 * ever adds time.
 */
export function time(work: () => unknown, runs = 9): number {
  work();
  work();
  let best = Infinity;
  for (let k = 0; k < runs; k++) {
    const start = performance.now();
    work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

/**
 * How many times as long one work takes as another: the median of the rounds' own ratios. A round
 * runs both, one behind the other, so a machine that changes its speed changes both; best times would
 * not do, as one of the two may meet a fast moment that the other missed.
 */
export function ratio(work: () => unknown, against: () => unknown, rounds = 9): number {
  const took = (each: () => unknown): number => {
    const start = performance.now();
    each();
    return performance.now() - start;
  };
  const WARM_UP = 3;
  // What earlier works left behind would be collected in the middle of these.
  globalThis.gc?.();
  const ratios: number[] = [];
  for (let k = -WARM_UP; k < rounds; k++) {
    const own = took(work) / took(against);
    if (k >= 0) ratios.push(own);
  }
  ratios.sort((a, b) => a - b);
  return ratios[rounds >> 1];
}

export const meterInto = (results: Result[]): Meter => ({
  time,
  ratio,
  atMost: (work, ratio, limit, against) =>
    void results.push({
      work,
      bar: `at most ${limit}x ${against}`,
      measured: `${ratio.toFixed(2)}x`,
      holds: ratio <= limit,
    }),
  atLeast: (work, ratio, limit, against) =>
    void results.push({
      work,
      bar: `at least ${limit}x faster than ${against}`,
      measured: `${ratio.toFixed(1)}x`,
      holds: ratio >= limit,
    }),
  within: (work, ms, limit) =>
    void results.push({
      work,
      bar: `within ${limit} ms`,
      measured: `${ms.toFixed(ms < 10 ? 1 : 0)} ms`,
      holds: ms <= limit,
    }),
});
