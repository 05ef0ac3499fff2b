import { showCount } from '../../table/format';
import { warn, type Warning } from '../trust/warnings';
import { BadBands, TallyRefused } from '../../errors';
import type { GroupOrder } from '../../arrange/groupKey';
import { groupCodes } from '../../arrange/groupCodes';
import { checkBands, type SettledBand } from '../../arrange/bands';
import type { GroupKey } from '../../arrange/groupKey';
import { buildTree, type GroupTree } from '../../arrange/tree';
import { columnFor } from '../../expression/columnFor';
import { inStretches, type Task } from '../../task/task';
import { settleBands } from '../../measure/settleBands';
import { gather } from '../../measure/slices';
import type { Condition } from '../../selection/condition';
import { isText, type Column } from '../../table/column';
import type { Table } from '../../table/table';
import type { KeyGroups } from './keyGroups';
import type { Bitset } from '../../table/bitset';
import { recordsOf, type TallyInput } from '../input/input';
import type { Faults } from '../spec/fault';
import { labelColumns } from '../answer/figure';
import type { FigureColumn } from '../answer/result';

/** The bands of a key, from the values of the selection; null where it has none. */
function* bandsOf(
  { weights }: Table,
  column: Column,
  key: GroupKey,
  records: Int32Array,
): Task<SettledBand[] | null> {
  if (!key.bands || isText(column)) return null;
  const looksAtValues = key.bands.by !== 'edges' && key.bands.by !== 'table';
  const { values } = column;
  if (looksAtValues && weights) {
    const none = new Int32Array(values.length);
    return settleBands(key.bands, (yield* gather(values, none, 1, records, weights)).values);
  }
  const there = new Float64Array(looksAtValues ? records.length : 0);
  let n = 0;
  yield* inStretches(there.length, (from, to) => {
    let at = n;
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v === v) there[at++] = v;
    }
    n = at;
  });
  return settleBands(key.bands, there.subarray(0, n));
}

/** The groups of a key over a selection, kept with the base. @throws BadBands, UnknownColumn, ExpressionError */
export function* codesOf(input: TallyInput, key: GroupKey, selection: Bitset): Task<KeyGroups> {
  const { column, period, calendar, loose, bands } = key;
  const name = JSON.stringify([column, period, calendar, loose, bands]);
  // Bands found from the values depend on which records there are.
  return yield* input.memo.codes.onceInSteps(
    bands ? `${name}${input.memo.numberOf(selection)}` : name,
    () => code(input.table, key, recordsOf(selection)),
  );
}

/** The groups of several keys. */
export function* codesOfAll(
  input: TallyInput,
  keys: readonly GroupKey[],
  selection: Bitset,
): Task<KeyGroups[]> {
  const keyGroups: KeyGroups[] = [];
  for (const key of keys) keyGroups.push(yield* codesOf(input, key, selection));
  return keyGroups;
}

/** The label columns of several keys. */
export function* keyColumns(
  input: TallyInput,
  keys: readonly GroupKey[],
  selection: Bitset,
): Task<FigureColumn[]> {
  const keyGroups = yield* codesOfAll(input, keys, selection);
  return labelColumns(
    keys,
    keyGroups.map((c) => c.codes),
    input.table,
  );
}

function* code(table: Table, key: GroupKey, records: Int32Array): Task<KeyGroups> {
  const column = columnFor(table, key.column);
  const bands = yield* bandsOf(table, column, key, records);
  const faults = bands ? checkBands(bands) : [];
  return {
    codes: yield* groupCodes(column, key, bands, table.weights),
    bands,
    warnings: faults.map(({ kind, words }) => warn(`bands-${kind}`, words)),
  };
}

/**
 * The tree of keys over a selection, with what should be known of their bands.
 * @throws TallyRefused for too many groups, BadBands, UnknownColumn, ExpressionError
 */
export function* treeOf(
  input: TallyInput,
  keys: readonly GroupKey[],
  selection: Bitset,
): Task<{ tree: GroupTree; warnings: Warning[] }> {
  const keyGroups = yield* codesOfAll(input, keys, selection);
  const tree = yield* buildTree(
    input.table.length,
    keyGroups.map((c) => c.codes),
  );
  refuseTooMany(tree.leaves, 'groups', MOST_GROUPS);
  return { tree, warnings: keyGroups.flatMap((c) => c.warnings) };
}

/** Names what in a key does not fit the list. */
export function checkKey(key: GroupKey, faults: Faults, path: string): void {
  const types = key.bands
    ? (['number'] as const)
    : key.period
      ? (['date', 'datetime'] as const)
      : undefined;
  faults.column(`${path}.column`, key.column, types);
  if (key.bands)
    try {
      settleBands(key.bands, new Float64Array(0));
    } catch (error) {
      if (!(error instanceof BadBands)) throw error;
      faults.add(`${path}.bands`, error.message, 'Edges rise from band to band.');
    }
}

/** Names a group order that speaks of a measure which is not there. */
export function checkOrder(
  order: GroupOrder,
  measures: number,
  faults: Faults,
  path: string,
): void {
  if (order.by === 'measure' && order.measure >= measures)
    faults.add(
      `${path}.measure`,
      `There is no measure ${order.measure}.`,
      measures === 0
        ? 'Add a measure, or order by label or count.'
        : `Measures are counted from 0 to ${measures - 1}.`,
    );
}

/** Conditions from the first level down to a group, joined. */
export function groupWhere(tree: GroupTree, level: number, group: number): Condition {
  const parts: Condition[] = [];
  for (let l = level, g = group; l >= 0; l--) {
    parts.unshift(tree.keys[l].where(tree.levels[l].code[g]));
    g = tree.levels[l].parent[g];
  }
  return joined(parts);
}

/** Conditions that must all hold; a single one stands by itself. */
export const joined = (parts: Condition[]): Condition =>
  parts.length === 1 ? parts[0] : { kind: 'all', not: false, parts };

/** More groups than this make no table anyone can use, and would fill the memory. */
export const MOST_GROUPS = 200_000;

/** @throws TallyRefused */
export function refuseTooMany(n: number, what: string, most: number): void {
  if (n > most)
    throw new TallyRefused(
      `This makes ${showCount(n)} ${what}; at most ${showCount(most)} are possible. Take a longer period, wider bands, fewer keys, or narrow what counts.`,
    );
}
