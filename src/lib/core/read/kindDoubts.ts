import { DAY_MS, dayNumber, isoDate, plainDate } from '../table/calendar';
import { fullCell } from '../table/cell';
import { isText, type ScalarColumn } from '../table/column';
import type { ColumnEvidence } from './columnReader';
import { counted, isCurrency, plainNumber, showCount } from '../table/format';
import { dayOfSerial } from '../table/serialDay';
import { looksLikeYears } from '../table/years';
import { noDateFacts, readDate } from './dates';
import type { DelimitedReading } from './delimited';
import { doubt, type Doubt } from './doubts';
import { identifierEvidence, isCodeLike, isIdentifier } from './identifier';
import { inferColumn, SAYS_DATE } from './infer';
import { isTooLong, noNumberFacts, numberReader, unitBehind } from './numbers';
import type { ColumnRecipe } from './recipe';

/** Dates beyond these years among others are slips more often than dates. */
const [EARLIEST, LATEST] = [dayNumber(1900, 1, 1), dayNumber(2100, 12, 31)];

/** What makes the kind of a column doubtful: several kinds in it, names that look like quantities. */
export function kindDoubts(
  column: ColumnRecipe,
  c: number,
  { table, evidence }: DelimitedReading,
): Doubt[] {
  const read = table.columns[c];
  const texts = evidence.samples[c].map((t) => t.trim()).filter((t) => t !== '');
  if (isText(read)) return textDoubts(column, texts);
  const { percents, currencies } = evidence.columns[c];
  return [
    ...(read.type === 'number' ? mixedNumbers(column, read, percents, currencies) : []),
    ...(read.type === 'number' ? withoutUnit(column, read, evidence.columns[c]) : []),
    ...(read.type === 'number' ? accountMarks(column, evidence.columns[c]) : []),
    ...(read.type === 'number' ? perhapsIdentifier(column, texts) : []),
    ...(read.type === 'number' ? someCodes(column, texts) : []),
    ...(read.type === 'number' ? plainYears(column, read) : []),
    ...(read.type === 'number' ? perhapsDays(column, read) : []),
    ...(read.type === 'date' || read.type === 'datetime' ? farDates(column, read) : []),
  ];
}

const valuesIn = ({ values }: ScalarColumn): number => {
  let n = 0;
  for (const v of values) if (v === v) n++;
  return n;
};

function mixedNumbers(
  { id, name, unit }: ColumnRecipe,
  read: ScalarColumn,
  percents: number,
  currencies: ReadonlyMap<string, number>,
): Doubt[] {
  const out: Doubt[] = [];
  const values = valuesIn(read);
  if (percents > 0 && percents < values)
    out.push(
      doubt(
        'mixedKinds',
        Math.min(percents, values - percents),
        `${name} holds ${counted(percents, 'per cent', 'per cents')} and ${counted(values - percents, 'plain number')}: 12 % is read as 0.12, and 12 as 12. Mend the file if they mean the same.`,
        { column: id },
      ),
    );
  const [[sign, marked] = ['', 0]] = currencies;
  if (currencies.size === 1 && marked < values && (marked > 1 || unit === sign))
    out.push(
      doubt(
        'mixedKinds',
        values - marked,
        `${counted(marked, 'number')} of ${name} ${marked === 1 ? 'has' : 'have'} ${sign} beside ${marked === 1 ? 'it' : 'them'} and ${counted(values - marked, 'number')} ${values - marked === 1 ? 'has' : 'have'} not: all are read as ${unit || sign}. Mend the file if they are not the same.`,
        { column: id },
      ),
    );
  if (currencies.size === 1 && unit !== '' && unit !== sign && isCurrency(unit))
    out.push(
      doubt(
        'mixedKinds',
        marked,
        `${name} is in ${unit}, and ${counted(marked, 'number')} of this file ${marked === 1 ? 'is' : 'are'} in ${sign}. Change the unit, or mend the file.`,
        { column: id },
      ),
    );
  if (currencies.size > 1)
    out.push(
      doubt(
        'mixedKinds',
        [...currencies.values()].reduce((a, b) => a + b, 0),
        `${name} holds amounts in ${currencies.size} currencies (${[...currencies].map(([sign, n]) => `${sign} ${showCount(n)}×`).join(', ')}); they are read as plain numbers, and a sum would add them up as one.`,
        { column: id },
      ),
    );
  return out;
}

