import { DAY_MS } from '../table/calendar';
import type { Column, ColumnType } from '../table/column';
import { showCount } from '../table/format';
import { IntakeError } from '../errors';
import { dayOfSerial } from '../table/serialDay';
import {
  noDateFacts,
  offsetName,
  readClock,
  readDate,
  readDateTime,
  type DateFacts,
} from './dates';
import { noNumberFacts, numberReader } from './numbers';
import type { ColumnRecipe } from './recipe';
import { GrowingCodes, GrowingValues } from './growing';
import { LONG_CELL } from './recipe';
import { readYesNo } from './yesno';

/** What a column showed while it was read, beyond its values. */
export interface ColumnEvidence {
  readonly blanks: number;
  /** Cells that a blank word stood in, by the word. */
  readonly blankWords: ReadonlyMap<string, number>;
  readonly outerSpaces: { count: number; records: number[] };
  readonly longCells: { count: number; records: number[] };
  readonly dates: DateFacts;
  readonly percents: number;
  readonly currencies: ReadonlyMap<string, number>;
  /** Numbers with and without the unit that stands in cells, and the first of those without. */
  readonly units: { readonly with: number; readonly without: number; readonly records: number[] };
  readonly credits: number;
  readonly debits: number;
}

const PLACES = 50;

/** Different texts of one column: a map takes no more. */
const MOST_TEXTS = 2 ** 24 - 1;

/** Cells of one column, pushed in the order of records, to a typed column. */
export class ColumnReader {
  readonly #recipe: ColumnRecipe;
  readonly #blankWords = new Map<string, number>();
  readonly #blankSet: ReadonlySet<string>;
  readonly #unread = new Map<number, string>();
  readonly #values = new GrowingValues();
  readonly #codes = new GrowingCodes();
  /** Codes of texts met before; -1 for those that are blank. */
  readonly #known = new Map<string, number>();
  #texts: string[] = [];
  /** Codes of texts with spaces at their ends. */
  readonly #spaced = new Set<number>();
  readonly #numbers = noNumberFacts();
  readonly #dates = noDateFacts();
  readonly #read: ((text: string) => number) | null;
  readonly #outer = { count: 0, records: [] as number[] };
  readonly #long = { count: 0, records: [] as number[] };
  readonly #withoutUnit = { count: 0, records: [] as number[] };
  #blanks = 0;
  #record = 0;
  #taken = 0;
  #unitsBefore = 0;
  readonly #unitInCells: boolean;

  constructor(recipe: ColumnRecipe) {
    this.#recipe = recipe;
    this.#blankSet = new Set(recipe.blanks);
    this.#read = this.#reader(recipe);
    this.#unitInCells = recipe.type === 'number' && recipe.unitInCells && recipe.unit !== '';
  }

