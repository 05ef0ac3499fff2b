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
  tableFromIPC,
  tableToIPC,
  TimeMillisecond,
  TimestampMillisecond,
  Utf8,
  vectorFromArray,
  type Data,
  type DataType,
} from 'apache-arrow';
import { z } from 'zod';
import {
  GRAINS,
  isText,
  SCALAR_TYPES,
  type Column,
  type ScalarColumn,
  type ScalarType,
  type TextColumn,
} from './column';
import type { Table } from './table';

/** Records in one chunk: small enough to send and store at once, large enough to be quick. */
export const CHUNK_RECORDS = 65_536;

/** What a column is, carried in its Arrow field's metadata. */
const Facts = z.object({
  id: z.string().min(1).max(80),
  unit: z.string().max(40),
  type: z.enum(['text', ...SCALAR_TYPES]),
  decimals: z.int().min(0).max(12).default(0),
  percent: z.boolean().default(false),
  grain: z.enum(GRAINS).default('day'),
  /** Unread cells of this chunk: place within it and text. */
  unread: z.array(z.tuple([z.int().min(0), z.string()])).default([]),
});
type Facts = z.infer<typeof Facts>;

/** Arrow data that is not a list of ours. */
export class BadArrow extends Error {
  override name = 'BadArrow';
}

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
  const to = Math.min(table.length, from + CHUNK_RECORDS);
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
  return tableToIPC(new ArrowTable(schema, new RecordBatch(schema, struct)), 'stream');
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
  const { id, unit, decimals, percent, grain } = column;
  return {
    field: fieldOf(column, type, { id, unit, type: column.type, decimals, percent, grain, unread }),
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
      return Int32Array.from(values, (v) => (v === v ? v : 0));
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

/** Puts chunks together to a table, in order. */
export class TableAssembler {
  #columns: ColumnAssembler[] | null = null;
  #length = 0;

  /** @param records how many records the chunks hold together */
  constructor(readonly records: number) {}

  /** @throws BadArrow when the bytes are not a chunk like those before it */
  push(bytes: Uint8Array): void {
    const arrow = readArrow(bytes);
    if (arrow.schema.fields.length === 0) throw new BadArrow('The data holds no columns.');
    const columns = (this.#columns ??= arrow.schema.fields.map((field) =>
      newAssembler(field, this.records),
    ));
    if (
      columns.length !== arrow.schema.fields.length ||
      this.#length + arrow.numRows > this.records
    )
      throw new BadArrow('A chunk does not match the chunks before it.');
    columns.forEach((column, c) => {
      for (const data of arrow.getChildAt(c)?.data ?? [])
        column.push(data as Data, arrow.schema.fields[c]);
    });
    this.#length += arrow.numRows;
  }

  finish(): Table {
    if (this.#length !== this.records)
      throw new BadArrow(`The chunks hold ${this.#length} records, not ${this.records}.`);
    return { length: this.records, columns: (this.#columns ?? []).map((c) => c.finish()) };
  }
}

function readArrow(bytes: Uint8Array): ArrowTable {
  try {
    return tableFromIPC(bytes);
  } catch {
    throw new BadArrow('The data is not an Arrow IPC stream.');
  }
}

function factsOf(field: Field): Facts {
  const text = field.metadata.get('tally-loft');
  if (text === undefined) throw new BadArrow(`Column ${field.name} does not say what it is.`);
  const facts = Facts.safeParse(JSON.parse(text));
  if (!facts.success) throw new BadArrow(`Column ${field.name} is not described rightly.`);
  return facts.data;
}

interface ColumnAssembler {
  push(data: Data, field: Field): void;
  finish(): Column;
}

function newAssembler(field: Field, records: number): ColumnAssembler {
  return factsOf(field).type === 'text'
    ? new TextAssembler(field, records)
    : new ScalarAssembler(field, records);
}

const isNull = (data: Data, i: number): boolean =>
  data.nullCount > 0 &&
  data.nullBitmap !== undefined &&
  ((data.nullBitmap[(data.offset + i) >>> 3] >>> ((data.offset + i) & 7)) & 1) === 0;

class ScalarAssembler implements ColumnAssembler {
  readonly #facts: Facts;
  readonly #values: Float64Array;
  readonly #unread = new Map<number, string>();
  #at = 0;
  #decimals = 0;

  constructor(
    readonly field: Field,
    records: number,
  ) {
    this.#facts = factsOf(field);
    this.#values = new Float64Array(records);
  }

  push(data: Data, field: Field): void {
    const facts = factsOf(field);
    if (facts.type !== this.#facts.type)
      throw new BadArrow(`Column ${field.name} changes its type.`);
    this.#decimals = Math.max(this.#decimals, facts.decimals);
    for (const [place, text] of facts.unread) this.#unread.set(this.#at + place, text);
    const values: ArrayLike<number | bigint> = data.values;
    const bool = facts.type === 'yesno';
    for (let i = 0; i < data.length; i++)
      this.#values[this.#at + i] = isNull(data, i)
        ? NaN
        : bool
          ? (Number(values[(data.offset + i) >>> 3]) >>> ((data.offset + i) & 7)) & 1
          : Number(values[i]);
    this.#at += data.length;
  }

  finish(): Column {
    const { id, unit, percent, grain, type } = this.#facts;
    if (type === 'text') throw new BadArrow('A text column cannot hold numbers.');
    return {
      id,
      name: this.field.name,
      unit,
      type,
      values: this.#values,
      unread: this.#unread,
      decimals: this.#decimals,
      percent,
      grain,
    };
  }
}

class TextAssembler implements ColumnAssembler {
  readonly #facts: Facts;
  readonly #codes: Int32Array;
  readonly #known = new Map<string, number>();
  #at = 0;

  constructor(
    readonly field: Field,
    records: number,
  ) {
    this.#facts = factsOf(field);
    this.#codes = new Int32Array(records);
  }

  push(data: Data, field: Field): void {
    const { dictionary } = data;
    if (!dictionary || factsOf(field).type !== 'text')
      throw new BadArrow(`Column ${field.name} is not dictionary text.`);
    const remap = new Int32Array(dictionary.length);
    for (let d = 0; d < dictionary.length; d++) {
      const text = String(dictionary.get(d) ?? '');
      let code = this.#known.get(text);
      if (code === undefined) this.#known.set(text, (code = this.#known.size));
      remap[d] = code;
    }
    const codes: ArrayLike<number> = data.values;
    for (let i = 0; i < data.length; i++)
      this.#codes[this.#at + i] = isNull(data, i) ? -1 : remap[codes[i]];
    this.#at += data.length;
  }

  finish(): Column {
    return {
      id: this.#facts.id,
      name: this.field.name,
      unit: this.#facts.unit,
      type: 'text',
      codes: this.#codes,
      dictionary: [...this.#known.keys()],
    };
  }
}
