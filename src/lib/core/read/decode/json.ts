import { showCount } from '../../table/format';
import { IntakeError } from '../../errors';
import { BLANK, type CellGrid, type GridCell } from './cellGrid';

/** Columns beyond these would be the keys of something that is no table. */
const MOST_PATHS = 1000;
const DEEPEST = 12;

/**
 * Records of JSON: an array of objects, objects line by line, or an object that holds one such array.
 * A field within a field is a column by its path, `vessel.name`; an array within a record is its text.
 * Numbers of more digits than a number here can hold stay text, with all of them.
 * @throws IntakeError
 */
export function jsonGrid(bytes: Uint8Array): CellGrid {
  const text = new TextDecoder().decode(bytes).replace(/^\ufeff/, '');
  const records = recordsOf(text);
  const columns = new Map<string, number>();
  const rows = records.map((record) => {
    const row: GridCell[] = [];
    fill(row, record, '', columns, 0);
    return row;
  });
  if (columns.size === 0)
    throw new IntakeError('noColumns', 'The JSON holds no objects with fields to read as records.');
  const heads = [...columns.keys()].map((path): GridCell => ({ kind: 'text', text: path }));
  return [heads, ...rows.map((row) => Array.from(heads, (_, c) => row[c] ?? BLANK))];
}

/** A number of more significant digits than a double holds, outside of any text. */
const NUMBERS = /"(?:[^"\\]|\\.)*"|-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?/g;
const digitsIn = (number: string): number =>
  number.replace(/^-|[eE].*$|\./g, '').replace(/^0+/, '').length;
const held = (text: string): string =>
  /\d{16}|\d\.\d{15}/.test(text)
    ? text.replace(NUMBERS, (m) =>
        m[0] !== '"' && digitsIn(m) > 15 && String(Number(m)) !== m ? `"${m}"` : m,
      )
    : text;

function recordsOf(text: string): readonly object[] {
  let whole: unknown;
  try {
    whole = JSON.parse(held(text));
  } catch (error) {
    return lineRecords(text, error);
  }
  const found = arrayIn(whole);
  if (!found)
    throw new IntakeError(
      'form',
      'The JSON is no array of objects, and holds none that stands alone.',
    );
  const odd = found.findIndex((record) => !isObject(record));
  if (odd >= 0)
    throw new IntakeError(
      'form',
      `Element ${odd + 1} of the JSON array is no object, as a record must be.`,
    );
  return found.filter(isObject);
}

const isObject = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The array itself, or the only array of objects among the fields of an object; an object alone is one record. */
function arrayIn(whole: unknown): readonly unknown[] | null {
  if (Array.isArray(whole)) return whole;
  if (!isObject(whole)) return null;
  const arrays = Object.values(whole).filter(
    (value): value is unknown[] => Array.isArray(value) && value.some(isObject),
  );
  return arrays.length === 1 ? arrays[0] : arrays.length ? null : [whole];
}

/** Objects one to a line. */
function lineRecords(text: string, error: unknown): readonly object[] {
  const lines = text.split(/\r?\n/);
  const filled = lines.flatMap((line, k) => (line.trim() ? [k] : []));
  return filled.map((k) => {
    let record: unknown = null;
    try {
      record = JSON.parse(held(lines[k]));
    } catch {
      // One document in error says more by itself than by its lines.
      const words = error instanceof Error && k === filled[0] ? ` ${error.message}` : '';
      throw new IntakeError('form', `Line ${k + 1} is not JSON.${words}`);
    }
    if (!isObject(record)) throw new IntakeError('form', `Line ${k + 1} is no JSON object.`);
    return record;
  });
}

function fill(
  row: GridCell[],
  record: object,
  before: string,
  columns: Map<string, number>,
  depth: number,
): void {
  for (const [key, value] of Object.entries(record)) {
    const path = before ? `${before}.${key}` : key;
    if (isObject(value) && depth < DEEPEST && Object.keys(value).length) {
      fill(row, value, path, columns, depth + 1);
      continue;
    }
    let at = columns.get(path);
    if (at === undefined) columns.set(path, (at = columns.size));
    if (columns.size > MOST_PATHS)
      throw new IntakeError(
        'tooManyColumns',
        `The JSON has more than ${showCount(MOST_PATHS)} fields; a list can have that many columns.`,
      );
    row[at] = cellOf(value);
  }
}

function cellOf(value: unknown): GridCell {
  if (value === null || value === undefined || value === '') return BLANK;
  if (typeof value === 'number') return { kind: 'number', text: String(value) };
  if (typeof value === 'boolean') return { kind: 'yesno', text: value ? 'yes' : 'no' };
  return { kind: 'text', text: typeof value === 'string' ? value : JSON.stringify(value) };
}
