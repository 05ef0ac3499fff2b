import { BadBands } from '../errors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
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
    expect([...finish(bandCodes(Float64Array.of(2, 6.9, 7, 12, NaN), bands))]).toEqual([
      0, 0, 1, 2, -1,
    ]);
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

  it('a value on an edge counts in the band below where that is asked, the outermost edges both in', () => {
    const values = [0, 5, 5, 10, 20];
    const counts = (spec: Bands) => {
      const bands = settle(spec, values);
      const codes = [...finish(bandCodes(Float64Array.from(values), bands))];
      return bands.map((band, k) => [band.label, codes.filter((c) => c === k).length]);
    };
    const edgesAt = [0, 5, 10, 20];
    expect(counts({ by: 'edges', edges: edgesAt })).toEqual([
      ['0 to under 5', 1],
      ['5 to under 10', 2],
      ['10 to 20', 2],
    ]);
    expect(counts({ by: 'edges', edges: edgesAt, edgeIn: 'below' })).toEqual([
      ['0 to 5', 3],
      ['over 5 to 10', 1],
      ['over 10 to 20', 1],
    ]);
    expect(counts({ by: 'width', width: 5, origin: 0, edgeIn: 'below' })).toEqual([
      ['over −5 to 0', 1],
      ['over 0 to 5', 2],
      ['over 5 to 10', 1],
      ['over 10 to 15', 0],
      ['over 15 to 20', 1],
    ]);
    // Band by band, whatever holds for all.
    expect(
      counts({
        by: 'table',
        edgeIn: 'below',
        bands: [
          { from: 0, to: 5, toIn: false },
          { from: 5, to: 20, fromIn: true },
        ],
      }),
    ).toEqual([
      ['0 to under 5', 1],
      ['5 to 20', 4],
    ]);
  });

  it('every pair that overlaps and every gap is named', () => {
    const bands = settle({
      by: 'table',
      bands: [
        { label: 'a', from: 0, to: 10 },
        { label: 'b', from: 2, to: 4 },
        { label: 'c', from: 3, to: 12 },
        { label: 'd', from: 20, to: 30 },
      ],
    });
    expect(checkBands(bands).map((f) => f.words)).toEqual([
      '“a” and “b” overlap; a value in both counts in the first.',
      '“a” and “c” overlap; a value in both counts in the first.',
      '“b” and “c” overlap; a value in both counts in the first.',
      'Between “c” and “d”, values from 12 to under 20 are in no band.',
    ]);
  });

  it('a pair overlaps or a value lies in a gap exactly where they say so', () => {
    const band = fc
      .tuple(
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 0, max: 6 }),
        fc.boolean(),
        fc.boolean(),
      )
      .map(([from, wide, fromIn, toIn]) => ({ from, to: from + wide, fromIn, toIn }));
    fc.assert(
      fc.property(fc.array(band, { minLength: 1, maxLength: 6 }), (list) => {
        const bands = settle({ by: 'table', bands: list }).filter(
          (b) => b.from < b.to || (b.fromIn && b.toIn),
        );
        const faults = checkBands(bands);
        const halves = Array.from({ length: 40 }, (_, k) => k / 2);
        const both = halves.some((v) => bands.filter((b) => holds(b, v)).length > 1);
        expect(faults.some((f) => f.kind === 'overlap')).toBe(both);
        const low = Math.min(...bands.map((b) => b.from));
        const high = Math.max(...bands.map((b) => b.to));
        const gap = halves.some((v) => v > low && v < high && !bands.some((b) => holds(b, v)));
        expect(faults.some((f) => f.kind === 'gap')).toBe(gap);
      }),
    );
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
    expect([...finish(bandCodes(Float64Array.of(7, 15, 25, 40, -1), bands))]).toEqual([
      0, 1, 3, 2, 3,
    ]);
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
          finish(bandCodes(values, bands)).forEach((code, i) => {
            const first = bands.findIndex((band) => holds(band, values[i]));
            expect(code).toBe(first < 0 ? bands.length : first);
          });
        },
      ),
    );
  });
});
