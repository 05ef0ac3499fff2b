import { DataType, DateUnit, tableFromIPC, TimeUnit, type Field, type Vector } from 'apache-arrow';
import { BadArrow, IntakeError } from '../../errors';
import { checkArrow, checkArrowFile, isArrowFile } from '../../table/arrowCheck';
import { DAY_MS } from '../../table/calendar';
import { isText, type Column, type ScalarType } from '../../table/column';
import { factsIn } from '../../table/arrowFacts';
import type { Table } from '../../table/table';
import { columnIds } from '../infer';
import { withPacked } from './arrowPacked';
import { decimalText, exactValues, signedOfWords, type ExactValues } from './exactDecimal';
import { tooLarge } from './faults';
import { scalarOf, textOf } from './typedColumn';

/**
 * An Arrow IPC file or stream as a table, with its own types: nothing is guessed. Lists and structures
 * are the text of their JSON; whole numbers beyond those a double holds stay text.
 * @param limit bytes that its columns may take
 * @throws IntakeError
 */
export function arrowTable(bytes: Uint8Array, limit: number): Table {
  try {
    const { packed } = isArrowFile(bytes) ? checkArrowFile(bytes) : checkArrow(bytes);
    if (packed.reduce((sum, size) => sum + size, 0) > limit) throw tooLarge(limit);
    // Memory of its own: values lie at places that numbers need.
    const arrow = withPacked(packed, () => tableFromIPC(new Uint8Array(bytes)));
    const { fields } = arrow.schema;
    if (fields.length === 0) throw new IntakeError('noColumns', 'The Arrow file has no columns.');
    if (arrow.numRows * fields.length * 8 > limit) throw tooLarge(limit);
    const ids = columnIds(fields.map(({ name }) => name));
    const columns = fields.map(({ name }, c): Column => {
      const vector = arrow.getChildAt(c);
      if (!vector) throw new BadArrow(`The column “${name}” is missing.`);
      return withFacts(columnOf(vector, { id: ids[c], name }), fields[c]);
    });
    return { length: arrow.numRows, columns };
  } catch (error) {
    if (error instanceof IntakeError) throw error;
    throw new IntakeError(
      'form',
      `The Arrow file cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

/** What a file of our own says of a column besides its type. */
function withFacts(column: Column, { metadata }: Field): Column {
  const facts = factsIn(metadata.get('tally-loft'));
  if (!facts) return column;
  const { unit, decimals, percent, grain, calendar, unread } = facts;
  if (isText(column)) return { ...column, unit };
  return {
    ...column,
    unit,
    decimals,
    percent,
    grain,
    unread: new Map([
      ...column.unread,
      ...unread.filter(([place]) => place < column.values.length),
    ]),
    ...(calendar && { calendar }),
  };
}

function columnOf(vector: Vector, named: { id: string; name: string }): Column {
  const { length } = vector;
  if (DataType.isDecimal(vector.type)) {
    const { scale } = vector.type;
    const exact = exactValues(length, (i) => {
      const words: unknown = vector.get(i);
      return words instanceof Uint32Array ? decimalText(signedOfWords(words), scale) : null;
    });
    return scalarOf(named, 'number', exact.values, exact.unread);
  }
  const found = scalarType(vector.type);
  if (found) {
    const numbers = numbersOf(vector, found.scale);
    if (numbers) {
      const column = scalarOf(named, found.type, numbers.values, numbers.unread);
      // Moments with a zone are kept as moments: they are told in UTC.
      const zoned = DataType.isTimestamp(vector.type) && Boolean(vector.type.timezone);
      return zoned ? { ...column, unit: 'UTC' } : column;
    }
  }
  return textOf(named, length, (i) => {
    const value: unknown = vector.get(i);
    if (value === null || value === undefined) return null;
    return typeof value === 'object' ? JSON.stringify(value, bigAsText) : String(value);
  });
}

const bigAsText = (_: string, value: unknown): unknown =>
  typeof value === 'bigint' ? String(value) : value;

/** The type of a column of ours, and what its stored values are multiplied by to days or milliseconds. */
function scalarType(type: DataType): { type: ScalarType; scale: number } | null {
  if (DataType.isBool(type)) return { type: 'yesno', scale: 1 };
  if (DataType.isInt(type) || DataType.isFloat(type)) return { type: 'number', scale: 1 };
  if (DataType.isDate(type))
    return type.unit === DateUnit.DAY
      ? { type: 'date', scale: 1 }
      : { type: 'date', scale: 1 / DAY_MS };
  if (DataType.isTime(type)) return { type: 'time', scale: MS[type.unit] };
  if (DataType.isTimestamp(type)) return { type: 'datetime', scale: MS[type.unit] };
  return null;
}

const MS: Readonly<Record<TimeUnit, number>> = {
  [TimeUnit.SECOND]: 1000,
  [TimeUnit.MILLISECOND]: 1,
  [TimeUnit.MICROSECOND]: 1e-3,
  [TimeUnit.NANOSECOND]: 1e-6,
};

/**
 * The stored values, nulls NaN; not-a-number and infinity are unread. Null where one is a whole number that no
 * double holds.
 */
function numbersOf(vector: Vector, scale: number): ExactValues | null {
  const out = new Float64Array(vector.length);
  const unread = new Map<number, string>();
  let at = 0;
  for (const data of vector.data) {
    const bool = DataType.isBool(data.type);
    const half = DataType.isFloat(data.type) && data.type.precision === 0;
    const raw: ArrayLike<number | bigint> = data.values;
    const bits = data.nullCount > 0 ? data.nullBitmap : null;
    for (let i = 0; i < data.length; i++, at++) {
      const bit = data.offset + i;
      if (bits && !((bits[bit >> 3] >> (bit & 7)) & 1)) {
        out[at] = NaN;
        continue;
      }
      const value = bool
        ? (Number(raw[bit >> 3]) >> (bit & 7)) & 1
        : half
          ? Number(vector.get(at))
          : Number(raw[i]);
      if (typeof raw[i] === 'bigint' && scale === 1 && !Number.isSafeInteger(value)) return null;
      out[at] = Number.isFinite(value) ? value * scale : NaN;
      if (!Number.isFinite(value)) unread.set(at, String(value));
    }
  }
  return { values: out, unread };
}
