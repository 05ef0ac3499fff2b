import { parquetMetadata, parquetRead, type FileMetaData, type SchemaElement } from 'hyparquet';
import { compressors } from 'hyparquet-compressors';
import { IntakeError } from '../../errors';
import type { Column, ColumnType } from '../../table/column';
import type { Table } from '../../table/table';
import { columnIds } from '../infer';
import { decimalText, exactValues, signedOfBytes } from './exactDecimal';
import { tooLarge } from './faults';
import { checkRuns } from './parquetRuns';
import { scalarOf, textOf } from './typedColumn';

const damaged = (why: string): IntakeError =>
  new IntakeError('form', `The Parquet file cannot be read: ${why}.`);

/** Days, milliseconds and texts in place of objects for each value. */
const PARSERS = {
  dateFromDays: (days: number) => days,
  timestampFromMilliseconds: (ms: bigint) => Number(ms),
  timestampFromMicroseconds: (us: bigint) => Number(us) / 1000,
  timestampFromNanoseconds: (ns: bigint) => Number(ns / 1000n) / 1000,
};

/**
 * A Parquet file as a table, with its own types: nothing is guessed. Nested fields are the text of their
 * JSON; whole numbers beyond those a double holds stay text with all of their digits.
 * @param limit bytes that its columns may take
 * @throws IntakeError
 */
export async function parquetTable(bytes: Uint8Array, limit: number): Promise<Table> {
  // Memory of its own, from its start: what a program hands over may be a part of a larger one.
  const file = new Uint8Array(bytes).buffer;
  let metadata: FileMetaData;
  try {
    metadata = parquetMetadata(file);
  } catch (error) {
    throw damaged(words(error));
  }
  const fields = topFields(metadata.schema);
  const length = Number(metadata.num_rows);
  if (fields.length === 0) throw new IntakeError('noColumns', 'The Parquet file has no columns.');
  if (!Number.isSafeInteger(length) || length < 0) throw damaged('its number of records is none');
  if (length * fields.length * 8 > limit) throw tooLarge(limit);
  try {
    checkRuns(new Uint8Array(file), metadata);
  } catch (error) {
    throw damaged(words(error));
  }
  plainDecimals(metadata.schema);
  const raw = new Map(fields.map(({ name }) => [name, new Array<unknown>(length).fill(null)]));
  const filled = new Map<string, number>();
  try {
    let rowStart = 0;
    for (const { num_rows: rows } of metadata.row_groups) {
      const rowEnd = rowStart + Number(rows);
      // One column of one group at a time: a fault in one leaves no other under way.
      for (const { name, places } of fields)
        await parquetRead({
          file,
          metadata,
          compressors,
          parsers: PARSERS,
          columns: [name],
          // Bytes of decimals are numbers, not texts.
          utf8: places === undefined,
          rowStart,
          rowEnd,
          onChunk({ columnName, columnData, rowStart: from, rowEnd: to }) {
            const values = raw.get(columnName);
            if (!values || to > length) return;
            for (let i = from; i < to; i++) values[i] = columnData[i - from];
            filled.set(columnName, (filled.get(columnName) ?? 0) + to - from);
          },
        });
      rowStart = rowEnd;
    }
  } catch (error) {
    throw damaged(words(error));
  }
  const short = fields.find(({ name }) => filled.get(name) !== length);
  if (short && length) throw damaged(`the column “${short.name}” is not whole`);
  const ids = columnIds(fields.map(({ name }) => name));
  const columns = fields.map((field, c): Column =>
    columnOf(field, ids[c], raw.get(field.name) ?? []),
  );
  return { length, columns };
}

const words = (error: unknown): string => (error instanceof Error ? error.message : String(error));

interface Field {
  readonly name: string;
  readonly type: ColumnType;
  /** What a value of it is multiplied by, to milliseconds. */
  readonly scale: number;
  /** Decimals only: digits behind the mark. */
  readonly places?: number;
  /** Moments only: they are told in UTC, whatever clock they were made by. */
  readonly utc?: boolean;
}

/** The columns below the root; one that holds others is text. */
function topFields(schema: readonly SchemaElement[]): Field[] {
  const out: Field[] = [];
  const skip = (at: number): number => {
    let next = at + 1;
    for (let n = schema[at]?.num_children ?? 0; n > 0 && next < schema.length; n--)
      next = skip(next);
    return next;
  };
  for (let at = 1; at < schema.length; at = skip(at)) {
    const element = schema[at];
    const repeated = element.repetition_type === 'REPEATED' || Boolean(element.num_children);
    out.push({ name: element.name, ...(repeated ? TEXT : typeOf(element)) });
  }
  return out;
}

