import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { members } from '$lib/core/table/bitset';
import { isText } from '$lib/core/table/column';
import { keysOfRow, type AnswerTable } from '$lib/core/tally/answer/answer';
import { selectionOf } from '$lib/core/tally/input/input';
import { behind, type FigureBehind } from '$lib/core/tally/behind/behind';
import { recordsWithin } from '$lib/core/tally/input/recordsWithin';
import type { FigureColumn } from '$lib/core/tally/answer/result';
import { OpenBench } from '../../support/bench';
import { before, benchWith, ladder, SPECS, table } from '../../support/generated';
import { noRecipe } from '../../support/smallList';

/** A figure, and what stands behind it. */
interface Opened {
  readonly key: string;
  readonly figure: number;
  readonly found: FigureBehind;
  /** A number of the same row, by the key of its column. */
  at(key: string): number;
}

const bench = new OpenBench(table, noRecipe, 'Sailings', new Map([['before', before]]));

/** All such figures of a tally. */
const reaching = (tally: unknown, ...ladder: Ladder): Opened[] =>
  opened(tally, ({ reach }) => typeof reach === 'string', ...ladder);

type Ladder = [object[], number[]] | [];

/** The figures of some columns. What their records meet must find the same records again. */
function opened(
  tally: unknown,
  isAsked: (column: FigureColumn) => boolean,
  ...[rungs, aside]: Ladder
): Opened[] {
  const steps = (rungs ?? []).map((condition, k) => ({ id: `r${k}`, on: true, condition }));
  const doc = benchWith(tally, JSON.parse(JSON.stringify(steps)), aside ?? []);
  const session = bench.engine.session(bench.show(doc).token);
  const { answer } = finish(session.answer('other'));
  if (!answer) return [];
  const { input } = session.resolved;
  const selection = selectionOf(input, answer.scope);
  return answer.tables.flatMap((t) =>
    figuresOf(t, isAsked).map(({ n, c }): Opened => {
      const row = t.row(n);
      const place = { table: t.name, row: [...keysOfRow(row, t.labels)], column: c };
      const found = finish(behind(input, answer, place));
      const again = members(finish(recordsWithin(input, selection, found.wheres)));
      expect([place, ...again]).toEqual([place, ...found.records]);
      const at = (key: string): number =>
        Number(row.cells[t.columns.findIndex((x) => x.key === key)]);
      return { key: t.columns[c].key, figure: Number(row.cells[c]), found, at };
    }),
  );
}

const figuresOf = (
  t: AnswerTable,
  isAsked: (column: FigureColumn) => boolean,
): { n: number; c: number }[] =>
  Array.from({ length: t.length }, (_, n) => n).flatMap((n) =>
    t.columns.flatMap((column, c) =>
      isAsked(column) && typeof t.row(n).cells[c] === 'number' ? [{ n, c }] : [],
    ),
  );

function sumOf(name: string, records: Iterable<number>): number {
  const column = table.columns.find((c) => c.id === name);
  if (!column || isText(column)) throw new RangeError(name);
  let sum = 0;
  for (const i of records) if (!Number.isNaN(column.values[i])) sum += column.values[i];
  return sum;
}

const ends = fc.oneof(
  fc.record({ top: fc.integer({ min: 1, max: 12 }) }),
  fc.record({ bottom: fc.integer({ min: 1, max: 12 }) }),
  fc.constant({}),
);

