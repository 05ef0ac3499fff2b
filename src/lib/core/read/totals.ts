import { inStretches, STRIDE, type Task } from '../task/task';
import { isText, type Column, type ScalarColumn, type TextColumn } from '../table/column';
import type { Table } from '../table/table';

/** How a number of a record that looks like a total stands to the sum of the records above it. */
export interface StatedSum {
  readonly column: string;
  readonly stated: number;
  /** The sum of the column over the records `from` to `to`, by their places. */
  readonly sum: number;
  readonly from: number;
  readonly to: number;
  /** Totals among those records, which the sum leaves out. */
  readonly without: number;
  /** doubled: the totals above were added up with what they are totals of. */
  readonly how: 'agrees' | 'doubled' | 'differs';
}

/** A record inside the list that looks like a total of others. */
export interface TotalLike {
  readonly record: number;
  /** The word that gives it away, with its sum where it has one; or the run of records whose sum it is. */
  readonly why:
    | { kind: 'label'; column: string; text: string; sum: StatedSum | null }
    | { kind: 'sum'; from: number; to: number; without: number; column: string | null }
    | { kind: 'mark'; mark: TotalMark; sum: StatedSum | null };
}

/** How a sheet marks a record as a total: by a formula that adds up the cells above it, or by bold type. */
export type TotalMark = 'formula' | 'bold';

/** Marks that more of the records than this bear are none of totals: running sums, a sheet all in bold. */
const MARKED = 1 / 3;

const LABEL = /\b(sub-?total|grand total|total|totals|sum)\b/i;
const MOST = 5000;
/** A text column names what a record is about when this share of its records have it. */
const KEY = 0.5;

/**
 * Records that look like totals inside the list (calculations, section 2): a cell says "total", in a column of
 * texts or where a number should stand; or every number of the record is the sum of the run above it; or one
 * is, and beside it a key is blank that no other record lacks. One pass; the run starts anew after each total found, and a
 * second run over whole blocks finds the total of the totals.
 * @param marked records that the sheet marks as totals: by a formula, or by bold type where a key is blank too
 */
export function* findTotals(
  table: Table,
  marked: ReadonlyMap<number, TotalMark> = new Map(),
): Task<TotalLike[]> {
  const labels = yield* labelled(table);
  const keys = yield* keyColumns(table);
  const marks = fewMarks(marked, table.length);
  const found = yield* walked(table, labels, marks, keys);
  // A key that others lack as well says nothing of a record that lacks it.
  const telling = keys.filter(({ blanks, column }) => blanks <= (found.byBlank.get(column) ?? 0));
  const { totals } =
    telling.length === keys.length ? found : yield* walked(table, labels, marks, telling);
  return totals;
}

/** The marks of each sort that few enough records bear. */
function fewMarks(
  marked: ReadonlyMap<number, TotalMark>,
  length: number,
): ReadonlyMap<number, TotalMark> {
  const counts = { formula: 0, bold: 0 };
  for (const mark of marked.values()) counts[mark]++;
  return new Map([...marked].filter(([, mark]) => counts[mark] <= length * MARKED));
}

type Labels = ReadonlyMap<number, { column: string; text: string }>;

/** Texts with a word for a total, by record: of texts, and of cells that should hold a number or a date. */
function* labelled(table: Table): Task<Labels> {
  const found = new Map<number, { column: string; text: string }>();
  for (const column of table.columns) {
    const records = isText(column)
      ? yield* labelledTexts(column)
      : [...column.unread].flatMap(([record, text]) =>
          isLabel(text) ? [[record, text] as const] : [],
        );
    // A word that stands in most records names the column's subject, not a total.
    if (records.length > table.length / 2) continue;
    for (const [record, text] of records)
      if (!found.has(record)) found.set(record, { column: column.name, text });
  }
  return found;
}

const isLabel = (text: string): boolean => text.length < 80 && LABEL.test(text);

function* labelledTexts({ codes, dictionary }: TextColumn): Task<(readonly [number, string])[]> {
  const hits = new Set<number>();
  yield* inStretches(
    dictionary.length,
    (from, to) => {
      for (let code = from; code < to; code++) if (isLabel(dictionary[code])) hits.add(code);
    },
    STRIDE >> 4,
  );
  const out: (readonly [number, string])[] = [];
  if (hits.size === 0) return out;
  yield* inStretches(codes.length, (from, to) => {
    for (let i = from; i < to; i++) if (hits.has(codes[i])) out.push([i, dictionary[codes[i]]]);
  });
  return out;
}

interface KeyColumn {
  readonly column: TextColumn;
  readonly blanks: number;
}

/** Text columns that most records have and some lack. */
function* keyColumns({ columns, length }: Table): Task<KeyColumn[]> {
  const out: KeyColumn[] = [];
  for (const column of columns.filter(isText)) {
    const { codes } = column;
    let blanks = 0;
    yield* inStretches(length, (from, to) => {
      for (let i = from; i < to; i++) if (codes[i] < 0) blanks++;
    });
    if (blanks > 0 && blanks < length * (1 - KEY)) out.push({ column, blanks });
  }
  return out;
}

