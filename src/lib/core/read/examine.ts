import { counted, plainNumber, showCount } from '../table/format';
import { finish } from '../task/task';
import { typeName } from '../table/column';
import type { DelimitedReading, ReadThrough } from './delimited';
import { isUndecided, type DateFacts } from './dates';
import { doubt, PLACES, type Doubt } from './doubts';
import { decimalShown, marksAmbiguous, uniqueNames, unitOfHead } from './infer';
import { isTooLong } from './numbers';
import { accountMarks, kindDoubts } from './kindDoubts';
import type { ColumnRecipe, Recipe } from './recipe';
import { findTotals, type TotalLike, type TotalMark } from './totals';
import { findTwins } from './twins';

/** All that is doubtful in a reading, and the records proposed for setting aside. */
export interface Examination {
  readonly doubts: Doubt[];
  readonly totals: TotalLike[];
}

/**
 * Looks through a reading for everything that could make a figure wrong in silence.
 * @param marked records that a sheet marks as totals
 */
export function examine(
  recipe: Recipe,
  reading: DelimitedReading,
  marked: ReadonlyMap<number, TotalMark> = new Map(),
): Examination {
  const totals = finish(findTotals(reading.table, marked));
  const doubts = [
    ...columnsDoubts(recipe, reading, (column, c) => kindDoubts(column, c, reading)),
    ...widthDoubts(reading),
    ...recordDoubts(reading, totals),
    ...fileDoubts(recipe, reading),
  ];
  return { doubts: urgentFirst(doubts), totals };
}

/**
 * The same of a file whose records are gone again: records that look like totals, those that stand twice,
 * and values of another kind than the rest of their column are not looked for.
 */
export const examineThrough = (recipe: Recipe, reading: ReadThrough): Doubt[] =>
  urgentFirst([
    ...columnsDoubts(recipe, reading, (column, c) =>
      column.type === 'number' ? accountMarks(column, reading.evidence.columns[c]) : [],
    ),
    ...widthDoubts(reading),
    ...fileDoubts(recipe, reading),
  ]);

/** What must be answered comes first, then what makes figures wrong, then what may. */
const urgentFirst = (doubts: Doubt[]): Doubt[] =>
  doubts.sort((a, b) => Number(b.asks) - Number(a.asks));

const columnsDoubts = (
  recipe: Recipe,
  reading: ReadThrough,
  ofKind: (column: ColumnRecipe, c: number) => Doubt[],
): Doubt[] => [
  ...recipe.columns.flatMap((column, c) => [
    ...columnDoubts(recipe, c, reading),
    ...ofKind(column, c),
  ]),
  ...nameDoubts(recipe),
];

function columnDoubts(recipe: Recipe, c: number, { table, evidence }: ReadThrough): Doubt[] {
  const column = recipe.columns[c];
  const read = table.columns[c];
  const seen = evidence.columns[c];
  const out: Doubt[] = [];
  const at = { column: column.id };
  if (read.unread?.size)
    out.push(
      doubt(
        'unread',
        read.unread.size,
        `${counted(read.unread.size, 'cell')} of ${column.name} cannot be read as ${column.type === 'yesno' ? '' : 'a '}${typeName[column.type]}. ` +
          tooLongWords(column, read.unread) +
          (read.unread.size === 1 ? 'It keeps its text' : 'They keep their text') +
          ' and no figure counts the value until it is corrected.',
        { ...at, places: [...read.unread].map(([record, text]) => ({ record, text })) },
      ),
    );
  const { dates } = seen;
  const dated = column.type === 'date' || column.type === 'datetime';
  if (dated && isUndecided(dates))
    out.push(
      doubt(
        'ambiguousDates',
        dates.undecided,
        `No value of ${column.name} tells day and month apart: ${counted(dates.undecided, 'date')} can be read both ways. Say which comes first.`,
        { ...at, asks: true },
      ),
    );
  if (column.type === 'number') out.push(...marksDoubt(column, c, recipe, evidence));
  if (dated) out.push(...offsetDoubts(column, dates));
  if (dates.finer > 0)
    out.push(
      doubt(
        'longNumbers',
        dates.finer,
        `${counted(dates.finer, 'time')} of ${column.name} ${dates.finer === 1 ? 'is' : 'are'} finer than a millisecond: what is behind it is cut off.`,
        at,
      ),
    );
  if (seen.outerSpaces.count > 0)
    out.push(
      doubt(
        'outerSpaces',
        seen.outerSpaces.count,
        `${counted(seen.outerSpaces.count, 'cell')} of ${column.name} ${seen.outerSpaces.count === 1 ? 'begins or ends' : 'begin or end'} with spaces. Grouping can ignore them.`,
        {
          ...at,
          places: seen.outerSpaces.records.map((record) => ({
            record,
            text: textAt(read, record),
          })),
        },
      ),
    );
  if (seen.blankWords.size > 0) {
    const n = [...seen.blankWords.values()].reduce((a, b) => a + b, 0);
    const words = [...seen.blankWords]
      .map(([word, times]) => `“${word}” ${showCount(times)}×`)
      .join(', ');
    out.push(
      doubt(
        'blankWords',
        n,
        `${counted(n, 'cell')} of ${column.name} read as blank: ${words}.`,
        at,
      ),
    );
  }
  if (seen.longCells.count > 0)
    out.push(
      doubt(
        'longCells',
        seen.longCells.count,
        `${counted(seen.longCells.count, 'cell')} of ${column.name} hold over a million characters: a quote may be missing nearby.`,
        { ...at, places: seen.longCells.records.map((record) => ({ record, text: '' })) },
      ),
    );
  return out;
}

