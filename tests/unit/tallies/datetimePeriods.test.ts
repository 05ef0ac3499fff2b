import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { scalarColumn } from '$lib/core/table/column';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { Tally } from '$lib/core/tally/spec/specs';

describe('dates with a time in periods', () => {
  it('belong to their day until its last moment', () => {
    const at = (text: string): number => Date.parse(`${text}Z`);
    const table = {
      length: 4,
      columns: [
        scalarColumn(
          'Left',
          'datetime',
          ['2025-01-31T00:00', '2025-01-31T23:59:59', '2025-02-01T00:00', '2024-12-31T13:00'].map(
            at,
          ),
          { id: 'left' },
        ),
        scalarColumn('Fares', 'number', [1, 10, 100, 1000], { id: 'fares' }),
      ],
    };
    const { tables } = finish(
      computeTally(
        wholeInput(table),
        Tally.parse({
          kind: 'periods',
          column: 'left',
          levels: ['month'],
          measures: [{ kind: 'sum', column: 'fares' }],
        }),
      ),
    );
    const rows = Array.from({ length: tables[0].length }, (_, n) => tables[0].row(n).cells);
    const sum = tables[0].columns.findIndex(({ measure }) => measure?.kind === 'sum');
    expect(rows.map((cells) => [cells[0], cells[sum]])).toEqual([
      ['All periods', 1111],
      ['Dec 2024', 1000],
      ['Jan 2025', 11],
      ['Feb 2025', 100],
    ]);
  });
});
