import { BadArrow } from '../errors';
import { Field, Table as ArrowTable, tableFromIPC, type Data } from 'apache-arrow';

import { type Column } from './column';
import type { Table } from './table';

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
