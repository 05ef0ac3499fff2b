import type { Steps } from '../steps/steps';
import { compareText } from '../table/collate';
import { keysOfRow, type AnswerTable } from './answer';
import { flatOrder } from './flatOrder';
import { groupKeyText } from './ledger/lines';
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

const LAST = { group: 0, total: 0, others: 1, outside: 2 } as const;

/**
 * The rows in view, by their places in the table: parts under their whole, the grand total last,
 * folded parts left out, and members of one whole in the order asked.
 */
export function* rowsInView(table: AnswerTable, view: RowView): Steps<Int32Array> {
  if (table.flat) return yield* flatOrder(table, view.sort);
  const parts = new Map<number, number[]>();
  for (let n = 0; n < table.length; n++) {
    const whole = table.partOf(n);
    const known = parts.get(whole);
    if (known) known.push(n);
    else parts.set(whole, [n]);
  }
  const turned = new Set(view.turned);
  const out: number[] = [];
  const compare = comparator(table, view.sort);
  const place = (whole: number): void => {
    const members = [...(parts.get(whole) ?? [])];
    const kindOf = new Map(members.map((n) => [n, LAST[table.row(n).kind]]));
    members.sort((a, b) => (kindOf.get(a) ?? 0) - (kindOf.get(b) ?? 0) || compare(a, b) || a - b);
    for (const n of members) {
      if (!parts.has(n)) {
        out.push(n);
        continue;
      }
      const row = table.row(n);
      const grand = whole === -1 && row.kind === 'total' && row.level === 0;
      if (!grand) out.push(n);
      if (grand || isOpen(row.level, keysOfRow(row, table.labels), view, turned)) place(n);
      if (grand) out.push(n);
    }
  };
  place(-1);
  // A grand total of which nothing is a part still closes the table.
  const totals = out.filter((n) => isGrandTotal(table, n) && !parts.has(n));
  return Int32Array.from(
    totals.length ? [...out.filter((n) => !totals.includes(n)), ...totals] : out,
  );
}

export const isGrandTotal = (table: AnswerTable, n: number): boolean => {
  const { kind, level } = table.row(n);
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
function comparator(table: AnswerTable, sort: RowView['sort']): (a: number, b: number) => number {
  const at = sort ? table.columns.findIndex((c) => c.key === sort.column) : -1;
  if (!sort || at < 0) return () => 0;
  const turn = sort.descending ? -1 : 1;
  const { type } = table.columns[at];
  if (type === 'text' || at < table.labels) {
    const text = (n: number): Figure => {
      const row = table.row(n);
      return (at < table.labels ? keysOfRow(row, table.labels)[at] : row.cells[at]) ?? null;
    };
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