  #reader(recipe: ColumnRecipe): ((text: string) => number) | null {
    switch (recipe.type) {
      case 'text':
        return null;
      case 'number':
        return numberReader(
          { ...recipe, unit: recipe.unitInCells ? recipe.unit : '' },
          this.#numbers,
        );
      case 'date':
        return orDayNumber(recipe, (text) => readDate(text, recipe.dateOrder, this.#dates));
      case 'datetime':
        return orDayNumber(recipe, (text) =>
          readDateTime(text, recipe.dateOrder, recipe.zone, this.#dates),
        );
      case 'time':
        return (text) => readClock(text, this.#dates);
      case 'yesno':
        return readYesNo;
    }
  }

  push(cell: string): void {
    const record = this.#record++;
    if (cell.length > LONG_CELL) note(this.#long, record);
    if (this.#read === null) this.#pushText(cell, record);
    else this.#pushScalar(cell, record, this.#read);
  }

  #pushText(cell: string, record: number): void {
    const known = this.#known.get(cell);
    if (known !== undefined) {
      // Spaces and blank words were judged when the text was first met; only their counts go on.
      this.#codes.push(known);
      if (known < 0) this.#blank(cell === '' ? '' : cell.trim());
      else if (this.#spaced.size > 0 && this.#spaced.has(known)) note(this.#outer, record);
      return;
    }
    if (this.#known.size >= MOST_TEXTS)
      throw new IntakeError(
        'tooLarge',
        `“${this.#recipe.name}” has over ${showCount(MOST_TEXTS)} different texts, which is more than a list can hold. Leave the column out, or have the command line read the file in stretches.`,
      );
    const trimmed = cell.trim();
    let code = -1;
    if (trimmed === '' || this.#blankSet.has(trimmed)) this.#blank(trimmed);
    else {
      code = this.#texts.length;
      this.#texts.push(cell);
      if (hasOuterSpace(cell)) {
        this.#spaced.add(code);
        note(this.#outer, record);
      }
    }
    this.#known.set(cell, code);
    this.#codes.push(code);
  }

  #pushScalar(cell: string, record: number, read: (text: string) => number): void {
    // Most cells read as they are; only the others are looked at closer.
    let value = cell === '' ? NaN : read(cell);
    if (value !== value) {
      const text = cell.trim();
      if (text === '' || this.#blankSet.has(text)) this.#blank(text);
      else {
        if (text !== cell) value = read(text);
        if (value !== value) this.#unread.set(record, cell);
      }
    }
    if (this.#unitInCells && value === value) {
      if (this.#numbers.withUnit === this.#unitsBefore) note(this.#withoutUnit, record);
      this.#unitsBefore = this.#numbers.withUnit;
    }
    this.#values.push(value);
  }

  #blank(word: string): void {
    this.#blanks++;
    if (word) this.#blankWords.set(word, (this.#blankWords.get(word) ?? 0) + 1);
  }

  get evidence(): ColumnEvidence {
    return {
      blanks: this.#blanks,
      blankWords: this.#blankWords,
      outerSpaces: this.#outer,
      longCells: this.#long,
      dates: this.#dates,
      percents: this.#numbers.percent,
      currencies: this.#numbers.currencies,
      units: {
        with: this.#numbers.withUnit,
        without: this.#withoutUnit.count,
        records: this.#withoutUnit.records,
      },
      credits: this.#numbers.credits,
      debits: this.#numbers.debits,
    };
  }

  get type(): ColumnType {
    return this.#recipe.type;
  }

  /** The text of all cells so far that could not be read, by record. */
  get unread(): ReadonlyMap<number, string> {
    return this.#unread;
  }

  /**
   * The records read since the last were taken, numbered from 0. Texts are coded anew: those of a column that
   * has another in each record would fill the memory.
   */
  take(): Column {
    const from = this.#taken;
    this.#taken = this.#record;
    const column = this.finish();
    if (column.type === 'text') {
      this.#texts = [];
      this.#known.clear();
      this.#spaced.clear();
      return column;
    }
    // A map of its own, also where there is none yet: that of the reader goes on.
    const unread = new Map<number, string>();
    for (const [record, text] of column.unread) if (record >= from) unread.set(record - from, text);
    return { ...column, unread };
  }

  finish(): Column {
    const { id, name, type, grain } = this.#recipe;
    if (type === 'text')
      return {
        id,
        name,
        unit: this.#recipe.unit,
        type,
        codes: this.#codes.take(),
        dictionary: this.#texts,
      };
    return {
      id,
      name,
      unit: this.#unit(),
      type,
      values: this.#values.take(),
      unread: this.#unread,
      decimals: Math.min(this.#numbers.decimals, 12),
      percent: this.#numbers.percent > (this.#record - this.#blanks) / 2,
      grain,
    };
  }

  /** One offset for all times goes into the head; times turned to UTC say so. */
  #unit(): string {
    const { type, unit, zone } = this.#recipe;
    if (unit || type !== 'datetime') return unit;
    const { offsets, withoutOffset } = this.#dates;
    if (zone === 'utc' && offsets.size) return 'UTC';
    return offsets.size === 1 && withoutOffset === 0 ? offsetName([...offsets][0]) : '';
  }
}

function note(seen: { count: number; records: number[] }, record: number): void {
  seen.count++;
  if (seen.records.length < PLACES) seen.records.push(record);
}

const hasOuterSpace = (cell: string): boolean => {
  const first = cell.charCodeAt(0);
  const last = cell.charCodeAt(cell.length - 1);
  return first <= 32 || last <= 32 || first === 0xa0 || last === 0xa0;
};

/** A reader of dates that takes plain numbers for days where the recipe says so; with a part of a day, times alone do. */
function orDayNumber(
  { type, dayNumbers }: ColumnRecipe,
  read: (text: string) => number,
): (text: string) => number {
  if (!dayNumbers) return read;
  return (text) => {
    if (!/^\d{1,6}([.,]\d+)?$/.test(text)) return read(text);
    const serial = Number(text.replace(',', '.'));
    const day = dayOfSerial(Math.floor(serial));
    if (day === null) return NaN;
    const ms = Math.round((serial % 1) * DAY_MS);
    if (type === 'datetime') return day * DAY_MS + ms;
    return ms === 0 ? day : NaN;
  };
}

/**
 * Reads a corrected text by a column's recipe: its value, NaN where it still cannot be read, and
 * null where it is a blank. Text columns give the text back unread.
 */
export function readCell(recipe: ColumnRecipe, text: string): number | string | null {
  const trimmed = text.trim();
  if (trimmed === '' || recipe.blanks.includes(trimmed)) return null;
  if (recipe.type === 'text') return text;
  const reader = new ColumnReader(recipe);
  reader.push(trimmed);
  const column = reader.finish();
  return column.type === 'text' ? trimmed : column.values[0];
}
