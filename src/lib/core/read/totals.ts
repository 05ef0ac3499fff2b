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
export function findTotals(table: Table): TotalLike[] {
  const found = labelled(table);
  const known = new Set(found.map((t) => t.record));
  for (const total of summed(table, known)) {
    if (!known.has(total.record)) found.push(total);
    if (found.length >= MOST) break;
  }
  return found.sort((a, b) => a.record - b.record);
}

function labelled(table: Table): TotalLike[] {
  const found = new Map<number, TotalLike>();
  for (const column of table.columns) {
    if (!isText(column)) continue;
    const hits = new Set<number>();
    column.dictionary.forEach((text, code) => {
      if (text.length < 80 && LABEL.test(text)) hits.add(code);
    });
    // A word that stands in most records names the column's subject, not a total.
    if (hits.size === 0) continue;
    const records: number[] = [];
    for (let i = 0; i < table.length; i++) if (hits.has(column.codes[i])) records.push(i);
    if (records.length > table.length / 2) continue;
    for (const record of records)
      if (!found.has(record))
        found.set(record, {
          record,
          why: {
            kind: 'label',
            column: column.name,
            text: column.dictionary[column.codes[record]],
          },
        });
  }
  return [...found.values()];
}

/** Columns whose values could be added up: numbers that are not all the same. */
const addable = (columns: readonly Column[]): ScalarColumn[] =>
  columns.filter((c): c is ScalarColumn => c.type === 'number');

function* summed(table: Table, known: ReadonlySet<number>): Generator<TotalLike> {
  const columns = addable(table.columns);
  // One column alone agrees with a run by chance too often.
  if (columns.length < 2) return;
  const run = new Float64Array(columns.length);
  const all = new Float64Array(columns.length);
  let runStart = 0;
  let allStart = 0;
  for (let i = 0; i < table.length; i++) {
    const isRun = i - runStart >= 2 && matches(columns, i, run);
    const isAll = i - allStart >= 3 && runStart > allStart && matches(columns, i, all);
    if (known.has(i) || isRun || isAll) {
      if (!known.has(i))
        yield { record: i, why: { kind: 'sum', from: isAll ? allStart : runStart, to: i - 1 } };
      run.fill(0);
      runStart = i + 1;
      if (isAll) {
        all.fill(0);
        allStart = i + 1;
      }
      continue;
    }
    for (let c = 0; c < columns.length; c++) {
      const v = columns[c].values[i];
      if (v === v) {
        run[c] += v;
        all[c] += v;
      }
    }
  }
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
