import { describe, expect, it } from 'vitest';
import { finish } from '../../task/task';
import { tableOf, type AnswerTable } from './answer';
import { compareTables } from './compareTables';
import type { Figure, FigureColumn } from './result';

/** One group with a sum, a mean, what follows from sums, a share and a count. */
const COLUMNS: readonly FigureColumn[] = [
  { key: 'g1', title: 'Route', unit: '', type: 'text' },
  {
    key: 'm1',
    title: 'sum',
    unit: '',
    type: 'number',
    measure: { kind: 'sum', column: 'fares' },
    adds: { bound: 2 },
  },
  {
    key: 'm2',
    title: 'mean',
    unit: '',
    type: 'number',
    measure: { kind: 'mean', column: 'fares' },
  },
  { key: 'd', title: 'difference', unit: '', type: 'number' },
  { key: 's', title: 'share', unit: '', type: 'share' },
  { key: 'n', title: 'records', unit: '', type: 'count', adds: { bound: 0 } },
];
const table = (...figures: Figure[]): AnswerTable =>
  tableOf({
    name: 'main',
    caption: '',
    labels: 1,
    columns: [...COLUMNS],
    rows: [{ kind: 'group', level: 1, cells: ['Holm', ...figures] }],
  });
function movedOf(then: AnswerTable, now: AnswerTable): string[] {
  const moved: string[] = [];
  finish(
    compareTables(then, now, ({ figures }) => {
      for (const f of figures) if (f.moved) moved.push(f.column.title);
    }),
  );
  return moved;
}

describe('whether a figure moved', () => {
  // A sum of 100 million, of numbers that another order may add to another last bit.
  const before = table(1e8, 25.1, 0, 0.25, 4);

  it('not by what adding in another order changes, of sums and of what follows from them', () => {
    const ulp = 2 ** -26;
    expect(
      movedOf(before, table(1e8 + ulp, 25.1 * (1 + 2 ** -45), ulp, 0.25 + 2 ** -50, 4)),
    ).toEqual([]);
    // Terms that cancel out leave less than their rounding.
    expect(movedOf(table(0, 0, 0, 0, 4), table(1e-9, 0, 0, 0, 4))).toEqual([]);
  });

  it('by a penny in a hundred million, and by one record', () => {
    expect(movedOf(before, table(1e8 + 0.01, 25.1 + 1e-8, 0.01, 0.25 + 1e-9, 5))).toEqual([
      'sum',
      'mean',
      'difference',
      'share',
      'records',
    ]);
  });

  it('a group that only one of them has is 0 there for sums and counts, and none else', () => {
    const empty = tableOf({
      name: 'main',
      caption: '',
      labels: 1,
      columns: [...COLUMNS],
      rows: [],
    });
    const seen: [string, Figure, Figure][] = [];
    finish(
      compareTables(empty, before, ({ figures }) => {
        for (const { column, before: was, after } of figures) seen.push([column.title, was, after]);
      }),
    );
    expect(seen).toEqual([
      ['sum', 0, 1e8],
      ['mean', null, 25.1],
      ['difference', null, 0],
      ['share', null, 0.25],
      ['records', 0, 4],
    ]);
  });
});