/** Decimals are read as the whole numbers that they are stored as: the library would take them through doubles. */
function plainDecimals(schema: SchemaElement[]): void {
  schema.forEach((element, at) => {
    if (!isDecimal(element)) return;
    const { converted_type: _, logical_type: __, ...plain } = element;
    schema[at] = plain;
  });
}

/** By its logical type alone as well. */
const isDecimal = ({ converted_type, logical_type }: SchemaElement): boolean =>
  converted_type === 'DECIMAL' || logical_type?.type === 'DECIMAL';

const TEXT = { type: 'text', scale: 1 } as const;

function typeOf(element: SchemaElement): Omit<Field, 'name'> {
  const { type, converted_type: converted, logical_type: logical } = element;
  if (isDecimal(element)) {
    const places = logical?.type === 'DECIMAL' ? logical.scale : (element.scale ?? 0);
    return { type: 'number', scale: 1, places };
  }
  if (converted === 'DATE' || logical?.type === 'DATE') return { type: 'date', scale: 1 };
  if (type === 'INT96' || converted?.startsWith('TIMESTAMP') || logical?.type === 'TIMESTAMP')
    return {
      type: 'datetime',
      scale: 1,
      utc: logical?.type === 'TIMESTAMP' && logical.isAdjustedToUTC,
    };
  if (logical?.type === 'TIME')
    return { type: 'time', scale: { MILLIS: 1, MICROS: 1e-3, NANOS: 1e-6 }[logical.unit] };
  if (converted === 'TIME_MILLIS') return { type: 'time', scale: 1 };
  if (converted === 'TIME_MICROS') return { type: 'time', scale: 1e-3 };
  if (type === 'BOOLEAN') return { type: 'yesno', scale: 1 };
  const half = logical?.type === 'FLOAT16';
  if (half || type === 'INT32' || type === 'INT64' || type === 'FLOAT' || type === 'DOUBLE')
    return { type: 'number', scale: 1 };
  return TEXT;
}

function columnOf(
  { name, type, scale, places, utc }: Field,
  id: string,
  raw: readonly unknown[],
): Column {
  const text = (i: number): string | null => textOfValue(raw[i]);
  if (type === 'text') return textOf({ id, name }, raw.length, text);
  if (places !== undefined) {
    const exact = exactValues(raw.length, (i) => {
      const unscaled = wholeOf(raw[i]);
      return unscaled === null ? null : decimalText(unscaled, places);
    });
    return scalarOf({ id, name }, type, exact.values, exact.unread);
  }
  const values = new Float64Array(raw.length);
  const unread = new Map<number, string>();
  for (let i = 0; i < raw.length; i++) {
    const value = raw[i];
    if (typeof value === 'bigint' && type === 'number' && !Number.isSafeInteger(Number(value)))
      return textOf({ id, name }, raw.length, text);
    values[i] = numberOf(value) * scale;
    if (typeof value === 'number' && !Number.isFinite(value)) unread.set(i, String(value));
  }
  const column = scalarOf({ id, name }, type, values, unread);
  return utc ? { ...column, unit: 'UTC' } : column;
}

/** The whole number that a decimal is stored as; null where there is none. */
function wholeOf(value: unknown): bigint | null {
  if (typeof value === 'bigint') return value;
  if (typeof value === 'number' && Number.isInteger(value)) return BigInt(value);
  return value instanceof Uint8Array ? signedOfBytes(value) : null;
}

/** A value as a number; days stay days, moments are milliseconds; none is NaN, as is what no number holds. */
function numberOf(value: unknown): number {
  if (typeof value === 'number') return Number.isFinite(value) ? value : NaN;
  if (typeof value === 'bigint' || typeof value === 'boolean') return Number(value);
  if (value instanceof Date) return value.getTime();
  return NaN;
}

function textOfValue(value: unknown): string | null {
  if (value === null || value === undefined) return null;
  if (typeof value === 'string') return value;
  if (value instanceof Date) return value.toISOString();
  if (value instanceof Uint8Array)
    return Array.from(value, (b) => b.toString(16).padStart(2, '0')).join('');
  if (typeof value === 'object')
    return JSON.stringify(value, (_, v: unknown) => (typeof v === 'bigint' ? String(v) : v));
  return String(value);
}
