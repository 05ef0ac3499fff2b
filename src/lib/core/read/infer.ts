import type { Grain } from '../table/column';
import { DAY_MS, dayNumber } from '../table/calendar';
import { noDateFacts, readClock, readDate, readDateTime } from './dates';
import { isCodeLike, isIdentifier } from './identifier';
import { isTooLong, noNumberFacts, numberReader, unitBehind, type NumberStyle } from './numbers';
import { BLANK_WORDS, type ColumnRecipe, type DateOrder } from './recipe';
import { readYesNo } from './yesno';

/** Cells that look like something else keep a column from being numbers when they are more than this share. */
const FEW = 0.05;

/** A type is taken when at least this share of the cells that are not blank read as it. */
const ENOUGH = 0.85;

/** Heads that hold a unit: `Delay (min)`, `Fares [£]`. */
export function unitOfHead(head: string): { name: string; unit: string } {
  const m = /^(.*\S)\s*[([]([^()[\]]{1,12})[)\]]$/.exec(head);
  // “Fares (2)” is the second of that name.
  return m && !/^\d+$/.test(m[2].trim())
    ? { name: m[1].trim(), unit: m[2].trim() }
    : { name: head, unit: '' };
}

type Reading = Pick<
  ColumnRecipe,
  | 'type'
  | 'thousands'
  | 'decimal'
  | 'dateOrder'
  | 'grain'
  | 'unitInCells'
  | 'zone'
  | 'unit'
  | 'takenOff'
  | 'dayNumbers'
>;

const asText: Reading = {
  type: 'text',
  thousands: '',
  decimal: '.',
  dateOrder: 'ymd',
  dayNumbers: false,
  grain: 'day',
  takenOff: '',
  unitInCells: false,
  zone: 'clock',
  unit: '',
};

/**
 * How a column reads, from its cells.
 * @param cells texts of the column; blanks may be among them
 * @returns the recipe's reading part, with the blank words that occur
 */
export function inferColumn(
  head: string,
  cells: readonly string[],
): Omit<ColumnRecipe, 'id' | 'source' | 'at'> {
  const { name, unit } = unitOfHead(head);
  const words = new Set<string>(BLANK_WORDS);
  const found = new Set<string>();
  const texts: string[] = [];
  for (const cell of cells) {
    const text = cell.trim();
    if (text === '') continue;
    if (words.has(text)) found.add(text);
    else texts.push(text);
  }
  const reading = texts.length === 0 ? asText : bestReading(head, texts);
  // "none" is a word like others in a column of text.
  const blanks = [...found].filter((word) => reading.type !== 'text' || word !== 'none');
  return { ...reading, name, unit: reading.unit || unit, blanks };
}

function bestReading(head: string, texts: readonly string[]): Reading {
  if (isYesNo(texts)) return { ...asText, type: 'yesno' };
  const enough = texts.length * ENOUGH;
  const date = inferDate(head, texts, enough);
  if (date) return date;
  if (share(texts, (t) => !Number.isNaN(readClock(t))) >= enough)
    return { ...asText, type: 'time' };
  if (isIdentifier(head, texts)) return asText;
  return inferNumber(texts, enough) ?? asText;
}

/** Nothing but yes and no. A single word in capitals may be a name: NO is also a country. */
function isYesNo(texts: readonly string[]): boolean {
  if (!texts.every((text) => !Number.isNaN(readYesNo(text)))) return false;
  const words = new Set(texts);
  if (words.size > 2) return false;
  if (words.size === 2) return true;
  const [word] = words;
  return /^(yes|no|true|false)$/i.test(word) && word !== word.toUpperCase();
}

const share = (texts: readonly string[], test: (text: string) => boolean): number => {
  let n = 0;
  for (const text of texts) if (test(text)) n++;
  return n;
};

/** Heads that say that dates stand below. */
export const SAYS_DATE =
  /date|day|datum|when|\bon\b|_on\b|_at\b|month|year|period|quarter|born|since|until/i;
/** Dates outside these years are taken for others only under a head that says so. */
const [EARLIEST, LATEST] = [dayNumber(1900, 1, 1), dayNumber(2100, 12, 31)];

