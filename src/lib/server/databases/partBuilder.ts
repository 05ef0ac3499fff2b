import { GrowingCodes, GrowingValues } from '$lib/core/read/growing';
import { columnIds } from '$lib/core/read/infer';
import type { DeclaredColumn } from '$lib/core/read/decode/declared';
import { scalarOf } from '$lib/core/read/decode/typedColumn';
import type { Column, ScalarType } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { SeenBytes } from './seenBytes';

/** Cells of one column, pushed in the order of records. */
export interface Cells {
  blank(): void;
  /** A value of the column's type, as the table holds it. Texts have none. */
  value(value: number): void;
  /** A text; in a column that is none, one that cannot be read as its type. */
  text(text: string): void;
  /** The same as UTF-8, from one place to another. */
  utf8(bytes: Buffer, from: number, to: number): void;
}

/** Gathers the records of a database into tables. */
export class PartBuilder {
  readonly cells: readonly (Cells & { take(): Column })[];
  length = 0;

  constructor(declared: readonly DeclaredColumn[]) {
    const ids = columnIds(declared.map(({ name }) => name));
    this.cells = declared.map(({ name, type }, k) =>
      type === null || type === 'text' ? new Texts(ids[k], name) : new Scalars(ids[k], name, type),
    );
  }

  /** The records gathered so far; the next ones go into another table. */
  take(): Table {
    const { length } = this;
    this.length = 0;
    return { length, columns: this.cells.map((cells) => cells.take()) };
  }
}

class Scalars implements Cells {
  readonly #values = new GrowingValues();
  #unread = new Map<number, string>();

  constructor(
    readonly id: string,
    readonly name: string,
    readonly type: ScalarType,
  ) {}

  blank(): void {
    this.value(NaN);
  }

  value(value: number): void {
    this.#values.push(value);
  }

  text(text: string): void {
    this.#unread.set(this.#values.length, text);
    this.value(NaN);
  }

  utf8(bytes: Buffer, from: number, to: number): void {
    this.text(bytes.toString('utf8', from, to));
  }

  take(): Column {
    const column = scalarOf(this, this.type, this.#values.take());
    const unread = new Map([...column.unread, ...this.#unread]);
    this.#unread = new Map();
    return { ...column, unread };
  }
}

class Texts implements Cells {
  readonly #codes = new GrowingCodes();
  #known = new Map<string, number>();
  readonly #seen = new SeenBytes();

  constructor(
    readonly id: string,
    readonly name: string,
  ) {}

  blank(): void {
    this.#codes.push(-1);
  }

  value(value: number): void {
    this.text(String(value));
  }

  /** A text of blanks is blank, as in any file. */
  text(text: string): void {
    let code = this.#known.get(text);
    if (code === undefined) {
      if (text.trim() === '') return this.blank();
      this.#known.set(text, (code = this.#known.size));
    }
    this.#codes.push(code);
  }

  /** Short texts met before are known by their bytes: making a string of each costs most of the time. */
  utf8(bytes: Buffer, from: number, to: number): void {
    const seen = this.#seen;
    const known = seen.codeOf(bytes, from, to);
    if (known >= 0) return this.#codes.push(known);
    this.text(bytes.toString('utf8', from, to));
    seen.keep(this.#codes.last, bytes, from, to);
  }

  take(): Column {
    const { id, name } = this;
    const column: Column = {
      id,
      name,
      unit: '',
      type: 'text',
      codes: this.#codes.take(),
      dictionary: [...this.#known.keys()],
    };
    this.#known = new Map();
    this.#seen.forget();
    return column;
  }
}
