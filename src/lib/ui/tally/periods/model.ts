import type { Row } from '../../../engine/protocol';
import type { Drawn, Series } from '../../chart/figures';
import { columnAt, drawnAt, type SourceTable } from '../source';

export interface PeriodsModel {
  readonly steps: readonly string[];
  readonly lines: readonly Series[];
  /** The newest year, drawn stronger, where years lie over one another. */
  readonly strong: number;
}

const NONE: Drawn = { value: NaN, words: '', place: null };
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** Periods of the finest level in the order of time. */
const finest = (table: SourceTable): readonly Row[] => {
  const rows = table.rows.filter((row) => row.kind === 'group');
  return [...rows].sort((a, b) => String(a.keys[0]).localeCompare(String(b.keys[0])));
};

/** The measures along time, with an empty step where a period lies between that has no row. */
export function alongTime(table: SourceTable, measures: number): PeriodsModel {
  const rows = finest(table);
  return {
    steps: rows.map((row) => row.cells[0]),
    lines: Array.from({ length: measures }, (_, k): Series => {
      const at = columnAt(table, `m${k + 1}`);
      return {
        name: measures > 1 ? (table.head.columns[at]?.title ?? '') : '',
        figures: at < 0 ? [] : rows.map((row) => drawnAt(table, row, at)),
      };
    }),
    strong: -1,
  };
}

/** One line a year of the first measure, over the periods of a year. */
export function yearsOverlaid(table: SourceTable, yearStartsIn: number): PeriodsModel {
  const at = columnAt(table, 'm1');
  const rows = finest(table);
  const years = new Map<string, Map<string, Drawn>>();
  const steps = new Map<string, string>();
  for (const row of rows) {
    const day = String(row.keys[0]);
    const month = Number(day.slice(5, 7));
    const shifted = (month - yearStartsIn + 12) % 12;
    const year = Number(day.slice(0, 4)) - (month < yearStartsIn ? 1 : 0);
    const step = `${String(shifted).padStart(2, '0')}-${day.slice(8, 10)}`;
    const name = yearStartsIn === 1 ? String(year) : `${year}/${(year + 1) % 100}`;
    const days = rows.length > 0 && row.cells[0].length > 9 && /^\w{3} \d/.test(row.cells[0]);
    steps.set(step, days ? `${Number(day.slice(8, 10))} ${MONTHS[month - 1]}` : MONTHS[month - 1]);
    const line = years.get(name) ?? new Map<string, Drawn>();
    line.set(step, drawnAt(table, row, at));
    years.set(name, line);
  }
  const ordered = [...steps].sort(([a], [b]) => a.localeCompare(b));
  const lines = [...years].map(([name, line]): Series => ({
    name,
    figures: ordered.map(([step]) => line.get(step) ?? NONE),
  }));
  return { steps: ordered.map(([, text]) => text), lines, strong: lines.length - 1 };
}
