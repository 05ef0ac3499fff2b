import { DAY_MS } from '../table/calendar';
import { isText } from '../table/column';
import type { Table } from '../table/table';
import { nameWords, sameWord, singular, type Token } from './tokens';
import { YES_NO_WORDS } from './words/testWords';

/** Values of a column that words name. */
export interface NamedValues {
  readonly column: string;
  readonly values: readonly string[];
}

/** Texts that are looked through in a column; more are names of records, not of groups. */
const MOST_TEXTS = 5000;
/** More values than this share a word by chance. */
const MOST_ALIKE = 12;

/** What words can name in a list: its columns, and the values of its columns of text. */
export class ListWords {
  readonly #values: readonly {
    readonly column: string;
    /** Its values by how they are called, and by each word of theirs; plurals as their singulars. */
    readonly whole: ReadonlyMap<string, readonly string[]>;
    readonly holding: ReadonlyMap<string, readonly string[]>;
  }[];

  #vocabulary: ReadonlySet<string> | null = null;
  readonly #lastDays = new Map<string, number | null>();

  constructor(readonly table: Table) {
    this.#values = table.columns.flatMap((column) => {
      if (!isText(column) || column.dictionary.length > MOST_TEXTS) return [];
      const whole = new Map<string, string[]>();
      const holding = new Map<string, string[]>();
      for (const text of column.dictionary) {
        const low = nameWords(text).join(' ');
        put(whole, singular(low), text);
        for (const part of new Set(low.split(/[\s/-]+/).map(singular))) put(holding, part, text);
      }
      return [{ column: column.id, whole, holding }];
    });
  }

  /** The words of the names of its columns and of their values, in small letters. */
  get vocabulary(): ReadonlySet<string> {
    return (this.#vocabulary ??= new Set([
      ...this.table.columns.flatMap(({ name }) => nameWords(name)),
      ...this.#values.flatMap(({ holding }) => [...holding.keys()]),
    ]));
  }

  /** The last day of a column of dates; null where it has none. */
  lastDay(id: string): number | null {
    const known = this.#lastDays.get(id);
    if (known !== undefined) return known;
    const column = this.table.columns.find((c) => c.id === id);
    let last: number | null = null;
    if (column && !isText(column))
      for (const value of column.values)
        if (value === value && (last === null || value > last)) last = value;
    const day = last !== null && column?.type === 'datetime' ? Math.floor(last / DAY_MS) : last;
    this.#lastDays.set(id, day);
    return day;
  }

  /** Columns of dates, in the order of the list. */
  get dateColumns(): readonly string[] {
    return this.table.columns.flatMap(({ id, type }) =>
      type === 'date' || type === 'datetime' ? [id] : [],
    );
  }

  /** Whether a column has another text in each record: it names the records. */
  namesRecords(id: string): boolean {
    const column = this.table.columns.find((c) => c.id === id);
    return column !== undefined && isText(column) && column.dictionary.length === this.table.length;
  }

  /** Whether the values of a column are known by their names. */
  isLookedThrough(id: string): boolean {
    return this.#values.some(({ column }) => column === id);
  }

  /**
   * The column that tokens from a place on name, by its whole name, and how many tokens that takes;
   * the longest name of those that fit.
   */
  columnAt(
    tokens: readonly Token[],
    at: number,
  ): { column: string; type: string; length: number } | null {
    let best: { column: string; type: string; length: number } | null = null;
    for (const { id, name, type } of this.table.columns) {
      const words = nameWords(name);
      const fits =
        words.length > 0 &&
        words.every((word, n) => {
          const token = tokens[at + n];
          return token !== undefined && sameWord(token.word, word);
        });
      if (fits && words.length > (best?.length ?? 0))
        best = { column: id, type, length: words.length };
    }
    return best;
  }

  /** The columns that have a word of four letters or more in their names, or whose names have a word that it begins. */
  columnsWith(word: string): string[] {
    if (word.length < 4) return [];
    const single = word.replace(/s$/, '');
    return this.table.columns.flatMap(({ id, name }) =>
      nameWords(name).some((own) => own.length >= 4 && own.startsWith(single)) ? [id] : [],
    );
  }

  /**
   * The values that words name, column by column: those that are called so, but for case, outer spaces and a plural;
   * or, of a word of four letters or more, those that hold it as a word. None where a column has too many alike.
   * @param within only those of this column
   */
  valuesNamed(words: string, within?: string): readonly NamedValues[] {
    // As the values themselves are compared: a text in quotes has its commas still.
    const said = nameWords(words).join(' ');
    if (said === '') return [];
    const flag = this.table.columns.find(({ id, type }) => id === within && type === 'yesno');
    if (flag) return YES_NO_WORDS.has(said) ? [{ column: flag.id, values: [said] }] : [];
    const name = singular(said);
    const columns = this.#values.filter(({ column }) => within === undefined || column === within);
    const named = (by: 'whole' | 'holding', most: number): NamedValues[] =>
      columns.flatMap((own) => {
        const values = own[by].get(name) ?? [];
        return values.length > 0 && values.length <= most ? [{ column: own.column, values }] : [];
      });
    const whole = named('whole', MOST_TEXTS);
    if (whole.length > 0) return whole;
    return said.length < 4 || /\s/.test(said) ? [] : named('holding', MOST_ALIKE);
  }
}

function put(to: Map<string, string[]>, name: string, text: string): void {
  const there = to.get(name);
  if (there) there.push(text);
  else to.set(name, [text]);
}
