import { joined } from './joined';
import { counted, showCount } from '../../table/format';
import { mayBeUnits } from '../layout';
import { doubt, PLACES, type Doubt, type Place } from '../doubts';
import type { ColumnRecipe, Recipe } from '../recipe';
import type { TotalMark } from '../totals';
import { noNumberFacts, numberReader } from '../numbers';

/** What a cell says of itself. */
export type CellKind =
  'blank' | 'text' | 'number' | 'date' | 'datetime' | 'time' | 'yesno' | 'error';

/** A cell in full: ISO dates, all digits, never the text that a program shows. */
export interface GridCell {
  readonly kind: CellKind;
  readonly text: string;
  /** A unit that the cell's format shows beside the number. */
  readonly unit?: string;
  /** How the sheet marks it as a total: by a formula that adds up the cells above it, or by bold type. */
  readonly mark?: TotalMark;
}

/** Rows of cells that know their kinds: a sheet of a workbook, an array of objects. */
export type CellGrid = readonly (readonly GridCell[])[];

export const BLANK: GridCell = { kind: 'blank', text: '' };

const field = (text: string): string =>
  /[",\r\n]/.test(text) || text !== text.trim() ? `"${text.replaceAll('"', '""')}"` : text;

/** Rows written in one go, so that a long grid needs no one long text. */
const ROWS = 5000;

/** A grid as delimited text, to be read as any other: commas, double quotes, UTF-8. */
export const gridAsText = (grid: CellGrid): Uint8Array =>
  asText(grid, ({ kind, text }) => (kind === 'text' || kind === 'error' ? field(text) : text));

/** Rows of texts as delimited text; shorter ones are filled up. */
export const rowsAsText = (rows: readonly (readonly string[])[]): Uint8Array => asText(rows, field);

function asText<T>(rows: readonly (readonly T[])[], fieldOf: (cell: T) => string): Uint8Array {
  const encoder = new TextEncoder();
  const parts: Uint8Array[] = [];
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  for (let from = 0; from < rows.length; from += ROWS) {
    let lines = '';
    for (let r = from; r < Math.min(rows.length, from + ROWS); r++) {
      const row = rows[r];
      for (let c = 0; c < row.length; c++) lines += c ? `,${fieldOf(row[c])}` : fieldOf(row[c]);
      lines += `${','.repeat(row.length ? width - row.length : Math.max(0, width - 1))}\n`;
    }
    parts.push(encoder.encode(lines));
  }
  return joined(parts);
}

/** Rows of the table itself: below the titles and the header, without empty ones. */
function recordsOf(grid: CellGrid, { header, unitsBelow, columns }: Recipe): CellGrid {
  const filled = grid.filter((row) => row.some((cell) => cell.text.trim() !== ''));
  const isHeader = (row: readonly GridCell[]): boolean =>
    columns.every(({ at, source }) => at === null || (row[at]?.text ?? '') === source);
  const at = header ? filled.findIndex(isHeader) : -1;
  const below = filled.slice(at + 1);
  const isUnits = header && unitsBelow === true && mayBeUnits((below[0] ?? []).map((c) => c.text));
  return isUnits ? below.slice(1) : below;
}

/** Which cells a column has, by their kinds. */
interface Kinds {
  readonly counts: ReadonlyMap<CellKind, number>;
  readonly units: ReadonlySet<string>;
}

function kindsOf(records: CellGrid, at: number): Kinds {
  const counts = new Map<CellKind, number>();
  const units = new Set<string>();
  for (const row of records) {
    const { kind, unit } = row[at] ?? BLANK;
    counts.set(kind, (counts.get(kind) ?? 0) + 1);
    if (kind === 'number') units.add(unit ?? '');
  }
  return { counts, units };
}

const OF_KIND = { number: 'number', date: 'date', time: 'time', yesno: 'yesno' } as const;

/** The type that all cells of a column agree on; null where they are texts, or of several kinds. */
function typeAgreed({ counts }: Kinds): ColumnRecipe['type'] | null {
  const kinds = [...counts.keys()].filter((kind) => kind !== 'blank' && kind !== 'error');
  if (kinds.length === 0) return null;
  if (kinds.every((kind) => kind === 'date' || kind === 'datetime'))
    return kinds.includes('datetime') ? 'datetime' : 'date';
  const [only] = kinds;
  return kinds.length === 1 && only in OF_KIND ? OF_KIND[only as keyof typeof OF_KIND] : null;
}

/** A recipe in which columns whose cells say what they are need no guess, and which those are. */
export function asCellsSay(
  recipe: Recipe,
  grid: CellGrid,
): { recipe: Recipe; decided: ReadonlySet<string> } {
  const records = recordsOf(grid, recipe);
  const decided = new Set<string>();
  const columns = recipe.columns.map((column): ColumnRecipe => {
    if (column.at === null) return column;
    const kinds = kindsOf(records, column.at);
    const type = typeAgreed(kinds);
    const [unit = ''] = kinds.units.size === 1 ? kinds.units : [];
    // Numbers among texts that can be read as such: a guess, but their unit is none.
    if (type === null)
      return column.type === 'number' ? { ...column, unit: column.unit || unit } : column;
    decided.add(column.id);
    return {
      ...column,
      type,
      unit: column.unit || unit,
      unitInCells: false,
      takenOff: '',
      thousands: '',
      decimal: '.',
      dateOrder: 'ymd',
      dayNumbers: false,
      grain: 'day',
    };
  });
  return { recipe: { ...recipe, columns }, decided };
}

/**
 * The records that a sheet marks as totals: a formula in one of their cells adds up others, or all of their cells are
 * in bold type.
 */
export function marksOfTotals(recipe: Recipe, grid: CellGrid): Map<number, TotalMark> {
  const marks = new Map<number, TotalMark>();
  recordsOf(grid, recipe).forEach((row, record) => {
    const filled = row.filter(({ kind }) => kind !== 'blank');
    if (row.some(({ mark }) => mark === 'formula')) marks.set(record, 'formula');
    else if (filled.length > 0 && filled.every(({ mark }) => mark === 'bold'))
      marks.set(record, 'bold');
  });
  return marks;
}

/** Numbers of several units by the formats of their cells, a sum of which would add them up as one. */
function mixedUnits({ id, name, type }: ColumnRecipe, records: CellGrid, at: number): Doubt[] {
  if (type !== 'number') return [];
  const counts = new Map<string, number>();
  for (const row of records) {
    const { kind, unit = '' } = row[at] ?? BLANK;
    if (kind === 'number') counts.set(unit, (counts.get(unit) ?? 0) + 1);
  }
  if (counts.size < 2) return [];
  const ranked = [...counts].sort(([, a], [, b]) => b - a);
  const words = ranked.map(([unit, n]) => `${unit || 'no unit'} ${showCount(n)}×`).join(', ');
  const fewer = ranked.slice(1).reduce((n, [, count]) => n + count, 0);
  return [
    doubt(
      'mixedKinds',
      fewer,
      `By the formats of its cells ${name} holds numbers of several units (${words}). They are read as plain numbers, and a sum would add them up as one.`,
      { column: id },
    ),
  ];
}

/** Errors in place of values, and formulas that were never calculated, by their records. */
function errorsIn({ id, name, type }: ColumnRecipe, records: CellGrid, at: number): Doubt[] {
  const places: Place[] = [];
  records.forEach((row, record) => {
    const cell = row[at] ?? BLANK;
    if (cell.kind === 'error') places.push({ record, text: cell.text });
  });
  if (places.length === 0) return [];
  const formulas = places.filter(({ text }) => text.startsWith('=')).length;
  const errors = places.length - formulas;
  const what = [
    errors
      ? `${counted(errors, 'cell')} of ${name} ${errors === 1 ? 'holds an error' : 'hold errors'} in place of a value`
      : '',
    formulas
      ? `${counted(formulas, 'cell')} of ${name} ${formulas === 1 ? 'holds a formula' : 'hold formulas'} that no program has calculated yet; open the workbook in its program and save it`
      : '',
  ].filter(Boolean);
  const one = places.length === 1;
  const asText = one ? 'It stands as its text' : 'They stand as their text';
  const unread = one ? 'It is unread' : 'They are unread';
  return [
    doubt(
      'errorCells',
      places.length,
      `${what.join('; ')}. ${type === 'text' ? asText : unread}.`,
      { column: id, places },
    ),
  ];
}

/** Numbers kept as text in columns that are read as numbers, each by its record. */
export function gridDoubts(recipe: Recipe, grid: CellGrid): Doubt[] {
  const records = recordsOf(grid, recipe);
  const out: Doubt[] = [];
  for (const column of recipe.columns) {
    const { at, name, id } = column;
    if (at === null) continue;
    out.push(...mixedUnits(column, records, at), ...errorsIn(column, records, at));
    const read = numberReader({ ...column, unit: '' }, noNumberFacts());
    const numbers: Place[] = [];
    let asText = 0;
    records.forEach((row, record) => {
      const cell = row[at] ?? BLANK;
      const text = cell.text.trim();
      if (cell.kind !== 'text' || text === '' || Number.isNaN(read(text))) return;
      asText++;
      if (numbers.length < PLACES) numbers.push({ record, text: cell.text });
    });
    if (asText && column.type === 'number')
      out.push(
        doubt(
          'numbersAsText',
          asText,
          `${counted(asText, 'cell')} of ${name} ${asText === 1 ? 'holds a number' : 'hold numbers'} as text. ${asText === 1 ? 'It is' : 'They are'} read as ${asText === 1 ? 'a number' : 'numbers'} here; a program that adds the column may have left ${asText === 1 ? 'it' : 'them'} out.`,
          { column: id, places: numbers },
        ),
      );
  }
  return out;
}
