import { looseForm } from '../arrange/groupCodes';
import { fullCell } from '../table/cell';
import { isMissing, isText, type Column } from '../table/column';
import type { Table } from '../table/table';

/** A pair of columns by which two lists could meet. */
export interface KeyPair {
  readonly column: string;
  readonly with: string;
  /** Of the values here, the share that the other list has. */
  readonly found: number;
  /** Whether each value stands once there. */
  readonly single: boolean;
}

/** Distinct values looked at for each column. */
const MOST_VALUES = 5000;

const loose = (text: string): string => text.trim().toLowerCase();

/** The distinct values of a column, the first so many; whether none of those stands twice. */
function valuesOf(column: Column, length: number): { values: Set<string>; single: boolean } {
  const values = new Set<string>();
  let single = true;
  const seen = isText(column) ? new Uint8Array(column.dictionary.length) : null;
  for (let i = 0; i < length && values.size < MOST_VALUES; i++) {
    if (isMissing(column, i)) continue;
    if (seen && isText(column)) {
      const code = column.codes[i];
      if (seen[code]) {
        single = false;
        continue;
      }
      seen[code] = 1;
    }
    const value = looseForm(fullCell(column, i));
    if (values.has(value)) single = false;
    else values.add(value);
  }
  return { values, single };
}

/** Whether keys of two columns can be equal: of one type, or numbers that the other list keeps as text. */
const mayMeet = (a: Column, b: Column): boolean =>
  a.type === b.type || (isText(a) && b.type === 'number') || (a.type === 'number' && isText(b));

/**
 * Pairs of columns that two lists could meet by, the likeliest first: most values found there, each once, and named
 * the same.
 */
export function keyGuesses(table: Table, other: Table): KeyPair[] {
  const there = other.columns.map((column) => ({ column, ...valuesOf(column, other.length) }));
  const out: (KeyPair & { readonly weight: number })[] = [];
  for (const column of table.columns) {
    const { values } = valuesOf(column, table.length);
    if (values.size === 0) continue;
    for (const { column: theirs, values: known, single } of there) {
      if (!mayMeet(column, theirs)) continue;
      const named = loose(theirs.name) === loose(column.name);
      const found = [...values].filter((value) => known.has(value)).length / values.size;
      // Small numbers meet by chance; a name, or nearly every value, is evidence.
      const evidence = isText(column) || isText(theirs) ? found >= 0.3 : named && found > 0;
      if (!evidence) continue;
      // Values say more than names, and names more than that each stands once.
      const weight = 2 * found + (named ? 0.75 : 0) + (single ? 0.5 : 0);
      out.push({ column: column.id, with: theirs.id, found, single, weight });
    }
  }
  return out.toSorted((a, b) => b.weight - a.weight).map(({ weight: _, ...pair }) => pair);
}
