import type { Calendar, CalendarPeriod } from './period';

/**
 * Columns: the only form in which records are held. A missing value (blank or unread) is NaN in a
 * scalar column and code -1 in a text column: one comparison on a value that is loaded anyway,
 * where a bitmap would cost a second load. Arrow's validity bitmaps carry it in storage.
 */

/** Column types that hold one float64 a record. */
export const SCALAR_TYPES = ['number', 'date', 'datetime', 'time', 'yesno'] as const;
export const COLUMN_TYPES = ['text', ...SCALAR_TYPES] as const;
export type ScalarType = (typeof SCALAR_TYPES)[number];
export type ColumnType = (typeof COLUMN_TYPES)[number];

/** What an analyst calls them. */
export const typeName: Record<ColumnType, string> = {
  text: 'text',
  number: 'number',
  date: 'date',
  datetime: 'date and time',
  time: 'time of day',
  yesno: 'yes or no',
};

/** Types as a sentence says what a column is: `“Delay” is a number`. */
export const TYPE_PHRASES: Readonly<Record<ColumnType, string>> = {
  text: 'text',
  number: 'a number',
  date: 'a date',
  datetime: 'a date with time',
  time: 'a time',
  yesno: 'yes/no',
};

/** The span that one value of a date column of a file covers. */
export const GRAINS = ['day', 'month', 'quarter', 'year'] as const;
export type Grain = (typeof GRAINS)[number];

interface ColumnFacts {
  /** Stable within a list; never shown. */
  readonly id: string;
  readonly name: string;
  /** Written in the column's head: `min`, `£`, `people`. Empty when there is none. */
  readonly unit: string;
}

/**
 * number: the value; percent as a fraction. date: days since 1970-01-01. datetime: milliseconds
 * since 1970-01-01T00:00 by the clock written in the file. time: milliseconds since midnight.
 * yesno: 1 or 0. NaN: missing.
 */
export interface ScalarColumn extends ColumnFacts {
  readonly type: ScalarType;
  readonly values: Float64Array;
  /** Text of the cells that could not be read, by record. */
  readonly unread: ReadonlyMap<number, string>;
  /** Decimals seen in the file, so that values show as they came. */
  readonly decimals: number;
  readonly percent: boolean;
  /** What a date stands for: a whole month is written and compared as a month, not as its first day. */
  readonly grain: CalendarPeriod;
  /** Where the years and weeks of such a span begin, unless as usual. */
  readonly calendar?: Calendar;
}

/** Dictionary text: `dictionary[codes[i]]`; code -1 is blank. Entries are distinct. */
export interface TextColumn extends ColumnFacts {
  readonly type: 'text';
  readonly codes: Int32Array;
  readonly dictionary: readonly string[];
}

export type Column = ScalarColumn | TextColumn;

export const isText = (column: Column): column is TextColumn => column.type === 'text';

export const isMissing = (column: Column, record: number): boolean =>
  isText(column) ? column.codes[record] < 0 : Number.isNaN(column.values[record]);

export const isUnread = (column: Column, record: number): boolean =>
  !isText(column) && column.unread.has(record);

/** Whether values of this type can be summed and averaged. */
export const isNumeric = (column: Column): column is ScalarColumn =>
  column.type === 'number' || column.type === 'yesno';

/** Bytes the values take, without the dictionary's strings. */
export const columnBytes = (column: Column): number =>
  isText(column) ? column.codes.byteLength : column.values.byteLength;

/** A scalar column from plain values; `null` is blank. For tests and small results. */
export function scalarColumn(
  name: string,
  type: ScalarType,
  values: readonly (number | null)[],
  facts: Partial<
    Pick<ScalarColumn, 'id' | 'unit' | 'unread' | 'decimals' | 'percent' | 'grain' | 'calendar'>
  > = {},
): ScalarColumn {
  return {
    id: name,
    name,
    unit: '',
    unread: new Map(),
    decimals: 0,
    percent: false,
    grain: 'day',
    ...facts,
    type,
    values: Float64Array.from(values, (v) => v ?? NaN),
  };
}

/** A text column from plain values; `null` is blank. For tests and small results. */
export function textColumn(
  name: string,
  values: readonly (string | null)[],
  id = name,
): TextColumn {
  const known = new Map<string, number>();
  const codes = Int32Array.from(values, (v) => {
    if (v === null) return -1;
    let code = known.get(v);
    if (code === undefined) known.set(v, (code = known.size));
    return code;
  });
  return { id, name, unit: '', type: 'text', codes, dictionary: [...known.keys()] };
}
