import { CALENDAR_PERIODS, type CalendarPeriod } from '../../table/period';
import type { Named } from './wishConditions';

/** Which columns the words of a wish name, and what each is named for. */

/** Words in small letters, without the marks that part them. */
export const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[\s,;:?]+/)
    .filter((word) => word !== '');

export const PERIOD_WORDS: ReadonlyMap<string, CalendarPeriod> = new Map([
  ...CALENDAR_PERIODS.flatMap((period) => [
    [period, period] as const,
    [`${period}s`, period] as const,
  ]),
  ['monthly', 'month'],
  ['yearly', 'year'],
  ['weekly', 'week'],
  ['daily', 'day'],
  ['quarterly', 'quarter'],
]);

/** Words after which columns to group by are named. */
const BY = new Set(['by', 'per', 'across']);

export type Role = 'what' | 'by' | 'within' | 'each';

export interface Place {
  readonly at: number;
  readonly column: Named;
  readonly role: Role;
}

/**
 * The columns that words name, in the order in which they stand: by a whole name first, else by a
 * word of it, or its beginning, of four letters or more. A word names one column.
 */
export function placesOf(words: readonly string[], columns: readonly Named[]): Place[] {
  const taken = new Set<number>();
  const found = new Map<Named, number>();
  const longestFirst = columns
    .map((column) => ({ column, name: wordsOf(column.name) }))
    .sort((a, b) => b.name.length - a.name.length);
  for (const { column, name } of longestFirst) {
    if (name.length === 0) continue;
    const at = words.findIndex((_, k) =>
      name.every((word, n) => words[k + n] === word && !taken.has(k + n)),
    );
    if (at < 0) continue;
    found.set(column, at);
    name.forEach((_, n) => taken.add(at + n));
  }
  words.forEach((word, at) => {
    if (word.length < 4 || taken.has(at) || PERIOD_WORDS.has(word)) return;
    const single = word.replace(/s$/, '');
    const column = columns.find(
      (c) => !found.has(c) && wordsOf(c.name).some((w) => w.length >= 4 && w.startsWith(single)),
    );
    if (!column) return;
    found.set(column, at);
    taken.add(at);
  });
  const roles = rolesOf(words);
  return [...found]
    .map(([column, at]) => ({ at, column, role: roles[at] }))
    .sort((a, b) => a.at - b.at);
}

/** What each word stands in: what is figured, what it is by, what it is within or of each of. */
function rolesOf(words: readonly string[]): Role[] {
  let role: Role = 'what';
  return words.map((word) => {
    if (BY.has(word)) role = 'by';
    else if (word === 'within' || word === 'each') role = word;
    return role;
  });
}

export function firstBy(words: readonly string[]): number {
  const at = rolesOf(words).findIndex((role) => role !== 'what');
  return at < 0 ? words.length : at;
}
