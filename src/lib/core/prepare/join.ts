import { codesAsValues } from '../measure/valuesOf';
import { PrepareRefused } from '../errors';
import { looseForm } from '../arrange/groupCodes';
import { columnFor, columnInSteps, columnsInSteps } from '../expression/columnFor';
import { fromMoments } from '../measure/fromMoments';
import { momentsOf } from '../measure/moments';
import { inStretches, STRIDE, type Task } from '../task/task';
import { fullCell } from '../table/cell';
import {
  isMissing,
  isText,
  type Column,
  type ScalarColumn,
  type TextColumn,
} from '../table/column';
import { counted } from '../table/format';
import type { Table } from '../table/table';
import { idOfBrought, type JoinSpec } from './specs';

/** Keys that are made between two pauses. */
const KEYS = STRIDE >> 4;

/** What a join came to. */
export interface Joined {
  readonly columns: Column[];
  /** Records of this list whose key the other one has not, blank keys among them. */
  readonly unmatched: number;
}

/** How the keys of two lists meet. */
export interface KeyMatch {
  /** Records of the other list by their keys, in the order they first stand there. */
  readonly groups: readonly (readonly number[])[];
  /** For each record here, the place of its key among those; -1: the other list has it not. */
  readonly groupOf: Int32Array;
  readonly unmatched: number;
}

/** Meets the keys of two lists. @throws UnknownColumn, ExpressionError */
export function* matchKeys(
  table: Table,
  other: Table,
  { on, loose }: Pick<JoinSpec, 'on' | 'loose'>,
): Task<KeyMatch> {
  const here = yield* columnsInSteps(
    table,
    on.map(({ column }) => column),
  );
  const there = yield* columnsInSteps(
    other,
    on.map(({ column, with: ref }) => ref ?? column),
  );
  const places = new Map<string, number>();
  const groups: number[][] = [];
  const [only] = there;
  const known =
    there.length === 1 && isText(only) ? new Int32Array(only.dictionary.length).fill(-1) : null;
  const group = (begin: number, end: number): void => {
    for (let i = begin; i < end; i++) {
      // A text that was met before has its place already.
      const code = known && isText(only) ? only.codes[i] : -1;
      let at = known && code >= 0 ? known[code] : -1;
      if (at < 0) {
        const key = keyOf(there, i, loose);
        if (key === null) continue;
        at = places.get(key) ?? -1;
        if (at < 0) places.set(key, (at = groups.push([]) - 1));
        if (known && code >= 0) known[code] = at;
      }
      groups[at].push(i);
    }
  };
  yield* inStretches(other.length, group, KEYS);
  const placeOf = yield* placing(here, loose, places);
  const groupOf = new Int32Array(table.length);
  const { weights } = table;
  let unmatched = 0;
  const place = (begin: number, end: number): void => {
    for (let i = begin; i < end; i++) {
      const at = placeOf(i);
      groupOf[i] = at;
      if (at < 0) unmatched += weights ? weights[i] : 1;
    }
  };
  yield* inStretches(table.length, place, STRIDE);
  return { groups, groupOf, unmatched };
}

/** The place of a record's key; a column of texts is looked up once for each text. */
function* placing(
  columns: readonly Column[],
  loose: boolean,
  places: ReadonlyMap<string, number>,
): Task<(record: number) => number> {
  const [only] = columns;
  if (columns.length === 1 && isText(only)) {
    const { dictionary } = only;
    const byCode = new Int32Array(dictionary.length);
    const look = (begin: number, end: number): void => {
      for (let code = begin; code < end; code++)
        byCode[code] = places.get(formOf(only, dictionary[code], loose)) ?? -1;
    };
    yield* inStretches(dictionary.length, look, KEYS);
    return (i) => (only.codes[i] < 0 ? -1 : byCode[only.codes[i]]);
  }
  return (i) => {
    const key = keyOf(columns, i, loose);
    return key === null ? -1 : (places.get(key) ?? -1);
  };
}

const formOf = (column: Column, text: string, loose: boolean): string =>
  loose && isText(column) ? looseForm(text) : text;

/**
 * Brings columns from another list by equal keys. Never adds or drops a record: no match gives a
 * blank. A key that stands more than once there needs a choice for every column brought.
 * @param match how the keys meet, where that is known already
 * @throws PrepareRefused, UnknownColumn
 */
