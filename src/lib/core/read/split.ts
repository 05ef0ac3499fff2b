import { IntakeError } from '../errors';
import Papa from 'papaparse';
import type { Layout } from './recipe';

/** A record that does not end within this many characters has an unclosed quote in it. */
const LONGEST_RECORD = 32 << 20;

/** Papa Parse's record splitter below its streaming layer; its type package leaves these out. */
interface RecordParser {
  parse(
    input: string,
    baseIndex: number,
    ignoreLastRow: boolean,
  ): { data: string[][]; errors: { code: string; row?: number }[]; meta: { cursor: number } };
}

/** Text to rows of cells, chunk by chunk. Lines end in LF only (see TextStream). */
export class Splitter {
  readonly #layout: Pick<Layout, 'delimiter' | 'quote' | 'skipLines'>;
  readonly #parser: RecordParser;
  #rest = '';
  /** How much of a record without an end was looked at last. */
  #stuckAt = 0;
  #toSkip: number;
  #rows = 0;
  /** Lines that were skipped at the top. */
  readonly skipped: string[] = [];
  /** Rows whose quotes do not pair up, by their number. */
  readonly quoteFaults: number[] = [];

  constructor(layout: Pick<Layout, 'delimiter' | 'quote' | 'skipLines'>) {
    this.#layout = layout;
    this.#toSkip = layout.skipLines;
    this.#parser = new Papa.Parser({
      delimiter: layout.delimiter,
      newline: '\n',
      quoteChar: layout.quote || '\0\0',
      fastMode: layout.quote ? undefined : true,
    } as Papa.ParseConfig) as unknown as RecordParser;
  }

  /**
   * Rows that are complete so far.
   * @throws IntakeError when a quote opens and never closes
   */
  push(text: string, last = false): string[][] {
    let input = this.#rest + text;
    this.#rest = '';
    while (this.#toSkip > 0) {
      const end = input.indexOf('\n');
      if (end < 0) {
        if (last) this.#skip(input);
        else this.#rest = input;
        return [];
      }
      this.#skip(input.slice(0, end));
      input = input.slice(end + 1);
      this.#toSkip--;
    }
    if (!input) return [];
    // A record of many pieces is looked at each time it has doubled, not at every piece.
    if (!last && input.length < 2 * this.#stuckAt) {
      this.#rest = input;
      return [];
    }
    const { data, errors, meta } = this.#parser.parse(input, 0, !last);
    for (const fault of errors) this.#judge(fault, data.length);
    if (!last) {
      this.#rest = input.slice(meta.cursor);
      this.#stuckAt = data.length === 0 ? this.#rest.length : 0;
      if (this.#rest.length > LONGEST_RECORD && data.length === 0) throw this.#unclosed(this.#rows);
    }
    // A line end at the very end of the text closes the last record; it opens no new one.
    if (last && data.length && isEmptyRow(data[data.length - 1]) && input.endsWith('\n'))
      data.pop();
    this.#rows += data.length;
    return data;
  }

  #skip(line: string): void {
    if (line.trim() !== '') this.skipped.push(line.slice(0, 500));
  }

  #judge(fault: { code: string; row?: number }, size: number): void {
    const row = this.#rows + (fault.row ?? size);
    if (fault.code === 'MissingQuotes') throw this.#unclosed(row);
    if (fault.code === 'InvalidQuotes') this.quoteFaults.push(row);
  }

  #unclosed(row: number): IntakeError {
    return new IntakeError(
      'unclosedQuote',
      `A quote (${this.#layout.quote}) opens in line ${row + 1 + this.#layout.skipLines} or after it and never closes. ` +
        'Mend the file there, or read it with “no quotes”.',
    );
  }
}

export const isEmptyRow = (row: readonly string[]): boolean => row.length === 1 && row[0] === '';
