import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../../task/task';
import { dayNumber } from '../../table/calendar';
import { isText, scalarColumn, textColumn, type Column } from '../../table/column';
import type { Table } from '../../table/table';
import { tableOf } from './answer';
import { wholeInput } from '../input/input';
import { computeTally } from '../kind/kinds';
import { resultTable } from './resultTable';
import { Tally } from '../spec/specs';

const sailings: Table = {
  length: 6,
  columns: [
    textColumn('Route', ['Holm', 'Holm', 'Skerry', null, 'Skerry', 'Holm']),
    scalarColumn(
      'Day',
      'date',
      [
        [2025, 1, 31],
        [2025, 2, 1],
        [2025, 2, 2],
        [2025, 4, 1],
        [2025, 4, 2],
        [2025, 4, 3],
      ].map(([y, m, d]) => dayNumber(y, m, d)),
    ),
    scalarColumn('Fares', 'number', [10.5, 20, 30.25, null, 50, 60], { unit: '£', decimals: 2 }),
    scalarColumn('Full', 'yesno', [1, 0, 1, 1, null, 0]),
  ],
};

const listOf = (spec: object): { list: Table; rows: number[] } => {
  const { tables } = finish(computeTally(wholeInput(sailings), Tally.parse(spec)));
  return finish(resultTable(tables[0]));
};
/** Values as they are held: texts, numbers, null for what is missing. */
const held = (column: Column): (string | number | null)[] =>
  isText(column)
    ? Array.from(column.codes, (code) => (code < 0 ? null : column.dictionary[code]))
    : Array.from(column.values, (v) => (v === v ? v : null));
const named = (list: Table, title: string): Column => {
  const column = list.columns.find((c) => c.name === title);
  if (!column) throw new Error(`no ${title} among ${list.columns.map((c) => c.name).join(', ')}`);
  return column;
};
const SUM = { kind: 'sum', column: 'Fares' };

describe('the rows of a result as a list', () => {
  it('a record for each group, a blank one stays blank, and the whole is left out', () => {
    const { list, rows } = listOf({
      kind: 'ledger',
      groups: [{ column: 'Route' }],
      measures: [SUM],
    });
    expect([list.length, rows.length]).toEqual([3, 3]);
    expect(held(named(list, 'Route'))).toEqual(['Holm', 'Skerry', null]);
    const sums = named(list, 'sum of Fares');
    expect(held(sums)).toEqual([90.5, 80.25, null]);
    expect(sums).toMatchObject({ type: 'number', unit: '£', decimals: 2 });
  });

  it('a month stays a month, by the day it begins on', () => {
    const { list } = listOf({
      kind: 'frequency',
      key: { column: 'Day', period: 'month' },
      measures: [],
    });
    const months = named(list, 'Day by month');
    expect(months).toMatchObject({ type: 'date', grain: 'month' });
    expect(held(months)).toEqual([1, 2, 4].map((m) => dayNumber(2025, m, 1)));
    expect(held(named(list, 'Count'))).toEqual([1, 2, 3]);
    expect(named(list, 'Share')).toMatchObject({ type: 'number', percent: true });
  });

  it('yes and no stay what they are', () => {
    const { list } = listOf({ kind: 'ledger', groups: [{ column: 'Full' }], measures: [SUM] });
    const full = named(list, 'Full');
    expect(full.type).toBe('yesno');
    expect(held(full).toSorted()).toEqual([0, 1, null]);
  });

  it('texts have one code each, whatever their number, and others come as they are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.option(fc.string({ maxLength: 3 })), fc.option(fc.integer())), {
          maxLength: 300,
        }),
        (cells) => {
          const answer = tableOf({
            name: 'main',
            caption: '',
            labels: 1,
            columns: [
              { key: 'g', title: 'Group', unit: '', type: 'text' },
              { key: 'n', title: 'Number', unit: '', type: 'number' },
            ],
            rows: cells.flatMap((pair) => [
              { kind: 'group' as const, level: 1, cells: [...pair] },
              { kind: 'others' as const, level: 1, cells: ['others', 1] },
            ]),
          });
          const { list, rows } = finish(resultTable(answer));
          const [group, number] = list.columns;
          expect(held(group)).toEqual(cells.map(([text]) => text));
          expect(held(number)).toEqual(cells.map(([, n]) => n));
          expect(rows).toEqual(cells.map((_, k) => 2 * k));
          if (!isText(group)) throw new Error('the labels are no text');
          expect(new Set(group.dictionary).size).toBe(group.dictionary.length);
        },
      ),
    );
  });

  it('pauses, however many groups there are', () => {
    const answer = tableOf({
      name: 'main',
      caption: '',
      labels: 1,
      columns: [
        { key: 'g', title: 'Group', unit: '', type: 'text' },
        { key: 'd', title: 'Day', unit: '', type: 'date' },
      ],
      rows: Array.from({ length: 60_000 }, (_, k) => ({
        kind: 'group' as const,
        level: 1,
        cells: [`G${k}`, '2025-01-31'],
      })),
    });
    const steps = resultTable(answer);
    let pauses = 0;
    let step = steps.next();
    for (; !step.done; step = steps.next()) pauses++;
    expect(pauses).toBeGreaterThan(60);
    expect(held(step.value.list.columns[1])[59_999]).toBe(dayNumber(2025, 1, 31));
  });
});
