import { BadBands } from '../errors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { settleBands } from './settleBands';
import { bandCodes, checkBands, holds, type Bands } from '../arrange/bands';

const settle = (spec: Bands, values: readonly number[] = []) =>
  settleBands(spec, Float64Array.from(values));
const edges = (spec: Bands, values: readonly number[]) =>
  settle(spec, values).map((b) => [b.from, b.to]);

describe('how values are cut into bands', () => {
  it('by width and origin: half-open throughout', () => {
    const bands = settle({ by: 'width', width: 5, origin: 2 }, [2, 6.9, 7, 12]);
    expect(bands.map((b) => [b.from, b.to, b.toIn])).toEqual([
      [2, 7, false],
      [7, 12, false],
      [12, 17, false],
    ]);
    expect([...bandCodes(Float64Array.of(2, 6.9, 7, 12, NaN), bands)]).toEqual([0, 0, 1, 2, -1]);
  });

  it('keeps binary fractions out of the edges', () => {
    expect(edges({ by: 'width', width: 0.1, origin: 0 }, [0.05, 0.35])).toEqual([
      [0, 0.1],
      [0.1, 0.2],
      [0.2, 0.3],
      [0.3, 0.4],
    ]);
  });

  it('a number of bands takes round edges nearest to it, or exact ones', () => {
    expect(edges({ by: 'number', count: 4, round: true }, [3, 96])).toEqual([
      [0, 25],
      [25, 50],
      [50, 75],
      [75, 100],
    ]);
    expect(edges({ by: 'number', count: 2, round: false }, [1, 4])).toEqual([
      [1, 2.5],
      [2.5, 4],
    ]);
    expect(settle({ by: 'number', count: 9, round: true }, [7, 7]).map((b) => b.label)).toEqual([
      '7',
    ]);
    expect(settle({ by: 'number', count: 9, round: true }, [])).toEqual([]);
  });

  it('equal counts: edges at quantiles of definition 7, ties never split', () => {
    expect(edges({ by: 'equalCount', count: 2 }, [1, 2, 3, 4])).toEqual([
      [1, 2.5],
      [2.5, 4],
    ]);
    expect(edges({ by: 'equalCount', count: 4 }, [1, 1, 1, 9])).toEqual([
      [1, 3],
      [3, 9],
    ]);
  });

  it('refuses edges that do not rise, a turned band, and bands without end', () => {
    expect(() => settle({ by: 'edges', edges: [1, 1] })).toThrow(BadBands);
    expect(() => settle({ by: 'table', bands: [{ from: 5, to: 1 }] })).toThrow(/lower edge first/);
    expect(() => settle({ by: 'width', width: 1e-9, origin: 0 }, [0, 1])).toThrow(/wider/);
  });
});

describe('a band table', () => {
  const table = (...bands: (readonly [number | null, number | null, boolean?, boolean?])[]) =>
    settle({
      by: 'table',
      bands: bands.map(([from, to, fromIn, toIn]) => ({ from, to, fromIn, toIn })),
    });

  it('labels say what is in', () => {
    expect(
      table([null, 5], [5, 10], [10, 10], [10, 20, false], [20, null]).map((b) => b.label),
    ).toEqual(['under 5', '5 to under 10', '10', 'over 10 to under 20', '20 and over']);
  });

  it.each<[string, ReturnType<typeof table>, string[]]>([
    ['whole', table([0, 5], [5, 10]), []],
    ['a gap', table([0, 5], [6, 10]), ['gap']],
    ['an overlap', table([0, 5], [4, 10]), ['overlap']],
    ['an edge in both', table([0, 5, true, true], [5, 10]), ['overlap']],
    ['an edge in neither', table([0, 5], [5, 10, false]), ['gap']],
    ['out of order', table([5, 10], [0, 5]), ['overlap']],
  ])('%s', (_, bands, kinds) => {
    // The last band of the table is closed: put first in order, it meets its neighbour's edge.
    expect(checkBands(bands).map((f) => f.kind)).toEqual(kinds);
  });

  it('a value in several counts in the first, one in none apart', () => {
    const bands = table([0, 10], [5, 20], [30, 40]);
    expect([...bandCodes(Float64Array.of(7, 15, 25, 40, -1), bands)]).toEqual([0, 1, 3, 2, 3]);
  });

  it('counts each value once, where the first band that holds it is', () => {
    const edge = fc.integer({ min: -5, max: 15 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(edge, edge, fc.boolean(), fc.boolean()), { minLength: 1, maxLength: 6 }),
        fc.array(fc.integer({ min: -10, max: 40 }), { maxLength: 30 }),
        (rows, halves) => {
          const bands = table(
            ...rows.map(([a, b, x, y]) => [Math.min(a, b), Math.max(a, b), x, y] as const),
          );
          const values = Float64Array.from(halves, (v) => v / 2);
          bandCodes(values, bands).forEach((code, i) => {
            const first = bands.findIndex((band) => holds(band, values[i]));
            expect(code).toBe(first < 0 ? bands.length : first);
          });
        },
      ),
    );
  });
});