/** How many unread cells are numbers whose digits would be lost; empty where there are none. */
function tooLongWords({ type }: ColumnRecipe, unread: ReadonlyMap<number, string>): string {
  if (type !== 'number') return '';
  let long = 0;
  for (const text of unread.values()) if (isTooLong(text.trim())) long++;
  if (long === 0) return '';
  const said =
    long === unread.size
      ? long === 1
        ? 'It is'
        : 'They are'
      : long === 1
        ? 'One of them is'
        : `${showCount(long)} of them are`;
  return `${said} too long to be calculated with: digits would be lost. `;
}

/** Times of several offsets, or with an offset and without one. */
function offsetDoubts({ id, name, zone }: ColumnRecipe, dates: DateFacts): Doubt[] {
  const { offsets, withoutOffset } = dates;
  if (offsets.size === 0 || (offsets.size === 1 && withoutOffset === 0)) return [];
  const kept = zone === 'utc' ? 'turned to UTC' : 'kept as the clock was written';
  const carried =
    offsets.size > 1
      ? `Times in ${name} carry ${offsets.size} different offsets; they are ${kept}.`
      : `Times in ${name} carry an offset (${[...offsets][0]}); they are ${kept}.`;
  const bare = withoutOffset
    ? ` ${counted(withoutOffset, 'time')} ${withoutOffset === 1 ? 'has' : 'have'} none and ${withoutOffset === 1 ? 'is' : 'are'} ${zone === 'utc' ? 'unread: nobody can say which time of UTC' : 'taken for the same clock'}.`
    : '';
  return [doubt('mixedOffsets', offsets.size, carried + bare, { column: id })];
}

/** A mark that could be either of two; another column of the same file may tell which it is. */
function marksDoubt(
  column: ColumnRecipe,
  c: number,
  recipe: Recipe,
  { samples }: DelimitedReading['evidence'],
): Doubt[] {
  const { id, name, thousands, decimal } = column;
  if (!marksAmbiguous(samples[c], column)) return [];
  const tells = recipe.columns.find(
    (other, k) => k !== c && other.type === 'number' && decimalShown(samples[k]) === decimal,
  );
  const [mark, taken, other] =
    thousands === '' ? [decimal, 'decimal', 'thousands'] : [thousands, 'thousands', 'decimal'];
  const settled = tells !== undefined && thousands !== "'";
  return [
    doubt(
      'ambiguousMarks',
      1,
      `The mark “${mark}” in ${name} is read as a ${taken} mark` +
        (settled
          ? `, as ${tells.name} shows; its own values would allow a ${other} mark.`
          : `; no value rules out a ${other} mark. Say which it is.`),
      { column: id, asks: !settled },
    ),
  ];
}

const textAt = (
  { codes, dictionary, unread }: ReadThrough['table']['columns'][number],
  record: number,
): string => (codes ? dictionary?.[codes[record]] : unread?.get(record)) ?? '';

