import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Runs, runsOf } from './runs';

it('runs of equal values are those of a count of each, whatever the stretches', () => {
  const values = fc.array(fc.constantFrom(-2.5, -1, 0, 0.1, 3, 7, 1e9), { maxLength: 60 });
  const cuts = fc.array(fc.nat(60), { maxLength: 4 });
  fc.assert(
    fc.property(values, cuts, (some, at) => {
      const ordered = Float64Array.from(some).sort();
      const times = new Map<number, number>();
      for (const v of ordered) times.set(v, (times.get(v) ?? 0) + 1);
      const most = Math.max(0, ...times.values());
      const commonest = [...times].filter(([, n]) => n === most).map(([v]) => v);
      const expected = {
        distinct: times.size,
        value: commonest[0] ?? NaN,
        times: most,
        ties: commonest.length,
      };
      expect({ ...runsOf(ordered) }).toEqual(expected);
      const parted = new Runs();
      const ends = [0, ...at, ordered.length].map((k) => Math.min(k, ordered.length));
      ends.sort((a, b) => a - b);
      for (let k = 1; k < ends.length; k++) parted.add(ordered, ends[k - 1], ends[k]);
      expect({ ...parted }).toEqual(expected);
    }),
  );
});
