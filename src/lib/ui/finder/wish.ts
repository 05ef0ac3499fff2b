import { MEASURES, MEASURE_KINDS, type MeasureKind } from '../../core/measure/measure';
import { CALENDAR_PERIODS, type CalendarPeriod } from '../../core/table/period';
import type { Wish } from '../../core/tally/guess';
import type { Counts } from '../../engine/protocol';

/** Words for measures besides those of the catalogue. */
const ALSO: Readonly<Record<string, MeasureKind>> = {
  total: 'sum',
  average: 'mean',
  count: 'records',
  number: 'records',
  highest: 'max',
  lowest: 'min',
  maximum: 'max',
  minimum: 'min',
  deviation: 'sd',
};

const PERIOD_WORDS: Readonly<Record<string, CalendarPeriod>> = {
  ...Object.fromEntries(
    CALENDAR_PERIODS.flatMap((period) => [
      [period, period],
      [`${period}s`, period],
    ]),
  ),
  monthly: 'month',
  yearly: 'year',
  weekly: 'week',
  daily: 'day',
  quarterly: 'quarter',
};

/**
 * What was typed as a wish: a measure, the column it is of, what it is by, a period. Null where
 * nothing of it is a measure, a column or a period.
 * @example wishOf('median delay by vessel', columns) // { measure: 'median', column: 'delay', by: ['vessel'] }
 */
export function wishOf(text: string, columns: Counts['columns']): Wish | null {
  const typed = ` ${text.toLowerCase().trim().replace(/\s+/g, ' ')} `;
  const [first, ...rest] = typed.split(/ by | for each | per /);
  const after = ` ${rest.join(' ')} `;
  const column = columnIn(first, columns);
  const by = columns
    .filter((c) => rest.length > 0 && c.id !== column?.id && holds(after, c.name))
    .map((c) => c.id);
  const measure = measureIn(first);
  const period = periodIn(after) ?? periodIn(first);
  if (!column && by.length === 0 && !measure && !period) return null;
  return {
    ...(column && { column: column.id }),
    ...(measure && { measure }),
    ...(by.length && { by }),
    ...(period && { period }),
  };
}

/** Whether a text names a column: by its whole name, or by a word of it of four letters or more. */
function holds(text: string, name: string): boolean {
  const small = name.toLowerCase().trim();
  if (text.includes(` ${small} `)) return true;
  return small
    .split(/\s+/)
    .some(
      (word) =>
        word.length >= 4 && text.split(' ').some((t) => t.length >= 4 && word.startsWith(t)),
    );
}

const columnIn = (
  text: string,
  columns: Counts['columns'],
): Counts['columns'][number] | undefined => columns.find((c) => holds(` ${text} `, c.name));

function measureIn(text: string): MeasureKind | undefined {
  const words = text.trim().split(' ');
  const known = MEASURE_KINDS.find((kind) => words.includes(MEASURES[kind].says));
  return known ?? words.map((word) => ALSO[word]).find((kind) => kind !== undefined);
}

const periodIn = (text: string): CalendarPeriod | undefined =>
  text
    .split(' ')
    .map((word) => PERIOD_WORDS[word])
    .find((period) => period !== undefined);
