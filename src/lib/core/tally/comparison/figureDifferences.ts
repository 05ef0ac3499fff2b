import { inStretches, type Steps } from '../../steps/steps';
import { allRows, keysOfRow, type AnswerTable } from '../answer';
import type { Figure, FigureRow } from '../result';
import type { MovedRecords } from './trace';

/** A figure of two readings, and what its records meet. */
export interface FigureDifference extends MovedRecords {
  readonly where: string;
  readonly title: string;
  readonly difference: number | null;
}

/** Rows looked at between two pauses: each has a key made of its labels. */
const ROWS = 512;

/**
 * Adds the figures of two tables that are not the same, found by the labels of their rows and the
 * titles of their columns; rows and columns that only the older one has come last.
 * @param unmoved those that are the same too
 */
export function* addDifferences(
  to: FigureDifference[],
  now: AnswerTable,
  then: AnswerTable,
  unmoved: boolean,
): Steps<void> {
  const pastRows = yield* rowsByKey(then);
  const nowRows = yield* rowsByKey(now);
  const pastColumns = new Map(then.columns.map((c, k) => [c.title, k]));
  const nowColumns = new Map(now.columns.map((c, k) => [c.title, k]));
  const titles = [...new Set([...nowColumns.keys(), ...pastColumns.keys()])];
  const compare = (a: FigureRow | undefined, b: FigureRow | undefined): void => {
    for (const title of titles) {
      const [p, n] = [pastColumns.get(title), nowColumns.get(title)];
      if ((n ?? p ?? 0) < now.labels) continue;
      const before = a && p !== undefined ? a.cells[p] : null;
      const after = b && n !== undefined ? b.cells[n] : null;
      if (before === after && !unmoved) continue;
      const labels = (b ?? a)?.cells.slice(0, now.labels).filter((v) => v !== null) ?? [];
      const column = n !== undefined ? now.columns[n] : then.columns[p ?? 0];
      to.push({
        where: labels.join(' › ') || 'All',
        title,
        before,
        after,
        difference:
          typeof before === 'number' || typeof after === 'number'
            ? difference(before, after)
            : null,
        rowWhere: (b ?? a)?.where,
        columnWhere: column.where,
        measure: column.measure,
      });
    }
  };
  yield* eachRow(nowRows, (key, row) => compare(pastRows.get(key), row));
  yield* eachRow(pastRows, (key, row) => {
    if (!nowRows.has(key)) compare(row, undefined);
  });
}

function* rowsByKey(table: AnswerTable): Steps<Map<string, FigureRow>> {
  const rows = yield* allRows(table);
  const byKey = new Map<string, FigureRow>();
  yield* inStretches(
    rows.length,
    (from, to) => {
      for (const row of rows.slice(from, to))
        byKey.set(JSON.stringify([row.kind, keysOfRow(row, table.labels)]), row);
    },
    ROWS,
  );
  return byKey;
}

/** Goes through rows in their order, with pauses. */
function* eachRow(
  rows: ReadonlyMap<string, FigureRow>,
  look: (key: string, row: FigureRow) => void,
): Steps<void> {
  const turns = rows.entries();
  yield* inStretches(
    rows.size,
    (from, to) => {
      for (let n = from; n < to; n++) {
        const { value } = turns.next();
        if (value) look(...value);
      }
    },
    ROWS,
  );
}

const difference = (before: Figure, after: Figure): number | null =>
  typeof before === 'string' || typeof after === 'string' || before === null || after === null
    ? null
    : after - before;
