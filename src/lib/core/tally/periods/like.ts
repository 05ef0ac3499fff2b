import { periodEnd, periodStart, type Calendar, type CalendarPeriod } from '../../table/period';
import { sameDayIn, type Days } from '../coverage';
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
        const part = partOf(level, k, before, covered, calendar);
        if (part) out.push({ level: l, k, against: a, ...part });
      }
      return out;
    }),
  );
}

/** The days of both periods that are like, where they are not whole. */
function partOf(
  { period, first }: Stretch,
  k: number,
  before: number,
  covered: Days,
  calendar: Calendar,
): { own: Days; other: Days } | null {
  const [p, q] = [first + k, first + before];
  const whole = (n: number): Days => ({
    from: periodStart(n, period, calendar),
    to: periodEnd(n, period, calendar),
  });
  const [own, other] = [whole(p), whole(q)];
  const cutLast = covered.to < own.to;
  const cutFirst = covered.from > other.from;
  if (!cutLast && !cutFirst) return null;
  return {
    own: {
      from: cutFirst ? sameDayIn(covered.from, period, q, p) : own.from,
      to: cutLast ? covered.to : own.to,
    },
    other: {
      from: cutFirst ? covered.from : other.from,
      to: cutLast ? sameDayIn(covered.to, period, p, q) : other.to,
    },
  };
}
