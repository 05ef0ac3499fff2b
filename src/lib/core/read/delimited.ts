import { showCount } from '../table/format';
import { IntakeError } from '../errors';
import type { ColumnType } from '../table/column';
import type { Table } from '../table/table';
import { ColumnReader, type ColumnEvidence } from './columnReader';
import { detectEncoding, TextStream } from './textDecoding';
import { columnIds, inferColumn, uniqueNames } from './infer';
import {
  detectLayout,
  headRows,
  isSameRow,
  mayBeNote,
  mayBeUnits,
  trimmedRow,
  unitIn,
} from './layout';
import { MAX_COLUMNS, MOST_NOTES, type ColumnRecipe, type Layout, type Recipe } from './recipe';
import { isEmptyRow, Splitter } from './split';

/** A record whose number of cells is not the header's. */
export interface WidthFault {
  readonly record: number;
  readonly cells: number;
  /** Text of the cells past the last column, which the list leaves out. */
  readonly extra: string;
}

/** What a file showed while it was read. */
export interface ReadingEvidence {
  readonly columns: readonly ColumnEvidence[];
  readonly samples: readonly (readonly string[])[];
  readonly widthFaults: { count: number; first: WidthFault[] };
  readonly width: number;
  readonly emptyLines: number;
  readonly undecoded: number;
  readonly nuls: number;
  readonly mixedLineEnds: boolean;
  readonly quoteFaults: readonly number[];
  /** Lines skipped at the top that hold something. */
  readonly skipped: readonly string[];
  /** Lines below that are the header again; they are no records. */
  readonly headerAgain: { count: number; records: number[] };
  /** Units in the line below the heads, by the recipe's columns; empty where there is none. */
  readonly units: readonly string[];
  /** Cells that hold many lines, by their record. */
  readonly spanning: { count: number; first: { record: number; lines: number }[] };
  /** Lines below the table that the recipe leaves out. */
  readonly notes: readonly string[];
  /** Records that fill a cell or two of a wide table: how many, and how many of them stand at the end. */
  readonly sparse: { readonly count: number; readonly last: number };
}

export interface DelimitedReading {
  readonly table: Table;
  readonly evidence: ReadingEvidence;
}

/** What is known of a file that was read to its end, whether its records are still there or not. */
export interface ReadThrough {
  readonly table: {
    readonly length: number;
    readonly columns: readonly {
      readonly type: ColumnType;
      readonly unread?: ReadonlyMap<number, string>;
      /** Texts, where the records are still there. */
      readonly codes?: Int32Array;
      readonly dictionary?: readonly string[];
    }[];
  };
  readonly evidence: ReadingEvidence;
}

/** How many cells of each column are kept to reconsider its type. */
const SAMPLE = 2000;
const FIRST_FAULTS = 50;
/** A cell of more lines than this may be a quote that closes where another should open. */
const MANY_LINES = 10;

/**
 * Bytes split at a time: the cells of so few records are read and gone before the collector of
 * short-lived objects comes round, which halves the time of a whole file.
 */
const PIECE = 1 << 18;

/**
 * Reads a delimited file by a recipe, chunk by chunk in constant room beside the columns.
 *
 * @example
 * const reader = new DelimitedReader(recipe);
 * for (const chunk of chunks) reader.push(chunk);
 * const { table, evidence } = reader.finish();
 */
export class DelimitedReader {
  readonly #text: TextStream;
  readonly #splitter: Splitter;
  readonly #readers: ColumnReader[];
  readonly #places: readonly number[];
  readonly #width: number;
  readonly #samples: string[][];
  readonly #widthFaults = { count: 0, first: [] as WidthFault[] };
  readonly #headerAgain = { count: 0, records: [] as number[] };
  readonly #spanning = { count: 0, first: [] as { record: number; lines: number }[] };
  #header: readonly string[] | null = null;
  #headerSeen: boolean;
  #unitsSeen: boolean;
  #units: readonly string[] = [];
  /** The last lines so far, which are notes if no more come. */
  readonly #held: (readonly string[])[] = [];
  readonly #notesBelow: number;
  #sparse = 0;
  #sparseLast = 0;
  #emptyLines = 0;
  #records = 0;
  #taken = 0;

