import type { Series } from '../../chart/figures';
import { drawnAt, groupsOf, labelOf, type SourceTable } from '../source';

/** What a cross-tab's chart shows: a line or a set of bars for each row, a step for each group across. */
export interface CrossModel {
  readonly steps: readonly string[];
  readonly rows: readonly Series[];
  readonly unit: string;
  readonly share: boolean;
}

const MOST_ROWS = 10;
const MOST_STEPS = 60;

/** Columns of the first measure under the finest groups across. */
export function crossModel(table: SourceTable): CrossModel {
  const { columns } = table.head;
  const parts = columns.flatMap((c, k) => (/^a\d+\.m1$/.test(c.key) ? [k] : []));
  const wholes = new Set(parts.map((k) => columns[k].partOf));
  const finest = parts.filter((k) => !wholes.has(k)).slice(0, MOST_STEPS);
  const rows = groupsOf(table).slice(0, MOST_ROWS);
  const first = columns[finest[0]];
  return {
    steps: finest.map((k) => columns[k].title.split(' › ').slice(0, -1).join(' ')),
    rows: rows.map((row) => ({
      name: labelOf(table, row),
      figures: finest.map((k) => drawnAt(table, row, k)),
    })),
    unit: first?.unit ?? '',
    share: first?.type === 'share',
  };
}