/** Columns whose values could be added up. */
const addable = (columns: readonly Column[]): ScalarColumn[] =>
  columns.filter((c): c is ScalarColumn => c.type === 'number');

/** All totals there are, and how many of them each key column is blank beside. */
function* walked(
  table: Table,
  labels: Labels,
  marks: ReadonlyMap<number, TotalMark>,
  keys: readonly KeyColumn[],
): Task<{ totals: TotalLike[]; byBlank: Map<TextColumn, number> }> {
  const totals: TotalLike[] = [];
  const byBlank = new Map(keys.map(({ column }) => [column, 0]));
  const columns = addable(table.columns);
  const run = new Float64Array(columns.length);
  const all = new Float64Array(columns.length);
  let runStart = 0;
  let allStart = 0;
  const totalsIn = (from: number): number => totals.filter(({ record }) => record >= from).length;
  const look = (i: number): void => {
    const label = labels.get(i);
    const blank = keys.some(({ column }) => column.codes[i] < 0);
    const least = blank ? 1 : 2;
    const isRun = i - runStart >= 2 && matches(columns, i, run, least, blank);
    const isAll =
      i - allStart >= 3 && runStart > allStart && matches(columns, i, all, least, blank);
    const mark = marks.get(i);
    const isMarked = mark === 'formula' || (mark === 'bold' && blank);
    if (!label && !isRun && !isAll && !isMarked) {
      for (let c = 0; c < columns.length; c++) {
        const v = columns[c].values[i];
        if (v === v) {
          run[c] += v;
          all[c] += v;
        }
      }
      return;
    }
    for (const { column } of keys)
      if (column.codes[i] < 0) byBlank.set(column, (byBlank.get(column) ?? 0) + 1);
    const from = isAll || i === runStart ? allStart : runStart;
    const sums = from === runStart && i > runStart ? run : all;
    const stated = (): StatedSum | null =>
      statedSum(columns, i, sums, from, all, allStart, totalsIn);
    totals.push({
      record: i,
      why: label
        ? { kind: 'label', ...label, sum: stated() }
        : isMarked && mark
          ? { kind: 'mark', mark, sum: stated() }
          : {
              kind: 'sum',
              from,
              to: i - 1,
              without: totalsIn(from),
              column: blank ? (columns.find((c, k) => agrees(c, i, sums[k]))?.name ?? null) : null,
            },
    });
    const isGrand =
      isAll ||
      ((label || isMarked) && runStart > allStart && columns.some((c, k) => agrees(c, i, all[k])));
    run.fill(0);
    runStart = i + 1;
    if (!isGrand) return;
    all.fill(0);
    allStart = i + 1;
  };
  yield* inStretches(
    table.length,
    (from, to) => {
      for (let i = from; i < to && totals.length < MOST; i++) look(i);
    },
    STRIDE >> 2,
  );
  return { totals, byBlank };
}

/** Whether a number is a sum, within the rounding of its column's decimals; zeros say nothing. */
const agrees = ({ values, decimals }: ScalarColumn, record: number, sum: number): boolean => {
  const v = values[record];
  return v !== 0 && Math.abs(v - sum) <= 0.5 * 10 ** -decimals + 1e-9 * Math.abs(v);
};

/**
 * Whether the numbers of a record are sums: so many at least, not zero.
 * @param some others may be no sums: a price, a mean
 */
function matches(
  columns: readonly ScalarColumn[],
  record: number,
  sums: Float64Array,
  least: number,
  some: boolean,
): boolean {
  let nonZero = 0;
  for (let c = 0; c < columns.length; c++) {
    const v = columns[c].values[record];
    if (v !== v) continue;
    if (agrees(columns[c], record, sums[c])) nonZero++;
    else if (!some && (v !== 0 || sums[c] !== 0)) return false;
  }
  return nonZero >= least;
}

/** How the numbers of a labelled record stand to the sums above it: by the first that agrees, else by the first. */
function statedSum(
  columns: readonly ScalarColumn[],
  record: number,
  sums: Float64Array,
  from: number,
  all: Float64Array,
  allStart: number,
  totalsIn: (from: number) => number,
): StatedSum | null {
  const tried = [
    { how: 'agrees', sums, times: 1, from },
    { how: 'agrees', sums: all, times: 1, from: allStart },
    { how: 'doubled', sums: all, times: 2, from: allStart },
  ] as const;
  for (const { how, sums: of, times, from: start } of tried)
    for (const [k, column] of columns.entries())
      if (record > start && agrees(column, record, times * of[k]))
        return { ...about(column, record, of[k], start, how), without: totalsIn(start) };
  const first = columns.findIndex(({ values }) => values[record] === values[record]);
  return first < 0 || record <= from
    ? null
    : {
        ...about(columns[first], record, sums[first], from, 'differs'),
        without: totalsIn(from),
      };
}

const about = (
  { name, values }: ScalarColumn,
  record: number,
  sum: number,
  from: number,
  how: StatedSum['how'],
): Omit<StatedSum, 'without'> => ({
  column: name,
  stated: values[record],
  sum,
  from,
  to: record - 1,
  how,
});