  constructor(recipe: Recipe) {
    this.#text = new TextStream(recipe.encoding);
    this.#splitter = new Splitter(recipe);
    this.#readers = recipe.columns.map((column) => new ColumnReader(column));
    this.#places = recipe.columns.map((column) => column.at ?? -1);
    this.#width = recipe.width;
    this.#samples = recipe.columns.map(() => []);
    this.#headerSeen = !recipe.header;
    this.#unitsSeen = !recipe.header || recipe.unitsBelow !== true;
    this.#notesBelow = recipe.notesBelow ?? 0;
  }

  get records(): number {
    return this.#records;
  }

  /** @throws IntakeError when a quote never closes */
  push(bytes: Uint8Array, last = false): void {
    for (let at = 0; at < bytes.length || (last && at === 0); at += PIECE) {
      const end = last && at + PIECE >= bytes.length;
      const text = this.#text.push(bytes.subarray(at, at + PIECE), end);
      const rows = this.#splitter.push(text, end);
      if (rows.length > 0) this.#lookForLines(rows);
      this.#pushRows(rows);
    }
  }

  #pushRows(rows: readonly (readonly string[])[]): void {
    const width = this.#width;
    for (const row of rows) {
      if (row.length !== width && isEmptyRow(row)) {
        this.#emptyLines++;
        continue;
      }
      if (!this.#headerSeen) {
        this.#headerSeen = true;
        this.#header = row;
        continue;
      }
      if (!this.#unitsSeen) {
        this.#unitsSeen = true;
        if (mayBeUnits(row)) {
          this.#units = this.#places.map((at) => unitIn(row[at] ?? ''));
          continue;
        }
      }
      if (this.#header && row[0] === this.#header[0] && isSameRow(row, this.#header)) {
        note(this.#headerAgain, this.#records);
        continue;
      }
      if (this.#notesBelow === 0) this.#pushRecord(row);
      else {
        this.#held.push(row);
        if (this.#held.length > this.#notesBelow) this.#pushRecord(this.#held.shift() ?? []);
      }
    }
  }

  #pushRecord(row: readonly string[]): void {
    const readers = this.#readers;
    const places = this.#places;
    const width = this.#width;
    // A delimiter behind the last cell makes an empty one more, which is nobody's.
    if (row.length !== width && !(row.length === width + 1 && row[width] === ''))
      this.#noteWidth(row, width);
    if (!row[width - 1] && mayBeNote(row, width)) {
      this.#sparse++;
      this.#sparseLast++;
    } else this.#sparseLast = 0;
    for (let c = 0; c < readers.length; c++) readers[c].push(row[places[c]] ?? '');
    if (this.#records < SAMPLE) places.forEach((at, c) => this.#samples[c].push(row[at] ?? ''));
    this.#records++;
  }

  /** Cells of many lines; a look at lengths spares most rows. */
  #lookForLines(rows: readonly (readonly string[])[]): void {
    rows.forEach((row, k) => {
      for (const cell of row) {
        if (cell.length <= MANY_LINES || !cell.includes('\n')) continue;
        const lines = cell.split('\n').length;
        if (lines <= MANY_LINES) continue;
        this.#spanning.count++;
        // Rows before it in this piece are records, but for a header among them.
        const record = this.#records + k - Number(!this.#headerSeen);
        if (this.#spanning.first.length < FIRST_FAULTS)
          this.#spanning.first.push({ record: Math.max(0, record), lines });
      }
    });
  }

  #noteWidth(row: readonly string[], width: number): void {
    this.#widthFaults.count++;
    if (this.#widthFaults.first.length < FIRST_FAULTS)
      this.#widthFaults.first.push({
        record: this.#records,
        cells: row.length,
        extra: row.slice(width).join(' | ').slice(0, 500),
      });
  }

  /** How many records were read since the last were taken. */
  get pending(): number {
    return this.#records - this.#taken;
  }

