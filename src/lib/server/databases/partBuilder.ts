import { columnIds } from '$lib/core/read/infer';
import type { DeclaredColumn } from '$lib/core/read/unfold/declared';
import { scalarOf } from '$lib/core/read/unfold/typedColumn';
import type { Column, ScalarType } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { SeenBytes } from './seenBytes';

const FIRST_ROOM = 1 << 14;

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
  #values = new Float64Array(FIRST_ROOM);
  #length = 0;
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
    if (this.#length === this.#values.length) {
      const wider = new Float64Array(this.#length * 2);
      wider.set(this.#values);
      this.#values = wider;
    }
    this.#values[this.#length++] = value;
  }

  text(text: string): void {
    this.#unread.set(this.#length, text);
    this.value(NaN);
  }

  utf8(bytes: Buffer, from: number, to: number): void {
    this.text(bytes.toString('utf8', from, to));
  }

  take(): Column {
    const column = scalarOf(this, this.type, this.#values.slice(0, this.#length));
    const unread = new Map([...column.unread, ...this.#unread]);
    this.#length = 0;
    this.#unread = new Map();
    return { ...column, unread };
  }
}

class Texts implements Cells {
  #codes = new Int32Array(FIRST_ROOM);
  #length = 0;
  #known = new Map<string, number>();
  readonly #seen = new SeenBytes();

  constructor(
    readonly id: string,
    readonly name: string,
  ) {}

  blank(): void {
    this.#push(-1);
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
    this.#push(code);
  }

  /** Short texts met before are known by their bytes: making a string of each costs most of the time. */
  utf8(bytes: Buffer, from: number, to: number): void {
    const seen = this.#seen;
    const known = seen.codeOf(bytes, from, to);
    if (known >= 0) return this.#push(known);
    this.text(bytes.toString('utf8', from, to));
    seen.keep(this.#codes[this.#length - 1], bytes, from, to);
  }

  #push(code: number): void {
    if (this.#length === this.#codes.length) {
      const wider = new Int32Array(this.#length * 2);
      wider.set(this.#codes);
      this.#codes = wider;
    }
    this.#codes[this.#length++] = code;
  }

  take(): Column {
    const { id, name } = this;
    const column: Column = {
      id,
      name,
      unit: '',
      type: 'text',
      codes: this.#codes.slice(0, this.#length),
      dictionary: [...this.#known.keys()],
    };
    this.#length = 0;
    this.#known = new Map();
    this.#seen.forget();
    return column;
  }
}
