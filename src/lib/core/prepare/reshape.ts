import { codesAsValues } from '../measure/valuesOf';
import { PrepareRefused } from '../errors';
import { columnsInSteps } from '../expression/columnFor';
import { fromMoments } from '../measure/fromMoments';
import { momentsOf } from '../measure/moments';
import { inStretches, STRIDE, type Task } from '../task/task';
import { fullCell } from '../table/cell';
import { isMissing, isText, type Column, type ScalarColumn } from '../table/column';
import type { Table } from '../table/table';
import type { ReshapeSpec } from './specs';

type Stack = Extract<ReshapeSpec, { do: 'stack' }>;
type Unstack = Extract<ReshapeSpec, { do: 'unstack' }>;

/** Records whose cells are made texts of between two pauses. */
const TEXTS = STRIDE >> 4;

/** @throws PrepareRefused, UnknownColumn */
export const reshape = (table: Table, spec: ReshapeSpec): Task<Table> =>
  spec.do === 'stack' ? stack(table, spec) : unstack(table, spec);

/**
 * One record for each record and stacked column, in the order of the records and then of the
 * columns; the other columns are repeated beside it.
 * @throws PrepareRefused where the stacked columns are of different types
 */
export function* stack(table: Table, spec: Stack): Task<Table> {
  const stacked = yield* columnsInSteps(table, spec.columns);
  const odd = stacked.find((c) => c.type !== stacked[0].type);
  if (odd)
    throw new PrepareRefused(
      `“${stacked[0].name}” and “${odd.name}” are of different types (${stacked[0].type}, ${odd.type}) and cannot stand in one column. Give them one type in the recipe, or stack them apart.`,
    );
  const rest = table.columns.filter((c) => !stacked.includes(c));
  const most = table.length * stacked.length;
  const [froms, whiches] = [new Int32Array(most), new Int32Array(most)];
  let length = 0;
  const place = (begin: number, end: number): void => {
    for (let i = begin; i < end; i++)
      for (let k = 0; k < stacked.length; k++) {
        if (spec.dropBlanks && isMissing(stacked[k], i)) continue;
        froms[length] = i;
        whiches[length++] = k;
      }
  };
  yield* inStretches(table.length, place, Math.max(1, Math.floor(STRIDE / stacked.length)));
  const [from, which] = [froms.subarray(0, length), whiches.subarray(0, length)];
  const names = stacked.map((c) => c.name);
  const taken = new Set(rest.map((c) => c.id));
  const repeated = yield* takingEach(rest, from);
  const values = yield* stackedValues(stacked, from, which);
  return {
    length,
    columns: [
      ...repeated,
      {
        id: freeId(spec.name, taken),
        name: spec.name,
        unit: '',
        type: 'text',
        codes: which.slice(),
        dictionary: names,
      },
      { ...values, id: freeId(spec.value, taken), name: spec.value },
    ],
  };
}

/** A column id made of a name that no other has yet. */
export function freeId(name: string, taken: Set<string>): string {
  let id = name;
  for (let n = 2; taken.has(id); n++) id = `${name} ${n}`;
  taken.add(id);
  return id;
}

/** A table of some records, in their order. */
export function* takingAll(table: Table, records: Int32Array): Task<Table> {
  return { length: records.length, columns: yield* takingEach(table.columns, records) };
}

function* takingEach(columns: readonly Column[], from: ArrayLike<number>): Task<Column[]> {
  const out: Column[] = [];
  for (const column of columns) out.push(yield* taking(column, from));
  return out;
}

/** A column's cells at these records, in this order. */
export function* taking(column: Column, from: ArrayLike<number>): Task<Column> {
  const { length } = from;
  if (isText(column)) {
    const codes = new Int32Array(length);
    yield* inStretches(length, (begin, end) => {
      for (let k = begin; k < end; k++) codes[k] = column.codes[from[k]];
    });
    return { ...column, codes };
  }
  const values = new Float64Array(length);
  const unread = new Map<number, string>();
  const anyUnread = column.unread.size > 0;
  yield* inStretches(length, (begin, end) => {
    for (let k = begin; k < end; k++) {
      values[k] = column.values[from[k]];
      const text = anyUnread ? column.unread.get(from[k]) : undefined;
      if (text !== undefined) unread.set(k, text);
    }
  });
  return { ...column, values, unread };
}