  /** The records read since the last were taken: a list larger than the memory goes by in such stretches. */
  take(): Table {
    const length = this.pending;
    this.#taken = this.#records;
    return { length, columns: this.#readers.map((reader) => reader.take()) };
  }

  /** Call after the last chunk, where the records were taken on the way. */
  readThrough(): ReadThrough {
    const columns = this.#readers.map(({ type, unread }) => ({ type, unread }));
    return { table: { length: this.#records, columns }, evidence: this.#evidence };
  }

  /** Call after the last chunk. */
  finish(): DelimitedReading {
    const table: Table = { length: this.#records, columns: this.#readers.map((r) => r.finish()) };
    return { table, evidence: this.#evidence };
  }

  get #evidence(): ReadingEvidence {
    return {
      columns: this.#readers.map((r) => r.evidence),
      samples: this.#samples,
      widthFaults: this.#widthFaults,
      width: this.#width,
      emptyLines: this.#emptyLines,
      undecoded: this.#text.undecoded,
      nuls: this.#text.nuls,
      mixedLineEnds: this.#text.mixedLineEnds,
      quoteFaults: this.#splitter.quoteFaults,
      skipped: this.#splitter.skipped,
      headerAgain: this.#headerAgain,
      units: this.#units,
      spanning: this.#spanning,
      notes: this.#held.map((row) => trimmedRow(row).join(' ').slice(0, 500)),
      sparse: { count: this.#sparse, last: this.#sparseLast },
    };
  }
}

function note(seen: { count: number; records: number[] }, record: number): void {
  seen.count++;
  if (seen.records.length < FIRST_FAULTS) seen.records.push(record);
}

/** The first rows of a file under a layout, header apart. */
export interface Head {
  readonly heads: readonly string[];
  /** Units in the line below the heads, by column; empty where there is none. */
  readonly units: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/**
 * Splits the first bytes of a file.
 * @param complete the bytes are the whole file
 * @throws IntakeError for a file without rows, or with over 1,000 columns
 */
export function readHead(bytes: Uint8Array, layout: Layout, complete: boolean): Head {
  const text = new TextStream(layout.encoding).push(bytes, complete);
  const all = headRows(text, layout, complete).filter((row) => !isEmptyRow(row));
  if (all.length === 0) throw new IntakeError('empty', 'The file holds no text to read.');
  const width = layout.header ? headWidth(all) : commonWidth(all);
  if (width > MAX_COLUMNS)
    throw new IntakeError(
      'tooManyColumns',
      `The first line has ${showCount(width)} columns; a list can have ${showCount(MAX_COLUMNS)}. ` +
        'Take out the columns you do not need, or check the delimiter.',
    );
  const [first] = all;
  const heads = Array.from({ length: width }, (_, c) => (layout.header ? (first[c] ?? '') : ''));
  const records = layout.header ? all.slice(1).filter((row) => !isSameRow(row, first)) : all;
  const unitLines = Number(
    layout.header && layout.unitsBelow === true && mayBeUnits(records[0] ?? []),
  );
  const units = unitLines ? heads.map((_, c) => unitIn(records[0]?.[c] ?? '')) : [];
  return { heads, units, rows: records.slice(unitLines) };
}

/** As wide as the header says, or as most records are where they hold more. */
function headWidth([first, ...rest]: readonly string[][]): number {
  const heads = trimmedRow(first).length;
  const records = rest.map((row) => [...trimmedRow(row)]).filter((row) => row.length > 0);
  const filled = records.length ? commonWidth(records) : 0;
  return Math.max(1, heads, filled);
}

function commonWidth(rows: readonly string[][]): number {
  const widths = new Map<number, number>();
  for (const row of rows) widths.set(row.length, (widths.get(row.length) ?? 0) + 1);
  return [...widths].reduce((a, b) => (b[1] > a[1] ? b : a))[0];
}

/** Column recipes for a head: names made unique, types inferred from the rows. */
export function inferColumns({ heads, units, rows }: Head): ColumnRecipe[] {
  const inferred = heads.map((head, c) => {
    const column = inferColumn(
      head,
      rows.map((row) => row[c] ?? ''),
    );
    return { ...column, unit: column.unit || (units[c] ?? '') };
  });
  const { names } = uniqueNames(inferred.map((column) => column.name));
  const ids = columnIds(names);
  return inferred.map((column, c) => ({
    ...column,
    name: names[c],
    id: ids[c],
    at: c,
    source: heads[c],
  }));
}

/**
 * A recipe from the first bytes of a file.
 * @param known what of its layout needs no guess
 * @throws IntakeError when the bytes are empty, not text, or have too many columns
 */
export function proposeRecipe(
  bytes: Uint8Array,
  complete: boolean,
  known: Partial<Pick<Layout, 'delimiter' | 'quote' | 'encoding'>> = {},
): Recipe {
  const encoding = known.encoding ?? detectEncoding(bytes);
  const text = new TextStream(encoding).push(bytes, complete);
  if (text.trim() === '')
    throw new IntakeError('empty', 'The file holds only blanks and line ends.');
  return recipeFor(bytes, detectLayout(text, encoding, complete, known), complete);
}

/** A recipe under a given layout, its columns inferred from the first bytes. */
export function recipeFor(
  bytes: Uint8Array,
  { format, source, delimiter, quote, encoding, header, unitsBelow, skipLines, notesBelow }: Layout,
  complete: boolean,
): Recipe {
  const layout: Layout = {
    format,
    ...(source && { source }),
    delimiter,
    quote,
    encoding,
    header,
    ...(header && unitsBelow && { unitsBelow }),
    skipLines,
    ...(notesBelow !== undefined && { notesBelow }),
  };
  const head = readHead(bytes, layout, complete);
  return { ...layout, width: head.heads.length, columns: inferColumns(head) };
}

/**
 * Notes below the table, where the recipe says nothing of them: the last lines fill a cell or two of a
 * wide table, and no other line does.
 */
function notesFound({ notesBelow, width }: Recipe, { table, evidence }: ReadThrough): number {
  const { count, last } = evidence.sparse;
  if (notesBelow !== undefined || width < 2 || last === 0 || last < count) return 0;
  return last <= MOST_NOTES && 2 * last < table.length ? last : 0;
}

/** A column judged anew keeps a unit that its cells do not tell. */
const withOwnUnit = <T extends { unit: string }>(column: ColumnRecipe, judged: T): T => ({
  ...judged,
  unit: judged.unit || column.unit,
});

/**
 * Judges the recipe again after the whole file was read: a column with unread cells may read
 * better another way once all of its evidence is in.
 * @param fixed columns that the analyst set by hand
 * @returns a better recipe, or null when this one stands
 */
export function reconsider(
  recipe: Recipe,
  reading: ReadThrough,
  fixed: ReadonlySet<string>,
): Recipe | null {
  const notes = notesFound(recipe, reading);
  if (notes > 0) {
    // Columns were judged with the notes among their cells; a sample of all shows them without.
    const samples = reading.table.length <= SAMPLE ? reading.evidence.samples : [];
    const judged = recipe.columns.map((column, c) =>
      fixed.has(column.id) || !samples[c]
        ? column
        : {
            ...column,
            ...withOwnUnit(column, inferColumn(column.source, samples[c].slice(0, -notes))),
            name: column.name,
          },
    );
    return { ...recipe, notesBelow: notes, columns: judged };
  }
  let changed = false;
  const columns = recipe.columns.map((column, c) => {
    const read = reading.table.columns[c];
    if (!read.unread?.size || fixed.has(column.id)) return column;
    const unread = [...read.unread.values()];
    const { length } = reading.table;
    const sample = reading.evidence.samples[c];
    // Unread cells stand in the sample by their share of the whole column.
    const share = Math.max(1, Math.round((unread.length * sample.length) / Math.max(1, length)));
    const inferred = inferColumn(column.source, [...sample, ...unread.slice(0, share + SAMPLE)]);
    const next = { ...column, ...withOwnUnit(column, inferred), name: column.name };
    const gains =
      next.dateOrder !== column.dateOrder ||
      next.type !== column.type ||
      next.decimal !== column.decimal;
    const marks = next.thousands !== column.thousands;
    if (!gains && !marks) return column;
    if (next.type === 'text' && unread.length < length * 0.15) return column;
    changed = true;
    return next;
  });
  return changed ? { ...recipe, columns } : null;
}