export function* joinColumns(
  table: Table,
  other: Table,
  spec: JoinSpec,
  idOf: (name: string) => string,
  match?: KeyMatch,
): Task<Joined> {
  const { groups, groupOf, unmatched } = match ?? (yield* matchKeys(table, other, spec));
  const open = spec.bring.filter((b) => b.repeated === undefined);
  const repeated = groups.filter((list) => list.length > 1);
  if (repeated.length > 0 && open.length > 0) {
    const there = spec.on.map(({ column, with: ref }) => columnFor(other, ref ?? column));
    throw new PrepareRefused(
      `In “${spec.list}” ${counted(repeated.length, 'key')} ${repeated.length === 1 ? 'stands' : 'stand'} more than once, the first in record ${repeated[0][1] + 1} (${there.map((c) => fullCell(c, repeated[0][0])).join(', ')}). Choose for “${open[0].column}” the first, the last or a measure (repeated).`,
    );
  }
  const columns: Column[] = [];
  for (const bring of spec.bring) {
    const source = yield* columnInSteps(other, bring.column);
    const facts = { id: idOf(idOfBrought(bring)), name: bring.as ?? source.name };
    columns.push(yield* brought(source, groups, groupOf, bring.repeated ?? 'first', facts));
  }
  return { columns, unmatched };
}

/** The key of a record as one text; null where a part of it is missing. A key of one part is its text. */
function keyOf(columns: readonly Column[], record: number, loose: boolean): string | null {
  let key: string | null = null;
  for (const column of columns) {
    if (isMissing(column, record)) return null;
    const part = formOf(column, fullCell(column, record), loose);
    key = key === null ? part : `${key}\u001f${part}`;
  }
  return key;
}

function* brought(
  source: Column,
  groups: readonly (readonly number[])[],
  groupOf: Int32Array,
  how: NonNullable<JoinSpec['bring'][number]['repeated']>,
  facts: { id: string; name: string },
): Task<Column> {
  if (how === 'first' || how === 'last') {
    const pick = new Int32Array(groups.length);
    yield* inStretches(groups.length, (begin, end) => {
      for (let g = begin; g < end; g++)
        pick[g] = groups[g][how === 'first' ? 0 : groups[g].length - 1];
    });
    return isText(source)
      ? yield* pickText(source, pick, groupOf, facts)
      : yield* pickScalar(source, pick, groupOf, facts);
  }
  if (isText(source) && how !== 'values')
    throw new PrepareRefused(
      `“${source.name}” is text and has no ${how}. Take the first, the last or the count of values.`,
    );
  const values = isText(source) ? yield* codesAsValues(source) : source.values;
  const figures = new Float64Array(groups.length);
  for (const [g, list] of groups.entries()) {
    const moments = yield* momentsOf(values, Int32Array.from(list), false);
    figures[g] = fromMoments(how, moments, 0) ?? NaN;
  }
  return {
    ...facts,
    unit: how === 'values' ? '' : source.unit,
    type: how === 'values' || isText(source) ? 'number' : source.type,
    values: yield* pickedBy(groupOf, figures),
    unread: new Map(),
    decimals: how === 'values' || isText(source) ? 0 : source.decimals + (how === 'mean' ? 1 : 0),
    percent: !isText(source) && source.percent,
    grain: isText(source) ? 'day' : source.grain,
  };
}

/** For each record the value of its group; none where it has no group. */
function* pickedBy(groupOf: Int32Array, values: Float64Array): Task<Float64Array> {
  const out = new Float64Array(groupOf.length);
  yield* inStretches(out.length, (begin, end) => {
    for (let i = begin; i < end; i++) out[i] = groupOf[i] < 0 ? NaN : values[groupOf[i]];
  });
  return out;
}

function* pickText(
  source: TextColumn,
  pick: Int32Array,
  groupOf: Int32Array,
  facts: { id: string; name: string },
): Task<TextColumn> {
  const codes = new Int32Array(groupOf.length);
  yield* inStretches(codes.length, (begin, end) => {
    for (let i = begin; i < end; i++) {
      const g = groupOf[i];
      codes[i] = g < 0 ? -1 : source.codes[pick[g]];
    }
  });
  return { ...source, ...facts, codes };
}

function* pickScalar(
  source: ScalarColumn,
  pick: Int32Array,
  groupOf: Int32Array,
  facts: { id: string; name: string },
): Task<ScalarColumn> {
  const unread = new Map<number, string>();
  if (source.unread.size > 0)
    yield* inStretches(groupOf.length, (begin, end) => {
      for (let i = begin; i < end; i++) {
        const text = groupOf[i] < 0 ? undefined : source.unread.get(pick[groupOf[i]]);
        if (text !== undefined) unread.set(i, text);
      }
    });
  const picked = new Float64Array(pick.length);
  for (let g = 0; g < picked.length; g++) picked[g] = source.values[pick[g]];
  return { ...source, ...facts, unread, values: yield* pickedBy(groupOf, picked) };
}
