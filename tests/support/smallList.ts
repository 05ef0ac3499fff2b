import { dayNumber } from '$lib/core/table/calendar';
import type { Recipe } from '$lib/core/read/recipe';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';

/** The day of an ISO date. */
export const day = (text: string): number => {
  const [y, m, d] = text.split('-').map(Number);
  return dayNumber(y, m, d);
};

/** Six records with a blank key, for figures that can be worked out by hand. */
export const small: Table = {
  length: 6,
  columns: [
    textColumn('Region', ['North', 'North', 'North', 'South', 'South', null]),
    textColumn('Depot', ['A', 'A', 'B', 'C', 'D', 'D']),
    scalarColumn('Sum', 'number', [10, 5, 12, 7, 9, 1], { unit: '£' }),
    scalarColumn(
      'Day',
      'date',
      ['2025-01-31', '2025-02-01', '2025-04-30', '2024-12-31', '2025-05-01', '2025-05-02'].map(day),
    ),
  ],
};
/** A ledger of it. */
export const ledger = (more: object = {}) => ({
  kind: 'ledger',
  groups: [{ column: 'Region' }],
  measures: [{ kind: 'sum', column: 'Sum' }],
  ...more,
});

/** The recipe of lists that are made, not read. */
export const noRecipe: Recipe = {
  format: 'delimited',
  delimiter: ',',
  quote: '"',
  encoding: 'utf-8',
  header: true,
  skipLines: 0,
  width: 1,
  columns: [],
};