/** Numbers and versions are dates only under a head that says so, and where each could be one. */
function mayBeDates(head: string, texts: readonly string[], enough: number): boolean {
  const said = SAYS_DATE.test(head);
  const bare = share(texts, (t) => /^[-+]?\d+([.,]\d+)?$/.test(t));
  if (bare > texts.length / 2) {
    const years = share(texts, (t) => /^(1[89]|20|21)\d\d$/.test(t));
    const compact = share(texts, (t) => /^(19|20)\d\d(0[1-9]|1[0-2])([0-2]\d|3[01])$/.test(t));
    const months = share(texts, (t) => /^(19|20)\d\d\.(0[1-9]|1[0-2])$/.test(t));
    const isYear = years >= enough && /\byear\b/i.test(head);
    const isCompact = compact >= enough && /date|day|_on\b/i.test(head);
    return isYear || isCompact || (months >= enough && said);
  }
  const versions = share(texts, (t) => /^\d{1,2}\.\d{1,2}\.\d{1,2}$/.test(t));
  if (versions > texts.length / 2) {
    const padded = share(texts, (t) => /^\d\d\.\d\d\.\d\d$/.test(t));
    return said && padded >= enough;
  }
  return true;
}

/** Whether a value read as a date and time lies where dates of lists lie. */
const isPlausible = (ms: number, said: boolean): boolean =>
  ms === ms && (said || (ms >= EARLIEST * DAY_MS && ms < (LATEST + 1) * DAY_MS));

function inferDate(head: string, texts: readonly string[], enough: number): Reading | null {
  if (!mayBeDates(head, texts, enough)) return null;
  const said = SAYS_DATE.test(head);
  const orders: DateOrder[] = ['dmy', 'mdy', 'ymd'];
  let best: { order: DateOrder; read: number; timed: boolean } | null = null;
  for (const order of orders) {
    const facts = noDateFacts();
    const read = share(texts, (t) => isPlausible(readDateTime(t, order, 'clock', facts), said));
    const timed = share(texts, (t) => /\d[T ,]+\d{1,2}:\d{2}/.test(t)) > texts.length / 2;
    if (read >= enough && (!best || read > best.read)) best = { order, read, timed };
  }
  if (!best) return null;
  const facts = noDateFacts();
  for (const t of texts) readDateTime(t, best.order, 'clock', facts);
  const dateOrder = facts.numeric > 0 ? best.order : 'ymd';
  const grain = (Object.entries(facts.grains) as [Grain, number][]).reduce((a, b) =>
    b[1] > a[1] ? b : a,
  )[0];
  if (best.timed)
    return {
      ...asText,
      type: 'datetime',
      dateOrder,
      zone: facts.offsets.size > 1 ? 'utc' : 'clock',
    };
  if (share(texts, (t) => !Number.isNaN(readDate(t, best.order, noDateFacts()))) < enough)
    return null;
  return { ...asText, type: 'date', dateOrder, grain };
}

const STYLES: readonly Omit<NumberStyle, 'unit'>[] = [
  { thousands: '', decimal: '.' },
  { thousands: ',', decimal: '.' },
  { thousands: '', decimal: ',' },
  { thousands: '.', decimal: ',' },
  { thousands: ' ', decimal: '.' },
  { thousands: ' ', decimal: ',' },
  { thousands: "'", decimal: '.' },
];