function nameDoubts(recipe: Recipe): Doubt[] {
  if (!recipe.header) return [];
  const { names, changed } = uniqueNames(recipe.columns.map((c) => unitOfHead(c.source).name));
  if (changed.length === 0) return [];
  return [
    doubt(
      'names',
      changed.length,
      `${counted(changed.length, 'column name')} ${changed.length === 1 ? 'was empty, repeated or too long and is' : 'were empty, repeated or too long and are'} now: ` +
        `${changed
          .slice(0, 8)
          .map((at) => `“${names[at].slice(0, 60)}”`)
          .join(', ')}.`,
    ),
  ];
}

const MARK_WORDS: Readonly<Record<TotalMark, string>> = {
  formula: 'a formula adds up the cells above',
  bold: 'in bold type, and a key is blank',
};

/** What gives a total away, with the sums compared. */
function evidenceWords(why: TotalLike['why']): string {
  const records = ({ from, to, without }: { from: number; to: number; without: number }): string =>
    (from === to ? `record ${from + 1}` : `records ${from + 1} to ${to + 1}`) +
    (without ? ` without the ${counted(without, 'total')} among them` : '');
  if (why.kind === 'sum')
    return `${why.column ? `${why.column} is ` : ''}the sum of ${records(why)}${why.column ? ', and a key is blank' : ''}`;
  const { sum } = why;
  const said = why.kind === 'label' ? `${why.column}: ${why.text}` : MARK_WORDS[why.mark];
  if (!sum) return said;
  const [stated, added] = [sum.stated, sum.sum].map((v) => plainNumber(v));
  switch (sum.how) {
    case 'agrees':
      return `${said}; its ${sum.column} is the sum of ${records(sum)}`;
    case 'doubled':
      return `${said}; its ${sum.column}, ${stated}, is twice the sum of ${records(sum)}, ${added}: totals were added up with the rest`;
    case 'differs':
      return `${said}; its ${sum.column} is ${stated}, ${records(sum)} add up to ${added}`;
  }
}

/** Records with more or fewer cells than the table has columns. */
function widthDoubts({ evidence }: ReadThrough): Doubt[] {
  const { widthFaults } = evidence;
  return widthFaults.count === 0
    ? []
    : [
        doubt(
          'width',
          widthFaults.count,
          `${counted(widthFaults.count, 'record')} ${widthFaults.count === 1 ? 'does' : 'do'} not have ${counted(evidence.width, 'cell')}. Missing cells are blank; cells past the last column are left out.`,
          {
            places: widthFaults.first.map((f) => ({
              record: f.record,
              text: `${counted(f.cells, 'cell')}${f.extra ? `, left out: ${f.extra}` : ''}`,
            })),
          },
        ),
      ];
}

function recordDoubts({ table }: DelimitedReading, totals: readonly TotalLike[]): Doubt[] {
  const out: Doubt[] = [];
  if (totals.length > 0)
    out.push(
      doubt(
        'totals',
        totals.length,
        `${counted(totals.length, 'record')} ${totals.length === 1 ? 'looks like a total' : 'look like totals'} inside the list. Counted with the rest, ${totals.length === 1 ? 'it' : 'they'} would double every sum.`,
        {
          places: totals.map(({ record, why }) => ({
            record,
            text: evidenceWords(why),
          })),
        },
      ),
    );
  const twins = findTwins(table);
  if (twins.length > 0)
    out.push(
      doubt(
        'twins',
        twins.length,
        `${counted(twins.length, 'record')} ${twins.length === 1 ? 'stands' : 'stand'} twice: the same in every column.`,
        {
          places: twins
            .slice(0, PLACES)
            .map((t) => ({ record: t.record, text: `the same as record ${t.of + 1}` })),
        },
      ),
    );
  return out;
}

