import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sortedInParts, sortedValues } from '$lib/core/sorting/sorted';
import { finish } from '$lib/core/task/task';

describe('sorting with pauses', () => {
  it('is what Float64Array.sort gives, for long runs of any numbers', () => {
    const some = fc.oneof(
      fc.double({ noNaN: true }),
      fc.integer({ min: -50, max: 50 }),
      fc.constantFrom(0, -0, Infinity, -Infinity, Number.MIN_VALUE, -Number.MIN_VALUE, 1e308),
    );
    fc.assert(
      fc.property(fc.array(some, { minLength: 50, maxLength: 400 }), fc.nat(97), (seed, turn) => {
        const values = Float64Array.from(
          { length: 20_000 },
          (_, k) => seed[(k * (turn + 1)) % seed.length] * (k % 7 === 0 ? -1 : 1),
        );
        const want = values.slice().sort();
        const got = finish(sortedInParts(values));
        for (let k = 0; k < want.length; k++)
          if (!Object.is(got[k], want[k])) throw new Error(`at ${k}: ${got[k]}, not ${want[k]}`);
      }),
      { numRuns: 25 },
    );
  });

  it('is so for numbers on a grid and next to one, of all magnitudes, and for many equal ones', () => {
    const made: [name: string, of: (k: number) => number][] = [
      ['pence', (k) => ((k * 7919) % 30_011) / 100],
      ['pence below zero', (k) => (((k * 7919) % 30_011) - 15_000) / 100],
      ['pence but for one', (k) => (k === 31_999 ? 0.1 + 0.2 : ((k * 7919) % 30_011) / 100)],
      ['whole numbers and −0', (k) => (k % 3 ? k % 50 : -0)],
      ['one that lies far off', (k) => (k === 77 ? 1e300 : Math.sin(k) * 1e-3)],
      ['few that differ by their last bits', (k) => 1 + (k % 5) * Number.EPSILON],
      ['all the same', () => Math.PI],
      ['evenly spread', (k) => ((k * Math.SQRT2) % 1) * 900],
      ['evenly spread about zero', (k) => ((k * Math.SQRT2) % 1) - 0.5],
      [
        'evenly spread, with zeros of both signs',
        (k) => (k % 4001 === 0 ? -0 : k % 3989 === 0 ? 0 : ((k * Math.SQRT2) % 1) - 0.5),
      ],
      ['thick at one end', (k) => ((k * Math.SQRT2) % 1) ** 24],
      ['half of them in one spot', (k) => (k % 2 ? 5 + ((k * Math.SQRT2) % 1) * 1e-9 : k)],
      ['every magnitude', (k) => (k % 2 ? 1 : -1) * 10 ** ((k * 37) % 600) * 1e-300 * Math.E],
    ];
    for (const [name, of] of made) {
      const values = Float64Array.from({ length: 40_000 }, (_, k) => of(k));
      const want = values.slice().sort();
      const got = finish(sortedInParts(values));
      expect(
        got.every((v, k) => Object.is(v, want[k])),
        name,
      ).toBe(true);
    }
  });

  it('takes only what is there of a selection', () => {
    const values = Float64Array.from({ length: 60_000 }, (_, k) =>
      k % 5 === 0 ? NaN : (k * 37) % 991,
    );
    const records = Int32Array.from({ length: 40_000 }, (_, k) => k + 1000);
    const want = Float64Array.from(records, (i) => values[i])
      .filter((v) => v === v)
      .sort();
    expect(finish(sortedValues(values, records))).toEqual(want);
    expect(finish(sortedValues(values, new Int32Array(0))).length).toBe(0);
  });

  it('pauses again and again', () => {
    const steps = sortedInParts(Float64Array.from({ length: 300_000 }, (_, k) => Math.sin(k)));
    let pauses = 0;
    while (!steps.next().done) pauses++;
    expect(pauses).toBeGreaterThan(10);
  });
});