function* stackedValues(
  stacked: readonly Column[],
  from: Int32Array,
  which: Int32Array,
): Task<Column> {
  const [first] = stacked;
  if (isText(first)) {
    const known = new Map<string, number>();
    const codes = new Int32Array(from.length);
    const code = (begin: number, end: number): void => {
      for (let k = begin; k < end; k++) {
        const column = stacked[which[k]];
        if (isMissing(column, from[k])) {
          codes[k] = -1;
          continue;
        }
        const text = fullCell(column, from[k]);
        codes[k] = known.get(text) ?? known.size;
        known.set(text, codes[k]);
      }
    };
    yield* inStretches(from.length, code, TEXTS);
    return { ...first, codes, dictionary: [...known.keys()] };
  }
  const scalars = stacked.filter((c): c is ScalarColumn => !isText(c));
  const unread = new Map<number, string>();
  const values = new Float64Array(from.length);
  const anyUnread = scalars.some((c) => c.unread.size > 0);
  yield* inStretches(values.length, (begin, end) => {
    for (let k = begin; k < end; k++) {
      const { values: own, unread: texts } = scalars[which[k]];
      values[k] = own[from[k]];
      const text = anyUnread ? texts.get(from[k]) : undefined;
      if (text !== undefined) unread.set(k, text);
    }
  });
  return { ...first, values, unread, decimals: Math.max(...scalars.map((c) => c.decimals)) };
}

/** The most columns a list can have. */
const MOST_COLUMNS = 1000;

/**
 * One record for each combination of the other columns, with a column for each distinct text.
 * @throws PrepareRefused where two values fall together and no choice was made, or columns are too many
 */
export function* unstack(table: Table, spec: Unstack): Task<Table> {
  const [name, value] = yield* columnsInSteps(table, [spec.name, spec.value]);
  const rest = table.columns.filter((c) => c !== name && c !== value);
  /** By their texts; null: where the name is blank, which is not the text “blank”. */
  const heads = new Map<string | null, number[][]>();
  const rows = new Map<string, number>();
  const firsts: number[] = [];
  const place = (i: number): void => {
    const key = rest.map((c) => (isMissing(c, i) ? '\u0000' : fullCell(c, i))).join('\u001f');
    let row = rows.get(key);
    if (row === undefined) rows.set(key, (row = firsts.push(i) - 1));
    const head = isMissing(name, i) ? null : fullCell(name, i);
    let cells = heads.get(head);
    if (!cells) heads.set(head, (cells = []));
    const there = (cells[row] ??= []);
    if (!isMissing(value, i) || !isText(value)) there.push(i);
    if (there.length > 1 && spec.repeated === undefined)
      throw new PrepareRefused(
        `Records ${there[0] + 1} and ${i + 1} both have a value for “${head ?? 'blank'}”. Choose the first, the last or a measure of them (repeated).`,
      );
  };
  yield* inStretches(
    table.length,
    (begin, end) => {
      for (let i = begin; i < end; i++) place(i);
    },
    TEXTS,
  );
  if (rest.length + heads.size > MOST_COLUMNS)
    throw new PrepareRefused(
      `“${name.name}” has ${heads.size} distinct values; with them the list would have over ${MOST_COLUMNS} columns.`,
    );
  const taken = new Set(rest.map((c) => c.id));
  const columns = yield* takingEach(rest, firsts);
  for (const [head, cells] of heads) {
    const title = head ?? (heads.has('blank') ? `${name.name} blank` : 'blank');
    columns.push({
      ...(yield* unstacked(value, cells, firsts.length, spec.repeated ?? 'first')),
      id: freeId(title, taken),
      name: title,
    });
    yield undefined;
  }
  return { length: firsts.length, columns };
}

function* unstacked(
  value: Column,
  cells: readonly number[][],
  length: number,
  how: NonNullable<Unstack['repeated']>,
): Task<Column> {
  const at = (row: number): number[] => cells[row] ?? [];
  if (how === 'first' || how === 'last') {
    const pick = new Int32Array(length);
    for (let row = 0; row < length; row++)
      pick[row] = (how === 'first' ? at(row)[0] : at(row)[at(row).length - 1]) ?? -1;
    if (isText(value)) return { ...value, codes: pick.map((i) => (i < 0 ? -1 : value.codes[i])) };
    const unread = new Map<number, string>();
    pick.forEach((i, row) => {
      const text = value.unread.get(i);
      if (text !== undefined) unread.set(row, text);
    });
    const values = new Float64Array(length);
    for (let row = 0; row < length; row++)
      values[row] = pick[row] < 0 ? NaN : value.values[pick[row]];
    return { ...value, unread, values };
  }
  if (isText(value) && how !== 'values')
    throw new PrepareRefused(`“${value.name}” is text and has no ${how}.`);
  const values = isText(value) ? yield* codesAsValues(value) : value.values;
  const figures = new Float64Array(length).fill(NaN);
  for (let row = 0; row < length; row++)
    if (at(row).length) {
      const moments = yield* momentsOf(values, Int32Array.from(at(row)), false);
      figures[row] = fromMoments(how, moments, 0) ?? NaN;
    }
  return {
    id: '',
    name: '',
    unit: how === 'values' || isText(value) ? '' : value.unit,
    type: how === 'values' || isText(value) ? 'number' : value.type,
    values: figures,
    unread: new Map(),
    decimals: isText(value) || how === 'values' ? 0 : value.decimals,
    percent: false,
    grain: 'day',
  };
}
