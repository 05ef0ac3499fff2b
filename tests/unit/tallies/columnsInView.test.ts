import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keysOfRow, tableOf } from '$lib/core/tally/answer/answer';
import { acrossOf, columnsInView, MOST_COLUMNS } from '$lib/core/tally/answer/columnsInView';
import type { FigureColumn, FigureRow } from '$lib/core/tally/answer/result';

/** A table of so many columns of figures, each cell saying where it stands; every tenth is marked. */
function wide(labels: number, figures: number, rows: number) {
  const columns = Array.from({ length: labels + figures }, (_, c): FigureColumn => ({
    key: `c${c}`,
    title: `Column ${c}`,
    unit: '',
    type: c < labels ? 'text' : 'number',
    ...(c > labels && { partOf: labels }),
  }));
  const row = (n: number): FigureRow => ({
    kind: 'group',
    level: 1,
    cells: columns.map((_, c) => (c < labels ? `label ${n}.${c}` : 10_000 * n + c)),
    marks: [
      { kind: 'partial', words: 'the row' },
      ...columns.flatMap((_, column) =>
        column % 10 === 0 ? [{ column, kind: 'few' as const, words: `at ${column}` }] : [],
      ),
    ],
  });
  return tableOf({
    name: 'main',
    caption: 'Wide',
    labels,
    columns,
    rows: Array.from({ length: rows }, (_, n) => row(n)),
  });
}

describe('columns in view', () => {
  it('a table that is narrow enough is itself', () => {
    const table = wide(2, MOST_COLUMNS, 1);
    expect(columnsInView(table, 50)).toBe(table);
    expect(acrossOf(table, 50)).toEqual({ from: 0, of: MOST_COLUMNS });
  });

  it('every cell, key, number and mark stands where it stood, and all columns come in turn', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: MOST_COLUMNS + 1, max: 5 * MOST_COLUMNS }),
        (labels, figures) => {
          const table = wide(labels, figures, 2);
          const seen: string[] = [];
          for (let from = 0; from < figures; from += MOST_COLUMNS) {
            const view = columnsInView(table, from);
            const keys = view.columns.map(({ key }) => key);
            expect(keys.slice(0, labels)).toEqual(
              table.columns.slice(0, labels).map(({ key }) => key),
            );
            expect(keys.length - labels).toBeLessThanOrEqual(MOST_COLUMNS);
            seen.push(...keys.slice(labels));
            const whole = table.row(1);
            const row = view.row(1);
            expect(row.keys).toEqual(keysOfRow(whole, labels));
            keys.forEach((key, c) => {
              const own = Number(key.slice(1));
              expect(row.cells[c]).toBe(whole.cells[own]);
              expect(view.number(1, c)).toBe(table.number(1, own));
              expect(row.marks?.filter(({ column }) => column === c)).toEqual(
                own % 10 === 0 ? [{ column: c, kind: 'few', words: `at ${own}` }] : [],
              );
            });
            // What is marked outside is not marked here.
            expect(row.marks?.every(({ column = 0 }) => column >= 0 && column < keys.length)).toBe(
              true,
            );
            expect(row.marks?.filter(({ column }) => column === undefined)).toEqual([
              { kind: 'partial', words: 'the row' },
            ]);
            expect(view.columns.every(({ partOf }) => partOf === undefined)).toBe(true);
          }
          expect(seen).toEqual(table.columns.slice(labels).map(({ key }) => key));
        },
      ),
      { numRuns: 30 },
    );
  });

  it('from a column that is not there: the last', () => {
    const table = wide(1, 200, 1);
    expect(acrossOf(table, 9999)).toEqual({ from: 199, of: 200 });
    expect(columnsInView(table, 9999).columns.map(({ key }) => key)).toEqual(['c0', 'c200']);
  });
});
