import { describe, expect, it } from 'vitest';
import { recipeOfMade } from '$lib/core/bench/madeList';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import type { Shape } from '$lib/engine/replies/shape';
import { seriesLines } from '$lib/ui/tally/seriesLines';
import { OpenBench } from '../support/bench';
import { day, small } from '../support/smallList';

type Of<K extends Shape['kind']> = Extract<Shape, { kind: K }>;

/** What a tally's chart is drawn from, of the kind that is expected. */
function drawn<K extends Shape['kind']>(table: Table, spec: unknown, kind: K): Of<K> {
  const tally = Tally.parse(spec);
  const doc = addTally(newBench(table, 1), tally);
  const bench = new OpenBench(table, recipeOfMade(table), 'Sailings');
  bench.show(doc);
  const shape = bench.ask('shape', { tally: doc.open, from: 0 });
  const isIt = (s: Shape): s is Of<K> => s.kind === kind;
  if (!isIt(shape)) throw new Error(`drawn as ${shape.kind}`);
  return shape;
}

const numbers = (name: string, values: readonly (number | null)[], unit = '') =>
  scalarColumn(name, 'number', values, { unit });

describe('points of two columns', () => {
  const sailings: Table = {
    length: 7,
    columns: [
      textColumn('Route', ['Holm', 'Holm', 'Holm', 'Ness', 'Ness', 'Ness', null]),
      numbers('Boarded', [1, 2, 3, 1, 2, null, 5], 'people'),
      numbers('Fares', [10, 20, 30, 7, 7, 7, null], '£'),
    ],
  };
  const line = (more: object = {}) => ({ kind: 'line', x: 'Boarded', y: 'Fares', ...more });

  it('are each its own, with its record; what lacks a value is none', () => {
    const shape = drawn(sailings, line(), 'points');
    expect(shape.points).toEqual([
      [1, 10, 0, -1],
      [2, 20, 1, -1],
      [3, 30, 2, -1],
      [1, 7, 3, -1],
      [2, 7, 4, -1],
    ]);
    expect([shape.count, shape.cells, shape.groups, shape.others]).toEqual([5, [], [], 0]);
    expect([shape.x, shape.y]).toEqual([
      { name: 'Boarded', unit: 'people' },
      { name: 'Fares', unit: '£' },
    ]);
  });

  it('have a line from the first to the last of them, and the bounds around it', () => {
    const shape = drawn(sailings, line({ percent: 95 }), 'points');
    const [{ label, from, to }] = shape.lines;
    // By hand: x̄ = 1.8, ȳ = 14.8, Σxy = 27.8, Σ(x − x̄)² = 2.8: the line goes through the means.
    const slope = 27.8 / 2.8;
    expect(label).toBe('');
    expect(from[0]).toBe(1);
    expect(from[1]).toBeCloseTo(14.8 - 0.8 * slope, 10);
    expect(to[0]).toBe(3);
    expect(to[1]).toBeCloseTo(14.8 + 1.2 * slope, 10);
    const [first, last] = [shape.band[0], shape.band[shape.band.length - 1]];
    for (const [at, low, high] of [first, last]) {
      const on = 14.8 + (at - 1.8) * slope;
      expect((low + high) / 2).toBeCloseTo(on, 9);
      // Residuals: SSE = Syy − slope · Sxy, Syy = 402.8, t(0.975, 3) = 3.18245.
      const sse = 402.8 - slope * 27.8;
      const sd = Math.sqrt(sse / 3) * Math.sqrt(1 + 1 / 5 + (at - 1.8) ** 2 / 2.8);
      expect((high - low) / 2).toBeCloseTo(3.182446 * sd, 4);
    }
  });

  it('by groups have a line for each that has two points, the whole first', () => {
    const shape = drawn(sailings, line({ by: [{ column: 'Route' }] }), 'points');
    expect(shape.lines.map((l) => [l.label, l.from, l.to])).toEqual([
      ['All', expect.anything(), expect.anything()],
      ['Holm', [1, 10], [3, 30]],
      ['Ness', [1, 7], [2, 7]],
    ]);
    expect(shape.groups).toEqual(['Holm', 'Ness']);
    expect(shape.points.map(([, , , group]) => group)).toEqual([0, 0, 0, 1, 1]);
  });

  it('of very many groups have the lines of those with the most points', () => {
    const groups = 40;
    // Group k has 2 + k points, on a line of slope k.
    const rows = Array.from({ length: groups }, (_, k) =>
      Array.from(
        { length: 2 + k },
        (_, n) => [`Quay ${String(k).padStart(2, '0')}`, n, n * k] as const,
      ),
    ).flat();
    const table: Table = {
      length: rows.length,
      columns: [
        textColumn(
          'Quay',
          rows.map(([quay]) => quay),
        ),
        numbers(
          'x',
          rows.map(([, x]) => x),
        ),
        numbers(
          'y',
          rows.map(([, , y]) => y),
        ),
      ],
    };
    const shape = drawn(
      table,
      { kind: 'line', x: 'x', y: 'y', by: [{ column: 'Quay' }] },
      'points',
    );
    const [, ...ofGroups] = shape.lines;
    expect(ofGroups.map(({ label }) => label)).toEqual(
      Array.from({ length: 12 }, (_, k) => `Quay ${28 + k}`),
    );
    expect(shape.others).toBe(groups - 12);
    expect(ofGroups[0].to).toEqual([29, 29 * 28]);
  });

  it('of very many records are counted in cells, all of them', () => {
    const n = 5000;
    const table: Table = {
      length: n,
      columns: [
        numbers(
          'x',
          Array.from({ length: n }, (_, k) => k % 72),
        ),
        numbers(
          'y',
          Array.from({ length: n }, (_, k) => (k % 10 === 9 ? null : k % 5)),
        ),
      ],
    };
    const shape = drawn(table, { kind: 'line', x: 'x', y: 'y' }, 'points');
    expect(shape.points).toEqual([]);
    expect(shape.count).toBe(4500);
    expect(shape.cells.reduce((sum, [, , count]) => sum + count, 0)).toBe(4500);
    expect(shape.cell).toEqual([71 / 72, 4 / 44]);
    // By the plain rule; the highest values lie in the last cells, not beyond them.
    const [x, y] = table.columns;
    if (x.type === 'text' || y.type === 'text') throw new Error('text');
    const expected = new Map<string, number>();
    for (let i = 0; i < n; i++) {
      if (Number.isNaN(y.values[i])) continue;
      const along = Math.min(71, Math.floor((x.values[i] * 72) / 71));
      const up = Math.min(43, Math.floor((y.values[i] * 44) / 4));
      const cell = `${along} ${up}`;
      expected.set(cell, (expected.get(cell) ?? 0) + 1);
    }
    const found = shape.cells.map(([left, low, count]): [string, number] => [
      `${Math.round(left / shape.cell[0])} ${Math.round(low / shape.cell[1])}`,
      count,
    ]);
    expect(new Map(found)).toEqual(expected);
  });

  it('are none where one of the columns has no value', () => {
    const table: Table = { length: 2, columns: [numbers('x', [1, 2]), numbers('y', [null, null])] };
    const shape = drawn(table, { kind: 'line', x: 'x', y: 'y' }, 'points');
    expect([shape.count, shape.points, shape.lines, shape.band]).toEqual([0, [], [], []]);
  });
});

