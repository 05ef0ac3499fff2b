import { isText, type Column } from '../table/column';
import { DistinctNumbers } from '../table/distinctNumbers';
import type { Table } from '../table/table';
import { inStretches, type Task } from '../task/task';
import { GrowingCodes } from '../read/growing';

/** Codes of one column are under this: a pair of a row and a code is one number without loss. */
export const CODES = 2 ** 27;

/** What stands for a blank and for an unread cell among the codes of a column. */
const BLANK = 0;
const UNREAD = 1;
const FIRST_VALUE = 2;

/** What an unread cell of a condensed list says: its own text is one of several. */
const UNREAD_TEXT = '…';

/** A column whose values are kept, coded alike in all parts of a list. */
export class KeptColumn {
  /** What the column is: the first part says it; decimals are those of the part that shows most. */
  #about: Column;
  readonly #texts = new Map<string, number>();
  readonly #numbers = new DistinctNumbers(CODES - FIRST_VALUE);
  /** The code of each row. */
  readonly #codes = new GrowingCodes();

  constructor(first: Column) {
    this.#about = first;
  }

  /** The code of each record of a part. */
  *codesOf(table: Table): Task<Int32Array> {
    const column = table.columns.find(({ id }) => id === this.#about.id);
    if (!column || column.type !== this.#about.type)
      throw new RangeError(`“${this.#about.name}” is not the same in all parts.`);
    const codes = new Int32Array(table.length);
    if (isText(column)) {
      const [own, codeOf] = [column.codes, this.#codesOfTexts(column.dictionary)];
      yield* inStretches(codes.length, (from, to) => {
        for (let i = from; i < to; i++) codes[i] = own[i] < 0 ? BLANK : codeOf[own[i]];
      });
      return codes;
    }
    if (!isText(this.#about) && column.decimals > this.#about.decimals) this.#about = column;
    const { values, unread } = column;
    const numbers = this.#numbers;
    yield* inStretches(codes.length, (from, to) => {
      for (let i = from; i < to; i++) {
        const v = values[i];
        codes[i] = v === v ? numbers.placeOf(v) + FIRST_VALUE : unread.has(i) ? UNREAD : BLANK;
      }
    });
    return codes;
  }

  /** The code of each text of a part: texts in the order in which they are met. */
  #codesOfTexts(dictionary: readonly string[]): Int32Array {
    const texts = this.#texts;
    const codes = new Int32Array(dictionary.length);
    for (const [k, text] of dictionary.entries()) {
      let code = texts.get(text);
      if (code === undefined) texts.set(text, (code = texts.size));
      codes[k] = code + FIRST_VALUE;
    }
    return codes;
  }

  /** Notes what the next row has. */
  note(code: number): void {
    this.#codes.push(code);
  }

  /** The column with a value for each row. */
  column(): Column {
    const codes = this.#codes.take();
    const about = this.#about;
    if (isText(about))
      return {
        ...about,
        codes: codes.map((code) => (code === BLANK ? -1 : code - FIRST_VALUE)),
        dictionary: [...this.#texts.keys()],
      };
    const numbers = this.#numbers.values();
    const unread = new Map<number, string>();
    const values = new Float64Array(codes.length);
    codes.forEach((code, row) => {
      values[row] = code < FIRST_VALUE ? NaN : numbers[code - FIRST_VALUE];
      if (code === UNREAD) unread.set(row, UNREAD_TEXT);
    });
    return { ...about, values, unread };
  }
}
