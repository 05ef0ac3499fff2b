import { fullCell } from '../../table/cell';
import { isMissing, isText, type Column } from '../../table/column';
import type { Table } from '../../table/table';

/** Columns that are tried beside one another at most. */
const MOST_KEYS = 5;
/** Records looked at: what names so many names the rest as a rule. */
const MOST_RECORDS = 20_000;

/**
 * Columns that name a record together, as few as will do: those that tell most records apart are
 * taken first, numbers only where nothing else does. None where no few columns do: identical records have no
 * name.
 */
export function recordKeys(table: Table): readonly string[] {
  let keys = known.get(table);
  if (!keys) known.set(table, (keys = found(table)));
  return keys;
}

const known = new WeakMap<Table, readonly string[]>();

function found(table: Table): string[] {
  const length = Math.min(table.length, MOST_RECORDS);
  if (length < 2) return [];
  const able = table.columns.filter((c) => c.type !== 'yesno' && isFull(c, length));
  // A number that was put right would name another record: numbers only where nothing else does.
  const named = taken(
    able.filter((c) => c.type !== 'number'),
    length,
  );
  return named.length ? named : taken(able, length);
}

/** Takes the column that tells most records apart, again and again, until nearly every one is. */
function taken(able: readonly Column[], length: number): string[] {
  // Groups of records that are not told apart yet, by the number of their group.
  let groups = new Int32Array(length);
  let told = 1;
  const out: string[] = [];
  while (out.length < MOST_KEYS && told < length) {
    let best: { id: string; groups: Int32Array<ArrayBuffer>; told: number } | null = null;
    for (const column of able) {
      if (out.includes(column.id)) continue;
      const finer = split(groups, column, length);
      if (!best || finer.told > best.told) best = { id: column.id, ...finer };
    }
    if (!best || best.told === told) break;
    out.push(best.id);
    groups = best.groups;
    told = best.told;
  }
  // The few that look alike are matched in their order.
  return told >= length * 0.99 ? out : [];
}

function isFull(column: Column, length: number): boolean {
  let blanks = 0;
  for (let i = 0; i < length; i++) if (isMissing(column, i)) blanks++;
  return blanks <= length * 0.01;
}

function split(
  groups: Int32Array,
  column: Column,
  length: number,
): { groups: Int32Array<ArrayBuffer>; told: number } {
  const known = new Map<string, number>();
  const out = new Int32Array(length);
  for (let i = 0; i < length; i++) {
    const cell = isText(column) ? column.codes[i] : column.values[i];
    const key = `${groups[i]} ${cell === cell ? cell : fullCell(column, i)}`;
    let group = known.get(key);
    if (group === undefined) known.set(key, (group = known.size));
    out[i] = group;
  }
  return { groups: out, told: known.size };
}