/** Numbers without the unit that others have in their cells: they may be of another. */
function withoutUnit(
  { id, name, unit, unitInCells }: ColumnRecipe,
  read: ScalarColumn,
  { units }: ColumnEvidence,
): Doubt[] {
  if (!unitInCells || units.with === 0 || units.without === 0) return [];
  const [has, have] = [units.without === 1 ? 'has' : 'have', units.with === 1 ? 'has' : 'have'];
  return [
    doubt(
      'mixedKinds',
      units.without,
      `${counted(units.without, 'number')} of ${name} ${has} no ${unit} behind ${units.without === 1 ? 'it' : 'them'}, and ${showCount(units.with)} ${have}: all are read as ${unit}. Mend the file if they are not the same.`,
      {
        column: id,
        places: units.records.map((record) => ({ record, text: fullCell(read, record) })),
      },
    ),
  ];
}

/** Marks of accounts: which of the two takes off is asked. */
export function accountMarks(
  { id, name, takenOff }: ColumnRecipe,
  { credits, debits }: ColumnEvidence,
): Doubt[] {
  if (takenOff === '' || credits + debits === 0) return [];
  const marks = [
    credits ? `CR ${showCount(credits)}×` : '',
    debits ? `DR ${showCount(debits)}×` : '',
  ];
  return [
    doubt(
      'accountMarks',
      credits + debits,
      `Marks of accounts stand behind numbers of ${name} (${marks.filter(Boolean).join(', ')}): those with ${takenOff} are read as less than 0. Say which of the two takes off.`,
      { column: id, asks: true },
    ),
  ];
}

function perhapsIdentifier({ id, name, source }: ColumnRecipe, texts: readonly string[]): Doubt[] {
  const why = identifierEvidence(source, texts);
  if (why.length === 0 || !(why[0].startsWith('its name') || why.length > 1)) return [];
  return [
    doubt(
      'identifier',
      texts.length,
      `${name} may be an identifier and no quantity (${why.join(', ')}). It is read as a number; make it text if it must not be added up.`,
      { column: id },
    ),
  ];
}

/** Numbers that are all years: as dates they are grouped, compared and carried on as periods. */
function plainYears({ id, name, unit }: ColumnRecipe, read: ScalarColumn): Doubt[] {
  if (unit !== '' || !looksLikeYears(read)) return [];
  const years = read.values.filter((v) => v === v);
  const [first, last] = years.reduce(
    ([low, high], v) => [Math.min(low, v), Math.max(high, v)],
    [Infinity, -Infinity],
  );
  if (first === last) return [];
  return [
    doubt(
      'years',
      years.length,
      `${name} may be years (${first} to ${last}). Read as dates, they group and roll up by year; as numbers they are never summed by a first guess.`,
      { column: id },
    ),
  ];
}

/** Days of workbooks, by their numbers: from 1954 to 2118. */
const [FIRST_SERIAL, LAST_SERIAL] = [20_000, 80_000];

/** Numbers under a head that says dates, as a workbook gives days whose format was lost. */
function perhapsDays({ id, name, source, unit }: ColumnRecipe, read: ScalarColumn): Doubt[] {
  if (unit !== '' || !SAYS_DATE.test(source)) return [];
  const values = read.values.filter((v) => v === v);
  if (values.length === 0 || !values.every((v) => v >= FIRST_SERIAL && v < LAST_SERIAL)) return [];
  const day = dayOfSerial(Math.floor(values[0]));
  return [
    doubt(
      'dayNumbers',
      values.length,
      `${name} may be days, of which a workbook keeps the numbers (${plainNumber(values[0])} is ${day === null ? 'none' : plainDate(day)}). As numbers they have no months and no years.`,
      { column: id },
    ),
  ];
}

