import {
  Bool,
  DateDay,
  Dictionary,
  Field,
  Float64,
  Int32,
  makeData,
  RecordBatch,
  Schema,
  Struct,
  Table as ArrowTable,
  tableToIPC,
  TimeMillisecond,
  TimestampMillisecond,
  Utf8,
  vectorFromArray,
  type Data,
  type DataType,
} from 'apache-arrow';

import { isText, type Column, type ScalarColumn, type ScalarType, type TextColumn } from './column';
import type { Table } from './table';

import { CHUNK_RECORDS, type Facts } from './arrowFacts';

const arrowTypes: Record<ScalarType, () => DataType> = {
  number: () => new Float64(),
  date: () => new DateDay(),
  datetime: () => new TimestampMillisecond(),
  time: () => new TimeMillisecond(),
  yesno: () => new Bool(),
};

export const chunkCount = (table: Table): number =>
  Math.max(1, Math.ceil(table.length / CHUNK_RECORDS));

/** Chunk `n` of a table as an Arrow IPC stream. Text is dictionary-encoded within the chunk. */
export function encodeChunk(table: Table, n: number): Uint8Array {
  const from = n * CHUNK_RECORDS;
  return encodeRecords(table, from, Math.min(table.length, from + CHUNK_RECORDS));
}

/** Records of a table from a place up to another as an Arrow IPC stream, as a chunk is. */
export const encodeRecords = (table: Table, from: number, to: number): Uint8Array =>
  tableToIPC(arrowOf(table, from, to), 'stream');

/** A whole table as an Arrow IPC file, which other programs read with its types. */
export const encodeFile = (table: Table): Uint8Array =>
  tableToIPC(arrowOf(table, 0, table.length), 'file');

function arrowOf(table: Table, from: number, to: number): ArrowTable {
  const parts = table.columns.map((column) =>
    isText(column) ? encodeText(column, from, to) : encodeScalar(column, from, to),
  );
  const schema = new Schema(parts.map((p) => p.field));
  const struct = makeData({
    type: new Struct(parts.map((p) => p.field)),
    length: to - from,
    nullCount: 0,
    children: parts.map((p) => p.data),
  });
  return new ArrowTable(schema, new RecordBatch(schema, struct));
}

interface Encoded {
  field: Field;
  data: Data;
}

const fieldOf = (column: Column, type: DataType, facts: Facts): Field =>
  new Field(column.name, type, true, new Map([['tally-loft', JSON.stringify(facts)]]));

/** Validity bits: 1 where there is a value. */
function validity(
  length: number,
  isThere: (i: number) => boolean,
): { bits: Uint8Array; nulls: number } {
  const bits = new Uint8Array((length + 7) >>> 3);
  let nulls = 0;
  for (let i = 0; i < length; i++)
    if (isThere(i)) bits[i >>> 3] |= 1 << (i & 7);
    else nulls++;
  return { bits, nulls };
}

function encodeScalar(column: ScalarColumn, from: number, to: number): Encoded {
  const values = column.values.subarray(from, to);
  const { bits, nulls } = validity(values.length, (i) => values[i] === values[i]);
  const type = arrowTypes[column.type]();
  const unread: [number, string][] = [];
  for (const [record, text] of column.unread)
    if (record >= from && record < to) unread.push([record - from, text]);
  const { id, unit, decimals, percent, grain, calendar } = column;
  return {
    field: fieldOf(column, type, {
      id,
      unit,
      type: column.type,
      decimals,
      percent,
      grain,
      ...(calendar && { calendar }),
      unread,
    }),
    data: makeData({
      type,
      length: values.length,
      nullCount: nulls,
      nullBitmap: bits,
      data: storage(column.type, values),
    } as never),
  };
}

function storage(type: ScalarType, values: Float64Array): ArrayBufferView {
  switch (type) {
    case 'number':
      return values.map((v) => (v === v ? v : 0));
    case 'date':
    case 'time':
      return Int32Array.from(values.map((v) => (v === v ? v : 0)));
    case 'datetime':
      return BigInt64Array.from(values as unknown as number[], (v: number) =>
        BigInt(v === v ? Math.round(v) : 0),
      );
    case 'yesno':
      return validity(values.length, (i) => values[i] === 1).bits;
  }
}

function encodeText(column: TextColumn, from: number, to: number): Encoded {
  const local = new Map<number, number>();
  const texts: string[] = [];
  const codes = new Int32Array(to - from);
  for (let i = from; i < to; i++) {
    const code = column.codes[i];
    if (code < 0) continue;
    let at = local.get(code);
    if (at === undefined) {
      local.set(code, (at = texts.length));
      texts.push(column.dictionary[code]);
    }
    codes[i - from] = at;
  }
  const { bits, nulls } = validity(codes.length, (i) => column.codes[from + i] >= 0);
  const type = new Dictionary(new Utf8(), new Int32());
  const dictionary = vectorFromArray(texts.length ? texts : [''], new Utf8());
  return {
    field: fieldOf(column, type, {
      id: column.id,
      unit: column.unit,
      type: 'text',
      decimals: 0,
      percent: false,
      grain: 'day',
      unread: [],
    }),
    data: makeData({
      type,
      length: codes.length,
      nullCount: nulls,
      nullBitmap: bits,
      data: codes,
      dictionary,
    }),
  };
}