describe('series of groups', () => {
  const periods = (more: object = {}) => ({
    kind: 'periods',
    column: 'Day',
    levels: ['year'],
    measures: [{ kind: 'sum', column: 'Sum' }],
    by: [{ column: 'Region' }],
    ...more,
  });

  it('are a line each over the same steps, with 0 where a group has no record', () => {
    const shape = drawn(small, periods(), 'series');
    expect(shape.steps).toEqual(['2024', '2025']);
    // North has 10, 5 and 12 in 2025; South 7 in 2024 and 9 in 2025; one without a region 1 in 2025.
    expect(shape.lines.map(({ name, values }) => [name, values])).toEqual([
      ['North', [0, 27]],
      ['South', [7, 9]],
      ['blank', [0, 1]],
    ]);
    expect([shape.share, shape.unit, shape.others]).toEqual([false, '£', 0]);
  });

  it.each(['groups', 'periods'])('open the rows of their figures, nested by %s', (nest) => {
    const shape = drawn(small, periods({ nest }), 'series');
    const bench = new OpenBench(small, recipeOfMade(small), 'Sums');
    const doc = addTally(newBench(small, 1), Tally.parse(periods({ nest })));
    bench.show(doc);
    for (const line of seriesLines(shape, 'm1'))
      for (const { value, place, words } of line.figures) {
        if (Number.isNaN(value)) {
          expect(words).toContain('none');
          continue;
        }
        const behind = bench.ask('behind', { place: { tally: doc.open, ...place } });
        expect(Number(behind.figure.replace(/[^\d.-]/g, ''))).toBe(value);
      }
  });

  it('of many groups are those of the largest figures, the fewer the more steps there are', () => {
    const many = (groups: number, days: number): Table => {
      const rows = Array.from({ length: groups * days }, (_, i) => [
        i % groups,
        Math.floor(i / groups),
      ]);
      return {
        length: rows.length,
        columns: [
          textColumn(
            'Quay',
            rows.map(([quay]) => `Quay ${quay}`),
          ),
          scalarColumn(
            'Day',
            'date',
            rows.map(([, n]) => day('2024-01-01') + n),
          ),
          numbers(
            'Fares',
            rows.map(([quay]) => quay + 1),
          ),
        ],
      };
    };
    const spec = {
      kind: 'periods',
      column: 'Day',
      levels: ['day'],
      measures: [{ kind: 'sum', column: 'Fares' }],
      by: [{ column: 'Quay' }],
    };
    const few = drawn(many(14, 30), spec, 'series');
    expect(few.lines.map(({ name }) => name).sort()).toEqual(
      Array.from({ length: 10 }, (_, k) => `Quay ${k + 4}`).sort(),
    );
    expect([few.steps.length, few.others]).toEqual([30, 4]);
    const long = drawn(many(6, 3000), spec, 'series');
    expect([long.length, long.lines.length, long.others]).toEqual([3000, 4, 2]);
  });
});

