import type { Series } from '../../chart/figures';
import { drawnAt, groupsOf, labelOf, numberAt, type SourceTable } from '../source';

/** What a cross-tab's chart shows: a line or a set of bars for each row, a step for each group across. */
export interface CrossModel {
  readonly steps: readonly string[];
  readonly rows: readonly Series[];
  readonly unit: string;
  readonly share: boolean;
  /** What of the table is not drawn, in words; empty where nothing is left out. */
  readonly left: string;
}

const MOST_ROWS = 10;
const MOST_STEPS = 60;
/** Bars stand beside one another, each in a colour of its own. */
const MOST_BARS = 5;

/** Columns of the first measure under the finest groups across. */
export function crossModel(table: SourceTable, as: 'lines' | 'bars'): CrossModel {
  const { columns } = table.head;
  const parts = columns.flatMap((c, k) => (/^a\d+\.m1$/.test(c.key) ? [k] : []));
  const all = parts.filter((k) => !columns[k].whole);
  const finest = as === 'lines' ? all.slice(0, MOST_STEPS) : largest(table, all, MOST_BARS);
  const groups = groupsOf(table);
  const rows = groups.slice(0, MOST_ROWS);
  const first = columns[finest[0]];
  return {
    steps: finest.map((k) => columns[k].title.split(' › ').slice(0, -1).join(' ')),
    rows: rows.map((row) => ({
      name: labelOf(table, row),
      figures: finest.map((k) => drawnAt(table, row, k)),
    })),
    unit: first?.unit ?? '',
    share: first?.type === 'share',
    left: leftOut(table, {
      rows: rows.length < groups.length || table.rows.length < table.length ? rows.length : null,
      steps:
        finest.length < all.length || columns.length - table.head.labels < table.head.across.of
          ? as === 'bars' && finest.length < all.length
            ? `${finest.length} largest`
            : `first ${finest.length}`
          : null,
    }),
  };
}

/** The columns with the largest figures of the whole, in their own order. */
function largest(table: SourceTable, columns: readonly number[], most: number): readonly number[] {
  const { whole } = table;
  if (!whole || columns.length <= most) return columns.slice(0, most);
  const size = (column: number): number => Math.abs(numberAt(whole, column)) || 0;
  const chosen = new Set([...columns].sort((a, b) => size(b) - size(a)).slice(0, most));
  return columns.filter((column) => chosen.has(column));
}

/** `The first 10 rows and the 5 largest groups across are drawn.`; empty where all are. */
function leftOut(
  { head }: SourceTable,
  { rows, steps }: { rows: number | null; steps: string | null },
): string {
  const of = head.across.from > 0 ? ' in view' : '';
  const drawn = [
    rows === null ? '' : `the first ${rows} rows`,
    steps === null ? '' : `the ${steps} groups across${of}`,
  ].filter(Boolean);
  return drawn.length ? `T${drawn.join(' and ').slice(1)} are drawn.` : '';
}
