import { mergedSort } from '../../sorting/mergedSort';
import { inStretches, pausing, STRIDE, type Task } from '../../task/task';
import { compareText } from '../../table/collate';
import { outlineOf, type AnswerTable } from './answer';
import { flatOrder } from '../groups/flatOrder';
import { groupKeyText } from '../kinds/ledger/lines';
import type { Figure } from './result';

/** How the rows of a table are looked at: none of it changes a figure. */
export interface RowView {
  /** Sorted for the eye by a column. */
  readonly sort?: { readonly column: string; readonly descending: boolean } | undefined;
  /** Rows of groups above this level are open: their parts show. */
  readonly down: number;
  /** Rows that are open or folded against that, by `groupKeyText`. */
  readonly turned: readonly string[];
}

/** Cells of the rows that are made between two pauses. */
const CELLS = STRIDE >> 1;
const FEWEST_ROWS = 32;

const LAST = { group: 0, total: 0, others: 1, outside: 2 } as const;

/**
 * The rows in view, by their places in the table: parts under their whole, the grand total last,
 * folded parts left out, and members of one whole in the order asked.
 */
export function* rowsInView(table: AnswerTable, view: RowView): Task<Int32Array> {
  if (table.flat) return yield* flatOrder(table, view.sort);
  const rowsAtOnce = Math.max(FEWEST_ROWS, Math.floor(CELLS / table.columns.length));
  const parts = new Map<number, number[]>();
  yield* inStretches(table.length, (from, to) => {
    for (let n = from; n < to; n++) {
      const whole = table.partOf(n);
      const known = parts.get(whole);
      if (known) known.push(n);
      else parts.set(whole, [n]);
    }
  });
  const turned = new Set(view.turned);
  const out: number[] = [];
  /** Grand totals of which nothing is a part: they close the table all the same. */
  const closing: number[] = [];
  const compare = comparator(table, view.sort);
  function* place(whole: number): Task<void> {
    const members = parts.get(whole) ?? [];
    const ofKind: number[][] = [[], [], []];
    const deal = (from: number, to: number): void => {
      for (let k = from; k < to; k++)
        ofKind[LAST[outlineOf(table, members[k]).kind]].push(members[k]);
    };
    yield* inStretches(members.length, deal, rowsAtOnce);
    const due = pausing(rowsAtOnce);
    let placed = 0;
    for (const alike of ofKind)
      for (const n of compare ? yield* mergedSort(alike, compare) : alike) {
        if (due(++placed)) yield undefined;
        const grand = whole === -1 && isGrandTotal(table, n);
        if (!parts.has(n)) {
          (grand ? closing : out).push(n);
          continue;
        }
        const { level, keys } = outlineOf(table, n);
        if (!grand) out.push(n);
        if (grand || isOpen(level, keys, view, turned)) yield* place(n);
        if (grand) out.push(n);
      }
  }
  yield* place(-1);
  const rows = new Int32Array(out.length + closing.length);
  rows.set(out);
  rows.set(closing, out.length);
  return rows;
}

export const isGrandTotal = (table: AnswerTable, n: number): boolean => {
  const { kind, level } = outlineOf(table, n);
  return kind === 'total' && level === 0 && table.partOf(n) === -1;
};

/** Whether the parts of a row show. Levels count from 1 where a grand total stands above them. */
export const isOpen = (
  level: number,
  keys: readonly Figure[],
  view: RowView,
  turned: ReadonlySet<string> = new Set(view.turned),
): boolean => level < view.down !== turned.has(groupKeyText(keys));

/** Numbers by size, texts as people sort them; what has no figure comes last either way. */
function comparator(
  table: AnswerTable,
  sort: RowView['sort'],
): ((a: number, b: number) => number) | null {
  const at = sort ? table.columns.findIndex((c) => c.key === sort.column) : -1;
  if (!sort || at < 0) return null;
  const turn = sort.descending ? -1 : 1;
  const { type } = table.columns[at];
  if (type === 'text' || at < table.labels) {
    const known: (Figure | undefined)[] = new Array(table.length);
    const text = (n: number): Figure =>
      (known[n] ??=
        (at < table.labels ? outlineOf(table, n).keys[at] : table.row(n).cells[at]) ?? null);
    return (a, b) => compareFigures(text(a), text(b), turn);
  }
  return (a, b) => {
    const x = table.number(a, at);
    const y = table.number(b, at);
    if (x !== x || y !== y) return Number(x !== x) - Number(y !== y);
    return turn * (x - y);
  };
}

function compareFigures(a: Figure, b: Figure, turn: number): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  if (typeof a === 'number' && typeof b === 'number') return turn * (a - b);
  return turn * compareText(String(a), String(b));
}