describe('values in order', () => {
  it('by groups are a curve each, in the order of their labels', () => {
    const shape = drawn(
      small,
      { kind: 'percentile', column: 'Sum', percentiles: [50], key: { column: 'Region' } },
      'curves',
    );
    expect(shape.curves).toEqual([
      { label: 'North', count: 3, values: [5, 10, 12], shares: [1 / 3, 2 / 3, 1] },
      { label: 'South', count: 2, values: [7, 9], shares: [0.5, 1] },
      { label: 'blank', count: 1, values: [1], shares: [1] },
    ]);
    expect(shape.others).toBe(0);
  });

  it('equal ones are one step', () => {
    const table: Table = { length: 4, columns: [numbers('x', [2, 1, 2, null])] };
    const shape = drawn(table, { kind: 'percentile', column: 'x', percentiles: [50] }, 'curves');
    expect(shape.curves).toEqual([{ label: '', count: 3, values: [1, 2], shares: [1 / 3, 1] }]);
  });

  it('of very many an even choice is drawn, from the lowest to the very highest', () => {
    const values = Array.from({ length: 10_007 }, (_, k) => (k * 7919) % 10_007);
    const table: Table = { length: values.length, columns: [numbers('x', values)] };
    const shape = drawn(table, { kind: 'percentile', column: 'x', percentiles: [50] }, 'curves');
    const [{ values: at, shares }] = shape.curves;
    expect(at.length).toBeLessThanOrEqual(301);
    expect([at[0], at.at(-1), shares.at(-1)]).toEqual([0, 10_006, 1]);
    at.forEach((value, k) => expect(shares[k]).toBeCloseTo((value + 1) / 10_007, 12));
    const gaps = at.slice(1, -1).map((value, k) => value - at[k]);
    expect(new Set(gaps).size).toBe(1);
  });
});
