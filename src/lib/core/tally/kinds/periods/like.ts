import type { Calendar, CalendarPeriod } from '../../../table/period';
import type { Days } from '../../series/coverage';
import { comparableDays } from '../../series/comparableDays';
import { yearBefore } from './follow';

/** What a period is set against. */
export type Against = 'previous' | 'yearBefore';

/** The periods of one level: the first by number, and how many. */
export interface Stretch {
  readonly period: CalendarPeriod;
  readonly first: number;
  readonly length: number;
}

/** The place of the period that one is set against; negative or NaN where there is none. */
export const placeBefore = (
  k: number,
  against: Against,
  { period, first }: Stretch,
  calendar: Calendar,
): number => (against === 'previous' ? k - 1 : yearBefore(first + k, period, calendar) - first);

/** A period of a level that is set against another in part: the days of both. */
export interface LikePart {
  readonly level: number;
  readonly k: number;
  readonly against: Against;
  readonly own: Days;
  readonly other: Days;
}

/**
 * Where a period is covered only in part by the dates of the list, it is set against the same part
 * of the one before it (calculations, section 9): the last one, and those set against the first.
 */
export function likeWithLike(
  levels: readonly Stretch[],
  covered: Days,
  against: readonly Against[],
  calendar: Calendar,
): LikePart[] {
  return levels.flatMap((level, l) =>
    against.flatMap((a) => {
      const out: LikePart[] = [];
      for (let k = 0; k < level.length; k++) {
        const before = placeBefore(k, a, level, calendar);
        if (!(before >= 0)) continue;
        const { first, period } = level;
        const part = comparableDays(first + k, first + before, period, covered, calendar);
        if (part) out.push({ level: l, k, against: a, ...part });
      }
      return out;
    }),
  );
}