function fileDoubts(recipe: Recipe, { evidence }: ReadThrough): Doubt[] {
  const out: Doubt[] = [];
  if (evidence.quoteFaults.length > 0)
    out.push(
      doubt(
        'quotes',
        evidence.quoteFaults.length,
        `${counted(evidence.quoteFaults.length, 'record')} ${evidence.quoteFaults.length === 1 ? 'has' : 'have'} a quote in the wrong place; cells there may have run together.`,
        {
          places: evidence.quoteFaults
            .slice(0, PLACES)
            .map((row) => ({ record: Math.max(0, row - (recipe.header ? 1 : 0)), text: '' })),
        },
      ),
    );
  if (evidence.skipped.length > 0)
    out.push(
      doubt(
        'skippedLines',
        evidence.skipped.length,
        `${counted(evidence.skipped.length, 'line')} above the table ${evidence.skipped.length === 1 ? 'is' : 'are'} left out: ${evidence.skipped
          .map((line) => line.replace(/[,;\t|]+$/, '').slice(0, 60))
          .filter(Boolean)
          .slice(0, 3)
          .map((line) => `“${line}”`)
          .join(
            ', ',
          )}. Change the number of lines to skip if a record or the header is among them.`,
      ),
    );
  if (evidence.notes.length > 0)
    out.push(
      doubt(
        'notesBelow',
        evidence.notes.length,
        `${counted(evidence.notes.length, 'line')} below the table ${evidence.notes.length === 1 ? 'is' : 'are'} left out: ${evidence.notes
          .slice(0, 3)
          .map((line) => `“${line.slice(0, 60)}”`)
          .join(', ')}. Change the number of notes below if a record is among them.`,
      ),
    );
  const units = evidence.units.filter((unit) => unit !== '');
  if (units.length > 0)
    out.push(
      doubt(
        'headLines',
        units.length,
        `The line below the heads holds units (${[...new Set(units)].slice(0, 6).join(', ')}): it is no record, and they are the units of its columns.`,
      ),
    );
  recipe.columns.forEach(({ id, name, unit }, c) => {
    const own = evidence.units[c] ?? '';
    if (own !== '' && own !== unit)
      out.push(
        doubt(
          'mixedKinds',
          1,
          `${name} is in ${unit || 'no unit'}, and this file says ${own} below its head. Change the unit, or mend the file.`,
          { column: id },
        ),
      );
  });
  if (evidence.headerAgain.count > 0)
    out.push(
      doubt(
        'headerAgain',
        evidence.headerAgain.count,
        `${counted(evidence.headerAgain.count, 'line')} below the header ${evidence.headerAgain.count === 1 ? 'is the header again and is' : 'are the header again and are'} left out.`,
        {
          places: evidence.headerAgain.records.map((record) => ({
            record,
            text: 'before this record',
          })),
        },
      ),
    );
  if (evidence.spanning.count > 0)
    out.push(
      doubt(
        'spanningCells',
        evidence.spanning.count,
        `${counted(evidence.spanning.count, 'cell')} ${evidence.spanning.count === 1 ? 'holds' : 'hold'} many lines of the file: a quote may open there that never was meant to, and records may be inside. Read it with “no quotes” to see.`,
        {
          places: evidence.spanning.first.map(({ record, lines }) => ({
            record,
            text: `${showCount(lines)} lines in one cell`,
          })),
        },
      ),
    );
  if (recipe.header && recipe.columns.filter((c) => /^\d+$/.test(c.source.trim())).length > 1)
    out.push(
      doubt(
        'headerNumbers',
        1,
        `The first line is taken for the header although it holds numbers: ${recipe.columns
          .map((c) => c.source)
          .slice(0, 6)
          .join(', ')}. Turn the header off if it is a record.`,
      ),
    );
  if (evidence.undecoded > 0)
    out.push(
      doubt(
        'undecoded',
        evidence.undecoded,
        `${counted(evidence.undecoded, 'character')} cannot be decoded as ${recipe.encoding.toUpperCase()}. Try another encoding.`,
      ),
    );
  if (evidence.nuls > 0)
    out.push(
      doubt(
        'nuls',
        evidence.nuls,
        `${counted(evidence.nuls, 'NUL character')} in the text. The file may be damaged, or in another encoding.`,
      ),
    );
  if (evidence.mixedLineEnds)
    out.push(
      doubt('lineEnds', 1, 'Lines end in more than one way; each is read as the end of a line.'),
    );
  if (evidence.emptyLines > 0)
    out.push(
      doubt(
        'emptyLines',
        evidence.emptyLines,
        `${counted(evidence.emptyLines, 'empty line')} left out.`,
      ),
    );
  return out;
}