/** A few cells among numbers that a number would not be written as. */
function someCodes({ id, name }: ColumnRecipe, texts: readonly string[]): Doubt[] {
  const codes = texts.filter(isCodeLike);
  if (codes.length === 0) return [];
  return [
    doubt(
      'mixedKinds',
      codes.length,
      `${counted(codes.length, 'cell')} of ${name} ${codes.length === 1 ? 'is' : 'are'} written like a code (${codes[0].slice(0, 20)}) and read as a number, without its zeros or letter. Make the column text if they matter.`,
      { column: id },
    ),
  ];
}

function farDates({ id, name }: ColumnRecipe, { values, type }: ScalarColumn): Doubt[] {
  const perDay = type === 'datetime' ? DAY_MS : 1;
  const far: { record: number; text: string }[] = [];
  let near = 0;
  values.forEach((v, record) => {
    const day = Math.floor(v / perDay);
    if (day < EARLIEST || day > LATEST) far.push({ record, text: isoDate(day) });
    else if (v === v) near++;
  });
  if (far.length === 0 || near === 0) return [];
  return [
    doubt(
      'farDates',
      far.length,
      `${counted(far.length, 'date')} of ${name} ${far.length === 1 ? 'lies' : 'lie'} before 1900 or after 2100, and the others between.`,
      { column: id, places: far },
    ),
  ];
}

/** Why a column is text although most of its cells are something else, and what would help. */
function textDoubts(column: ColumnRecipe, all: readonly string[]): Doubt[] {
  const { id, name, source, blanks } = column;
  const texts = all.filter((t) => !blanks.includes(t));
  if (texts.length === 0) return [];
  const at = { column: id };
  if (isIdentifier(source, texts))
    return [
      doubt(
        'identifier',
        texts.length,
        `${name} is kept as it stands and never added up: it looks like an identifier (${identifierEvidence(source, texts).join(', ')}). Make it a number if it is a quantity.`,
        at,
      ),
    ];
  const long = texts.filter(isTooLong);
  if (long.length > 0)
    return [
      doubt(
        'longNumbers',
        long.length,
        `${counted(long.length, 'number')} of ${name}, ${long[0].slice(0, 40)} first, ${long.length === 1 ? 'has' : 'have'} more digits than can be calculated with. The column is kept as text; made a number, those cells are unread.`,
        at,
      ),
    ];
  const reader = numberReader({ thousands: ',', decimal: '.', unit: '' }, noNumberFacts());
  const plain = texts.filter((t) => !Number.isNaN(reader(t)));
  const units = texts.filter((t) => Number.isNaN(reader(t)) && unitBehind(t) !== '');
  if (plain.length + units.length > texts.length / 2 && units.length > 0)
    return [
      doubt(
        'mixedKinds',
        Math.min(plain.length, units.length),
        `${name} holds ${counted(plain.length, 'plain number')} and ${counted(units.length, 'number')} with a unit behind (${units[0].slice(0, 30)}): it is kept as text. Write one unit in the file, or make it a number with a unit; cells without one are then unread.`,
        at,
      ),
    ];
  return keptAsText(column, texts);
}

/** Most cells are numbers or dates, and the others keep the column from being so. */
function keptAsText({ id, name, source }: ColumnRecipe, texts: readonly string[]): Doubt[] {
  const number = numberReader(
    { thousands: ',', decimal: '.', unit: '', takenOff: 'CR' },
    noNumberFacts(),
  );
  for (const [what, reads] of [
    ['number', (t: string) => !Number.isNaN(number(t))],
    ['date', (t: string) => !Number.isNaN(readDate(t, 'ymd', noDateFacts()))],
  ] as const) {
    const read = texts.filter(reads);
    const other = texts.filter((t) => !reads(t));
    if (read.length * 2 < texts.length || other.length === 0) continue;
    if (inferColumn(source, read).type !== what) continue;
    return [
      doubt(
        'keptAsText',
        other.length,
        `${counted(read.length, 'cell')} of ${name} ${read.length === 1 ? `is a ${what}` : `are ${what}s`}, but ${counted(other.length, 'cell')} ${other.length === 1 ? 'is' : 'are'} not (${other[0].slice(0, 40)}): it is kept as text. Make it a ${what}, and those are unread until corrected.`,
        { column: id },
      ),
    ];
  }
  return [];
}
