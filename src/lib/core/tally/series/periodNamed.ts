import { z } from 'zod';
import { dayNumber } from '../../table/calendar';
import { periodOf, USUAL_CALENDAR, type Calendar, type CalendarPeriod } from '../../table/period';
import { daysNamed } from '../../table/periodName';
import type { Faults } from '../spec/fault';
import { PERIODS_WORDS } from './periodWords';

/** How the periods of a kind are named. */
export const PERIOD_FORMS: Record<CalendarPeriod, string> = {
  day: '2024-04-30',
  week: '2024-W07',
  month: '2024-04',
  quarter: '2024-Q2',
  half: '2024-H1',
  year: '2024',
};

/** The year in which `2023/24` starts; null for any other text. */
function yearAcross(text: string): number | null {
  const [, first, second] = /^(\d{4})\/(\d{2})$/.exec(text.trim()) ?? [];
  return first !== undefined && (Number(first) + 1) % 100 === Number(second) ? Number(first) : null;
}

/** A period by its name: `2024`, `2024-H1`, `2024-Q2`, `2024-04`, `2024-W07`, `2024-04-30`; or by a day in it. */
export const PeriodName = z
  .string()
  .max(20)
  .refine((text) => daysNamed(text.trim()) !== null || yearAcross(text) !== null, {
    error: `Name a period as ${Object.values(PERIOD_FORMS).join(', ')}.`,
  });

/**
 * The number of the period of a kind that a name stands for, or that the day or period named lies
 * in; null where it covers several. A bare year is the year that goes by this name in the calendar, `2023/24`
 * the one that starts in 2023.
 * @example periodNamed('2024-Q2', 'quarter')
 */
export function periodNamed(
  name: string,
  period: CalendarPeriod,
  calendar: Calendar = USUAL_CALENDAR,
): number | null {
  const across = yearAcross(name);
  if (across !== null)
    return period === 'year'
      ? periodOf(dayNumber(across, calendar.yearStartsIn, 1), 'year', calendar)
      : null;
  if (period === 'year' && /^\d{4}$/.test(name.trim())) {
    const { yearStartsIn, yearNamedBy } = calendar;
    const starts = Number(name) - (yearStartsIn > 1 && yearNamedBy === 'end' ? 1 : 0);
    return periodOf(dayNumber(starts, yearStartsIn, 1), 'year', calendar);
  }
  const days = daysNamed(name.trim());
  if (!days) return null;
  const [from, to] = [periodOf(days.from, period, calendar), periodOf(days.to, period, calendar)];
  return from === to ? from : null;
}

/** Names a period that is none of the kind asked about. */
export function checkPeriodName(
  name: string | undefined,
  period: CalendarPeriod,
  calendar: Calendar | undefined,
  faults: Faults,
  path: string,
): void {
  if (name !== undefined && periodNamed(name, period, calendar) === null)
    faults.add(
      path,
      `“${name}” covers several ${PERIODS_WORDS[period]}.`,
      `Name one: “${PERIOD_FORMS[period]}”.`,
    );
}
