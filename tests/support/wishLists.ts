import Sqlite from 'better-sqlite3';
import { isoDate } from '$lib/core/table/calendar';
import { isText, scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { day } from './smallList';

/** Lists of other trades than the demo, for wishes in words: the same records as a table and in SQLite. */

const COUNT = 96;
const every = <T>(of: readonly T[], step = 1): T[] =>
  Array.from({ length: COUNT }, (_, k) => of[(k * step + Math.floor(k / of.length)) % of.length]);
const numbered = (of: (k: number) => number | null): (number | null)[] =>
  Array.from({ length: COUNT }, (_, k) => of(k));

/** Repairs of a bicycle workshop: two dates, a number whose name is two words, a name for each record. */
export const repairs: Table = {
  length: COUNT,
  columns: [
    textColumn('Job', every(Array.from({ length: COUNT }, (_, k) => `J-${1000 + k}`))),
    textColumn('Workshop', every(['Northgate', 'Quay Street', 'Hill Road', null])),
    textColumn(
      'Technician',
      every(['Ada Moss', 'Ben Holt', 'Cleo Ray', 'Dov Lind', 'Eva Stone'], 2),
    ),
    textColumn('Fault', every(['brakes', 'gearbox', 'wheel', 'frame crack', 'not found'], 3)),
    scalarColumn('Under warranty', 'yesno', every([1, 0, 0])),
    scalarColumn(
      'Received',
      'date',
      numbered((k) => day('2024-01-05') + k * 9),
    ),
    scalarColumn(
      'Collected',
      'date',
      numbered((k) => (k % 7 === 0 ? null : day('2024-01-08') + k * 9)),
    ),
    scalarColumn(
      'Labour hours',
      'number',
      numbered((k) => (k % 11 === 0 ? null : 0.5 + ((k * 7) % 13) / 2)),
      { unit: 'h' },
    ),
    scalarColumn(
      'Parts cost',
      'number',
      numbered((k) => 5 + ((k * 37) % 191) * 1.25),
      { unit: '£' },
    ),
    scalarColumn(
      'Charge',
      'number',
      numbered((k) => 40 + ((k * 53) % 307)),
      { unit: '£' },
    ),
  ],
};

/** Orders of a bakery: values of several words, one with a comma; a word that stands in two columns. */
export const orders: Table = {
  length: COUNT,
  columns: [
    textColumn('Shop', every(['Mill Lane', 'Harbour', 'Old Town', 'Ferry Road'])),
    textColumn('Item', every(['Rye', 'Bun', 'Tart, plum', 'Oat cake', null], 2)),
    textColumn('Baker', every(['Ida', 'Bo', 'Harbour']), 'Baker'),
    scalarColumn(
      'Kilos',
      'number',
      numbered((k) => 1 + ((k * 17) % 40) / 4),
      { unit: 'kg' },
    ),
    scalarColumn(
      'Price',
      'number',
      numbered((k) => (k % 13 === 0 ? null : 2 + ((k * 29) % 97))),
      { unit: '£' },
    ),
    scalarColumn(
      'Day',
      'date',
      numbered((k) => day('2024-06-03') + k * 7),
    ),
  ],
};

/** A stock whose columns bear words of wishes. */
export const stock: Table = {
  length: COUNT,
  columns: [
    textColumn('Product', every(['Lamp', 'Chair', 'Desk'])),
    textColumn('Band', every(['low', 'mid', 'high'], 2)),
    textColumn('Month', every(['January', 'February', 'March', 'April'])),
    textColumn('Year', every(['2023', '2024', '2025'])),
    ...(['Share', 'Rank', 'Mean', 'Count', 'Value', 'Highest'] as const).map((name, n) =>
      scalarColumn(
        name,
        'number',
        numbered((k) => 1 + ((k * (5 + 2 * n)) % (29 + n))),
      ),
    ),
  ],
};

/** A list in SQLite: a table `t` whose columns are named in small letters with underscores, dates as ISO 8601. */
export function inSql({ columns, length }: Table): Sqlite.Database {
  const db = new Sqlite(':memory:');
  const name = (text: string): string => `"${text.toLowerCase().replaceAll(' ', '_')}"`;
  db.exec(`create table t (${columns.map((column) => name(column.name)).join(', ')})`);
  const insert = db.prepare(`insert into t values (${columns.map(() => '?').join(', ')})`);
  db.transaction(() => {
    for (let row = 0; row < length; row++)
      insert.run(
        ...columns.map((column) => {
          if (isText(column))
            return column.dictionary.at(column.codes[row]) && column.codes[row] >= 0
              ? column.dictionary[column.codes[row]]
              : null;
          const value = column.values[row];
          if (Number.isNaN(value)) return null;
          return column.type === 'date'
            ? isoDate(value)
            : column.type === 'yesno'
              ? value
                ? 'yes'
                : 'no'
              : value;
        }),
      );
  })();
  return db;
}