function inferNumber(texts: readonly string[], enough: number): Reading | null {
  // Codes with leading zeros or a letter E, and numbers too long for a double, stay text: all of the column
  // where there are more than a few, else those cells, unread with all their digits.
  const codes = share(texts, (t) => isCodeLike(t) || /^\d{16,}$/.test(t) || isTooLong(t));
  if (codes > texts.length * FEW) return null;
  const units = new Map<string, number>();
  for (const t of texts) {
    const unit = unitBehind(t);
    if (unit) units.set(unit, (units.get(unit) ?? 0) + 1);
  }
  const [topUnit, topCount] = [...units].reduce((a, b) => (b[1] > a[1] ? b : a), ['', 0]);
  const unit = topCount > texts.length / 2 ? topUnit : '';
  let best: { style: NumberStyle; read: number; marked: boolean } | null = null;
  for (const style of STYLES) {
    const facts = noNumberFacts();
    const read = numberReader({ ...style, unit, takenOff: 'CR' }, facts);
    const n = share(texts, (t) => !Number.isNaN(read(t)));
    const marked = facts.credits + facts.debits > 0;
    if (n > (best?.read ?? 0)) best = { style: { ...style, unit }, read: n, marked };
  }
  if (!best || best.read < enough) return null;
  const { style, marked } = best;
  return {
    ...asText,
    type: 'number',
    ...style,
    // Which of the two takes off is asked.
    takenOff: marked ? 'CR' : '',
    unit: unit || currencyOf(texts, style),
    unitInCells: unit !== '',
  };
}

/** The currency that stands beside more than half of the numbers; '' where none does, or several do. */
function currencyOf(texts: readonly string[], style: NumberStyle): string {
  const facts = noNumberFacts();
  const read = numberReader(style, facts);
  const values = share(texts, (t) => !Number.isNaN(read(t)));
  const [[sign, count] = ['', 0], ...others] = facts.currencies;
  return others.length === 0 && count > values / 2 ? sign : '';
}

/**
 * Whether every marked number of a column could be read in two ways: `1,200` as 1200 or as 1.2, and
 * `1.234` as 1.234 or as 1234.
 */
export function marksAmbiguous(
  texts: Iterable<string>,
  { thousands, decimal }: Pick<ColumnRecipe, 'thousands' | 'decimal'>,
): boolean {
  const mark = thousands === '' ? decimal : thousands;
  if (thousands === ' ') return false;
  let marked = 0;
  for (const text of texts) {
    const parts = text.trim().split(mark);
    if (parts.length === 1) {
      if (thousands !== '' && text.includes(decimal)) return false;
      continue;
    }
    // Both marks in one number, or one of them twice, say which is which; so does another number
    // of digits on either side, and a zero in front.
    if (parts.length > 2 || (thousands !== '' && text.includes(decimal))) return false;
    const [whole, behind] = parts.map((part) => part.replace(/[^\d]/g, ''));
    if (behind.length !== 3 || whole.length < 1 || whole.length > 3 || whole.startsWith('0'))
      return false;
    marked++;
  }
  return marked > 0;
}

/** The decimal mark that a column of numbers shows beyond doubt; null where it shows none. */
export function decimalShown(texts: Iterable<string>): '.' | ',' | null {
  for (const text of texts) {
    const marks = text.replace(/[^.,]/g, '');
    if (marks === '') continue;
    const last = marks.endsWith('.') ? '.' : ',';
    if (marks.includes('.') && marks.includes(',')) return last;
    if (marks.length > 1) return last === '.' ? ',' : '.';
    const [whole, behind] = text.split(last).map((part) => part.replace(/\D/g, ''));
    if (behind.length !== 3 || whole.length > 3 || whole === '' || whole.startsWith('0'))
      return last;
  }
  return null;
}

/** Headings made usable: never empty, never twice. `changed` lists the places that were altered. */
export function uniqueNames(heads: readonly string[]): { names: string[]; changed: number[] } {
  const taken = new Set<string>();
  const changed: number[] = [];
  const names = heads.map((head, at) => {
    const plain = head.trim().slice(0, 180);
    const base = plain || `Column ${at + 1}`;
    let name = base;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${base} (${n})`;
    taken.add(name.toLowerCase());
    if (name !== plain) changed.push(at);
    return name;
  });
  return { names, changed };
}

/** Identifiers from names: letters, digits and underscores, distinct. */
export function columnIds(names: readonly string[], taken: Iterable<string> = []): string[] {
  const used = new Set(taken);
  return names.map((name, at) => {
    const base =
      name
        .normalize('NFKD')
        .replace(/\p{M}/gu, '')
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '_')
        .replace(/^_+|_+$/g, '')
        .slice(0, 60) || `column_${at + 1}`;
    let id = base;
    for (let n = 2; used.has(id); n++) id = `${base}_${n}`;
    used.add(id);
    return id;
  });
}
