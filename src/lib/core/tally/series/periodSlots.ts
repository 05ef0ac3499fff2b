import { MONTHS, WEEKDAYS } from '../../table/calendar';
import {
  periodLabel,
  USUAL_CALENDAR,
  type Calendar,
  type CalendarPeriod,
} from '../../table/period';
import type { Option } from '../sentence/optionalParts';
import { periodNamed } from './periodNamed';
import type { Slot } from '../sentence/sentence';
import { choiceSlot } from '../sentence/slots';

/** Places of sentences that are about periods and the calendar. */

export const PERIOD_CHOICES: readonly { value: CalendarPeriod; label: string }[] = [
  { value: 'year', label: 'year' },
  { value: 'half', label: 'half-year' },
  { value: 'quarter', label: 'quarter' },
  { value: 'month', label: 'month' },
  { value: 'week', label: 'week' },
  { value: 'day', label: 'day' },
];

/**
 * Where years and weeks begin; those at their usual value wait under `more…`.
 * @param saysYear whether the start of the year is said all the same
 */
export function calendarSlots<Spec>(
  path: string,
  given: Calendar | undefined,
  set: (calendar: Calendar) => Spec,
  saysYear = false,
): Option<Spec>[] {
  const calendar = given ?? USUAL_CALENDAR;
  const numbered = (items: readonly string[], before: string): { value: string; label: string }[] =>
    items.map((label, k) => ({ value: String(k + 1), label: `${before} ${label}` }));
  const slots = [
    {
      slot: choiceSlot(
        `${path}.yearStartsIn`,
        'Start of the year',
        String(calendar.yearStartsIn),
        numbered(MONTHS, 'years that start in'),
        (m) => set({ ...calendar, yearStartsIn: Number(m) }),
      ),
      usual: calendar.yearStartsIn === 1 && !saysYear,
    },
    {
      slot: choiceSlot(
        `${path}.weekStartsOn`,
        'Start of the week',
        String(calendar.weekStartsOn),
        numbered(WEEKDAYS, 'weeks that start on'),
        (d) => set({ ...calendar, weekStartsOn: Number(d) }),
      ),
      usual: calendar.weekStartsOn === 1,
    },
  ];
  return [
    ...slots,
    {
      slot: choiceSlot(
        `${path}.yearNamedBy`,
        'Name of a year across two',
        calendar.yearNamedBy,
        [
          { value: 'start', label: 'years named by their start' },
          { value: 'end', label: 'years named by their end' },
        ],
        (by) => set({ ...calendar, yearNamedBy: by }),
      ),
      usual: calendar.yearNamedBy === 'start',
    },
  ];
}

/** A period by its name, or by a day in it. */
export const dateSlot = <Spec>(
  path: string,
  value: string | undefined,
  unset: string,
  set: (name: string | undefined) => Spec,
  within: { readonly period: CalendarPeriod; readonly calendar?: Calendar | undefined } = {
    period: 'day',
  },
): Slot<Spec> => {
  const { period, calendar } = within;
  const index = value === undefined ? null : periodNamed(value, period, calendar);
  return {
    path,
    words:
      value === undefined ? unset : index === null ? value : periodLabel(index, period, calendar),
    takes: { a: 'date', value: value ?? null, period, set: (name) => set(name ?? undefined) },
  };
};