describe('a figure that reaches the rows before its own stands on their records', () => {
  it('shares down to a place, whole rankings or their ends, of groups and of records', () => {
    let asked = 0;
    const ranking = fc
      .tuple(SPECS.ranking, ends)
      .map(([spec, end]) => ({ ...(spec as { by: { column: string } }), top: undefined, ...end }));
    fc.assert(
      fc.property(ranking, ladder, (spec, { rungs, aside }) => {
        const tally = JSON.parse(JSON.stringify(spec));
        for (const { figure, found, at } of reaching(tally, rungs, aside)) {
          const value = at('m1') || at('value');
          if (!value || !at('share')) continue;
          // A share tells the whole it is of, which the figure before it has nothing to do with.
          const whole = value / at('share');
          expect(sumOf(spec.by.column, found.records) / whole).toBeCloseTo(figure, 9);
          asked++;
        }
      }),
      { numRuns: 60, seed: 8 },
    );
    expect(asked).toBeGreaterThan(500);
  });

  it('cumulative counts of a frequency', () => {
    let asked = 0;
    fc.assert(
      fc.property(SPECS.frequency, ladder, (tally, { rungs, aside }) => {
        for (const { key, figure, found } of reaching(tally, rungs, aside)) {
          if (key !== 'cumulative') continue;
          expect(found.records).toHaveLength(figure);
          asked++;
        }
      }),
      { numRuns: 40, seed: 8 },
    );
    expect(asked).toBeGreaterThan(100);
  });

  it('running totals under groups, whatever their level', () => {
    const key = fc.constantFrom({ column: 'Route' }, { column: 'Vessel' });
    let asked = 0;
    fc.assert(
      fc.property(fc.uniqueArray(key, { minLength: 1, maxLength: 2 }), ladder, (groups, steps) => {
        const tally = {
          kind: 'ledger',
          groups: groups.map((g) => ({ ...g, order: { by: 'count', descending: true } })),
          measures: [{ kind: 'running', column: 'Fares' }],
        };
        for (const { figure, found } of reaching(tally, steps.rungs, steps.aside)) {
          expect(sumOf('Fares', found.records)).toBeCloseTo(figure, 6);
          asked++;
        }
      }),
      { numRuns: 40, seed: 8 },
    );
    expect(asked).toBeGreaterThan(200);
  });

  it('running totals over periods, and those of the year so far', () => {
    const tally = {
      kind: 'periods',
      column: 'Day',
      levels: ['month'],
      measures: [{ kind: 'sum', column: 'Fares' }],
      running: true,
      toDate: true,
    };
    const found = reaching(tally);
    expect(found.length).toBeGreaterThan(40);
    for (const { figure, found: of } of found)
      expect(sumOf('Fares', of.records)).toBeCloseTo(figure, 6);
    // What runs over months that follow one another meets one stretch of days.
    const last = found.at(-1)?.found.wheres ?? [];
    expect(last).toMatchObject([{ kind: 'leaf', test: { test: 'between' } }]);
  });

  it('figures of results stand on the records behind those results', () => {
    const inner = {
      kind: 'ledger',
      groups: [{ column: 'Vessel' }, { column: 'Delay' }],
      measures: [{ kind: 'sum', column: 'Fares' }],
    };
    const outer = fc.constantFrom(
      { kind: 'frequency', key: { column: 'm1', bands: { by: 'edges', edges: [0, 20, 40, 1e7] } } },
      { kind: 'frequency', key: { column: 'Vessel' } },
      {
        kind: 'crosstab',
        down: [{ column: 'Vessel' }],
        across: [{ column: 'm1', bands: { by: 'edges', edges: [0, 20, 1e7] } }],
        measures: [{ kind: 'max', column: 'm1' }],
        count: true,
      },
      { kind: 'ledger', groups: [{ column: 'Vessel' }], measures: [{ kind: 'max', column: 'm1' }] },
    );
    let asked = 0;
    fc.assert(
      fc.property(outer, ladder, (of, { rungs, aside }) => {
        const tally = { kind: 'nested', inner, outer: of };
        for (const { key, figure, found } of opened(tally, isCount, rungs, aside)) {
          const groups = new Set(
            Array.from(found.records, (i) => cell('Vessel', i) + cell('Delay', i)),
          );
          expect([key, groups.size]).toEqual([key, figure]);
          asked++;
        }
      }),
      { numRuns: 30, seed: 8 },
    );
    expect(asked).toBeGreaterThan(100);
  });

  it('figures of results of results stand on the records at the bottom', () => {
    const vessels = { kind: 'ledger', groups: [{ column: 'Vessel' }] };
    const measures = [{ kind: 'sum', column: 'm1' }];
    const inner = {
      kind: 'ledger',
      groups: [{ column: 'Vessel' }, { column: 'Delay' }],
      measures: [{ kind: 'sum', column: 'Fares' }],
    };
    const once = { kind: 'nested', inner, outer: { ...vessels, measures } };
    const twice = { kind: 'nested', inner: once, outer: { ...vessels, measures } };
    const sums = opened(twice, ({ key }) => key === 'm1');
    expect(sums).toHaveLength(4);
    for (const { figure, found } of sums) {
      expect(found.records.length).toBeGreaterThan(70);
      expect(sumOf('Fares', found.records)).toBeCloseTo(figure, 6);
    }
  });
});

const isCount = ({ key }: FigureColumn): boolean =>
  ['count', 'cumulative', 'records'].includes(key.split('.').at(-1) ?? '');

function cell(name: string, i: number): string {
  const column = table.columns.find((c) => c.id === name);
  return column ? `${isText(column) ? column.codes[i] : column.values[i]};` : '';
}
