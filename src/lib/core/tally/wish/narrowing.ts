import type { Condition } from '../../selection/condition';
import { daysCovered, type Span } from '../../selection/point';
import { daysCondition } from '../series/series';
import { conditionOf, type Named } from './wishConditions';

/** What was typed of what shall count. */
export interface Narrowing {
  /** It says so itself: “only”, “without”. */
  readonly said: boolean;
  /** What is named shall not count. */
  readonly not: boolean;
  /** The words that name a value, where they are no condition. */
  readonly search: string;
  /** What they come to by themselves: days, or a column and what its values are. */
  readonly condition: Condition | null;
}

const ONLY = /^(?:only|just|narrow to)\s+|\s+(?:only|alone)$/i;
const WITHOUT = /^(?:without|except|all but|not|no)\s+/i;

/**
 * What shall count, as it is said in a meeting: `freight only`, `without gales`, `june to august 2025`,
 * `only delay at least 10`. Days are those of the first column of dates.
 * @example narrowingOf('without gales', columns) // { said: true, not: true, search: 'gale', condition: null }
 */
export function narrowingOf(typed: string, columns: readonly Named[]): Narrowing {
  const text = typed.trim();
  const not = WITHOUT.test(text);
  const words = text
    .replace(WITHOUT, '')
    .replace(ONLY, '')
    .replace(/^the\s+/i, '');
  const named = onDays(words, columns) ?? conditionOf(words, columns);
  return {
    said: not || ONLY.test(text),
    not,
    // Several are named by their plural: each value of the list stands for one.
    search: words.length > 3 ? words.replace(/s$/i, '') : words,
    condition: named && not ? turnedRound(named) : named,
  };
}

const turnedRound = (condition: Condition): Condition =>
  'not' in condition ? { ...condition, not: !condition.not } : condition;

function onDays(words: string, columns: readonly Named[]): Condition | null {
  const column = columns.find(({ type }) => type === 'date' || type === 'datetime');
  const days = column && spanNamed(words);
  return days ? daysCondition(column.id, days) : null;
}

/** `2025`, `June 2025`, `june to august 2025`, `2025-06 to 2025-08`: from the first day to the last. */
export function spanNamed(words: string): Span | null {
  const [from, to, ...more] = words.split(/\s+(?:to|until|and)\s+|\s*[–—]\s*/i);
  if (more.length > 0) return null;
  const last = daysCovered((to ?? from).trim());
  if (to === undefined || !last) return last;
  const [year] = /\d{4}$/.exec(to.trim()) ?? [];
  const first = daysCovered(from.trim()) ?? (year ? daysCovered(`${from.trim()} ${year}`) : null);
  return first && first.from <= last.to ? { from: first.from, to: last.to } : null;
}
