import { counted, showCount } from '../../table/format';
import { IntakeError } from '../../errors';
import { detectEncoding, HEAD_BYTES, TextStream } from '../textDecoding';
import { doubt, type Doubt } from '../doubts';
import { isTooLong } from '../numbers';
import { BLANK, type CellGrid, type GridCell } from './cellGrid';

/** Columns beyond these would be the keys of something that is no table. */
const MOST_PATHS = 1000;
const DEEPEST = 12;
/** Between a field and the field within it: `b.c` by itself is another column than `c` within `b`. */
const WITHIN = '\u0000';

/**
 * Records of JSON: an array of objects, objects line by line, or an object that holds one such array.
 * A field within a field is a column by its path, `vessel.name`; an array within a record is its text.
 * Numbers of more digits than a number here can hold stay text, with all of them.
 * @throws IntakeError
 */
export function jsonGrid(bytes: Uint8Array): { grid: CellGrid; doubts: Doubt[] } {
  const encoding = detectEncoding(bytes.subarray(0, HEAD_BYTES));
  const text = new TextStream(encoding).push(bytes, true).replace(/^\ufeff/, '');
  const records = recordsOf(text);
  const columns = new Map<string, number>();
  const rows = records.map((record) => {
    const row: GridCell[] = [];
    fill(row, record, '', columns, 0);
    return row;
  });
  if (columns.size === 0)
    throw new IntakeError('noColumns', 'The JSON holds no objects with fields to read as records.');
  const heads = [...columns.keys()].map((path): GridCell => ({
    kind: 'text',
    text: path.replaceAll(WITHIN, '.'),
  }));
  return {
    grid: [heads, ...rows.map((row) => Array.from(heads, (_, c) => row[c] ?? BLANK))],
    doubts: repeatedNames(
      text,
      records.reduce((n, record) => n + namesIn(record), 0),
    ),
  };
}

/** Numbers, and texts to step over. */
const NUMBERS = /"[^"\\]*(?:\\.[^"\\]*)*"|-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?/g;
/** Numbers that no double holds are put in quotes, so that their digits stay. */
const withDigitsKept = (text: string): string =>
  /\d{16}|\d\.\d{15}|[eE][+-]?\d{3}/.test(text)
    ? text.replace(NUMBERS, (m) => (m[0] !== '"' && isTooLong(m) ? `"${m}"` : m))
    : text;

const NAMES = /"([^"\\]*(?:\\.[^"\\]*)*)"\s*(:?)|[{}]/g;

/** Names that stand twice in one object, where the later value takes the place of the first without a word. */
function repeatedNames(text: string, names: number): Doubt[] {
  let written = 0;
  for (const [, , colon] of text.matchAll(NAMES)) if (colon) written++;
  if (written === names) return [];
  const open: Set<string>[] = [];
  const repeated = new Map<string, number>();
  for (const [token, name, colon] of text.matchAll(NAMES)) {
    if (token === '{') open.push(new Set());
    else if (token === '}') open.pop();
    else if (colon) {
      if (open.at(-1)?.has(name)) repeated.set(name, (repeated.get(name) ?? 0) + 1);
      open.at(-1)?.add(name);
    }
  }
  if (repeated.size === 0) return [];
  const times = [...repeated.values()].reduce((a, b) => a + b, 0);
  const which = [...repeated.keys()].slice(0, 6).map((name) => `“${name}”`);
  return [
    doubt(
      'names',
      times,
      `${counted(times, 'field')} ${times === 1 ? 'stands' : 'stand'} twice in one object (${which.join(', ')}): the last value of each is read, the one before it is not.`,
    ),
  ];
}

function recordsOf(text: string): readonly object[] {
  let whole: unknown;
  try {
    whole = JSON.parse(withDigitsKept(text));
  } catch (error) {
    return lineRecords(text, error);
  }
  const found = arrayIn(whole);
  if (!found)
    throw new IntakeError(
      'form',
      'The JSON is no array of objects, and holds none that stands alone.',
    );
  // Values without names are a list of one column.
  if (found.length && found.every((value) => !isObject(value) && !Array.isArray(value)))
    return found.map((value) => ({ value }));
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
      record = JSON.parse(withDigitsKept(lines[k]));
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
    const path = before ? `${before}${WITHIN}${key}` : key;
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

/** Names in a value, those within it included. */
function namesIn(value: unknown): number {
  if (Array.isArray(value)) return value.reduce((n: number, inner) => n + namesIn(inner), 0);
  if (!isObject(value)) return 0;
  return Object.values(value).reduce((n: number, inner) => n + 1 + namesIn(inner), 0);
}

function cellOf(value: unknown): GridCell {
  if (value === null || value === undefined || value === '') return BLANK;
  if (typeof value === 'number') return { kind: 'number', text: String(value) };
  if (typeof value === 'boolean') return { kind: 'yesno', text: value ? 'yes' : 'no' };
  return { kind: 'text', text: typeof value === 'string' ? value : JSON.stringify(value) };
}
