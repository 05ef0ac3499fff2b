// Each from its own file: the package as a whole would bring its writers to the page's first script.
import type { Data } from 'apache-arrow/data';
import { RecordBatchReader } from 'apache-arrow/ipc/reader';
import type { Field } from 'apache-arrow/schema';
import { Table as ArrowTable } from 'apache-arrow/table';
import { DataType } from 'apache-arrow/type';
import { BadArrow } from '../errors';

import { type Column } from './column';
import type { Table } from './table';

import { checkPlainArrow } from './arrowCheck';
import { Facts } from './arrowFacts';

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

/** The table of all its chunks. @throws BadArrow */
export function tableOfChunks(chunks: Iterable<Uint8Array>, records: number): Table {
  const assembler = new TableAssembler(records);
  for (const chunk of chunks) assembler.push(chunk);
  return assembler.finish();
}

/** Records of a chunk. @throws BadArrow where the bytes are none */
export const recordsIn = (bytes: Uint8Array): number => readArrow(bytes).numRows;

function readArrow(bytes: Uint8Array): ArrowTable {
  checkPlainArrow(bytes);
  try {
    return new ArrowTable(RecordBatchReader.from(bytes).readAll());
  } catch {
    throw new BadArrow('The data is not an Arrow IPC stream.');
  }
}

function factsOf(field: Field): Facts {
  const text = field.metadata.get('tally-loft');
  if (text === undefined) throw new BadArrow(`Column ${field.name} does not say what it is.`);
  const facts = Facts.safeParse(parsed(text));
  if (!facts.success) throw new BadArrow(`Column ${field.name} is not described rightly.`);
  return facts.data;
}

/** What a JSON text says, or null where it is none. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Bytes of memory that a place of a column's values must have. */
const WIDTHS: Partial<Record<Column['type'], number>> = { yesno: 1 / 8 };

/** A column's parts are as long as it says. @throws BadArrow */
function checkData(data: Data, { type, unread }: Facts, name: string): void {
  const wrong = (what: string): BadArrow => new BadArrow(`Column ${name} is damaged: ${what}.`);
  const { length, offset, values, nullBitmap, nullCount } = data;
  const places: unknown = values;
  if (!ArrayBuffer.isView(places)) throw wrong('it has no values');
  const room = 'length' in places ? Number(places.length) : 0;
  if (room < Math.ceil((offset + length) * (WIDTHS[type] ?? 1))) throw wrong('values are missing');
  if (nullCount > 0 && (nullBitmap?.length ?? 0) < Math.ceil((offset + length) / 8))
    throw wrong('it does not say which values are there');
  for (const [place] of unread) if (place >= length) throw wrong('an unread cell lies outside');
}

/** Texts lie one behind the other within their bytes. @throws BadArrow */
function checkTexts({ length, valueOffsets, values }: Data, name: string): void {
  const ends: ArrayLike<number> = valueOffsets;
  const bytes: ArrayLike<number> = values;
  const room = bytes?.length ?? 0;
  let whole = length === 0 || (ends?.length ?? 0) > length;
  for (let k = 0; whole && k < length; k++)
    whole = ends[k] >= 0 && ends[k] <= ends[k + 1] && ends[k + 1] <= room;
  if (!whole)
    throw new BadArrow(`Column ${name} is damaged: a text of its dictionary lies outside.`);
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
    checkData(data, facts, field.name);
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
    const { id, unit, percent, grain, calendar, type } = this.#facts;
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
      ...(calendar && { calendar }),
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
    const facts = factsOf(field);
    if (!dictionary || facts.type !== 'text' || DataType.isUtf8(dictionary.type) === false)
      throw new BadArrow(`Column ${field.name} is not dictionary text.`);
    checkData(data, facts, field.name);
    for (const part of dictionary.data) checkTexts(part, field.name);
    const remap = new Int32Array(dictionary.length);
    for (let d = 0; d < dictionary.length; d++) {
      const text = String(dictionary.get(d) ?? '');
      let code = this.#known.get(text);
      if (code === undefined) this.#known.set(text, (code = this.#known.size));
      remap[d] = code;
    }
    const codes: ArrayLike<number> = data.values;
    for (let i = 0; i < data.length; i++) {
      if (isNull(data, i)) this.#codes[this.#at + i] = -1;
      else if (codes[i] >= 0 && codes[i] < remap.length)
        this.#codes[this.#at + i] = remap[codes[i]];
      else throw new BadArrow(`Column ${field.name} is damaged: a text is not in its dictionary.`);
    }
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
