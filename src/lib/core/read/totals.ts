import { inStretches, STRIDE, type Task } from '../task/task';
import { isText, type Column, type ScalarColumn } from '../table/column';
import type { Table } from '../table/table';

/** A record inside the list that looks like a total of others. */
export interface TotalLike {
  readonly record: number;
  /** The word that gives it away, or the run of records whose sum it is. */
  readonly why:
    { kind: 'label'; column: string; text: string } | { kind: 'sum'; from: number; to: number };
}

const LABEL = /\b(sub-?total|grand total|total|totals|sum)\b/i;
const MOST = 5000;

/**
 * Records that look like totals inside the list (calculations, section 2): a text cell says
 * "total", or every number of the record is the sum of the run above it. One pass; the run starts
 * anew after each total found, and a second run over whole blocks finds the total of the totals.
 */
export function* findTotals(table: Table): Task<TotalLike[]> {
  const found = yield* labelled(table);
  const known = new Set(found.map((t) => t.record));
  found.push(...(yield* summed(table, known, Math.max(1, MOST - found.length))));
  return found.sort((a, b) => a.record - b.record);
}

function* labelled(table: Table): Task<TotalLike[]> {
  const found = new Map<number, TotalLike>();
  for (const column of table.columns) {
    if (!isText(column)) continue;
    const { codes, dictionary } = column;
    const hits = new Set<number>();
    yield* inStretches(
      dictionary.length,
      (from, to) => {
        for (let code = from; code < to; code++)
          if (dictionary[code].length < 80 && LABEL.test(dictionary[code])) hits.add(code);
      },
      STRIDE >> 4,
    );
    // A word that stands in most records names the column's subject, not a total.
    if (hits.size === 0) continue;
    const records: number[] = [];
    yield* inStretches(table.length, (from, to) => {
      for (let i = from; i < to; i++) if (hits.has(codes[i])) records.push(i);
    });
    if (records.length > table.length / 2) continue;
    for (const record of records)
      if (!found.has(record)) {
        const text = dictionary[codes[record]];
        found.set(record, { record, why: { kind: 'label', column: column.name, text } });
      }
  }
  return [...found.values()];
}

/** Columns whose values could be added up: numbers that are not all the same. */
const addable = (columns: readonly Column[]): ScalarColumn[] =>
  columns.filter((c): c is ScalarColumn => c.type === 'number');

/** Records that are the sum of the run above them. @param most how many are looked for */
function* summed(table: Table, known: ReadonlySet<number>, most: number): Task<TotalLike[]> {
  const found: TotalLike[] = [];
  const columns = addable(table.columns);
  // One column alone agrees with a run by chance too often.
  if (columns.length < 2) return found;
  const run = new Float64Array(columns.length);
  const all = new Float64Array(columns.length);
  let runStart = 0;
  let allStart = 0;
  const look = (i: number): void => {
    const isRun = i - runStart >= 2 && matches(columns, i, run);
    const isAll = i - allStart >= 3 && runStart > allStart && matches(columns, i, all);
    if (known.has(i) || isRun || isAll) {
      if (!known.has(i))
        found.push({
          record: i,
          why: { kind: 'sum', from: isAll ? allStart : runStart, to: i - 1 },
        });
      run.fill(0);
      runStart = i + 1;
      if (isAll) {
        all.fill(0);
        allStart = i + 1;
      }
      return;
    }
    for (let c = 0; c < columns.length; c++) {
      const v = columns[c].values[i];
      if (v === v) {
        run[c] += v;
        all[c] += v;
      }
    }
  };
  yield* inStretches(
    table.length,
    (from, to) => {
      for (let i = from; i < to && found.length < most; i++) look(i);
    },
    STRIDE >> 2,
  );
  return found;
}

/** At least two numbers, not all zero, each the sum within rounding of its column's decimals. */
function matches(columns: readonly ScalarColumn[], record: number, sums: Float64Array): boolean {
  let compared = 0;
  let nonZero = 0;
  for (let c = 0; c < columns.length; c++) {
    const v = columns[c].values[record];
    if (v !== v) continue;
    if (Math.abs(v - sums[c]) > 0.5 * 10 ** -columns[c].decimals + 1e-9 * Math.abs(v)) return false;
    compared++;
    if (v !== 0) nonZero++;
  }
  return compared >= 2 && nonZero >= 2;
}
