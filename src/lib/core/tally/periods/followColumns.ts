import { dayOfIso } from '../../table/calendar';
import { periodOf, type Calendar, type CalendarPeriod } from '../../table/period';
import type { FigureColumn } from '../result';
import {
  differences,
  indexTo,
  movingAverage,
  movingReach,
  relativeChanges,
  runningTotals,
  yearBefore,
  yearOf,
} from './follow';
import type { PeriodsSpec } from './spec';

/** What follows from a series, in the order of `followColumns`. */
export function follow(
  spec: PeriodsSpec,
  values: Float64Array,
  adds: boolean,
  first: number,
  period: CalendarPeriod,
  calendar: Calendar,
): Float64Array[] {
  const out: Float64Array[] = [];
  for (const against of spec.against) {
    const before = (k: number): number =>
      against === 'previous' ? k - 1 : yearBefore(first + k, period, calendar) - first;
    out.push(differences(values, before), relativeChanges(values, before));
  }
  // What does not add up has no totals: none in every period.
  const totals = (restart?: (k: number) => boolean): Float64Array =>
    adds ? runningTotals(values, restart) : values.map(() => NaN);
  const year = (k: number): number => yearOf(first + k, period, calendar);
  if (spec.running) out.push(totals());
  if (spec.toDate) out.push(totals((k) => year(k) !== year(k - 1)));
  if (spec.moving) out.push(movingAverage(values, spec.moving.k, spec.moving.place));
  if (spec.index) {
    const { base } = spec.index;
    out.push(indexTo(values, baseOf(base, first, period, calendar)));
  }
  return out;
}

/** The place of the base period among those counted, the first unless a day names another. */
export const baseOf = (
  base: string | undefined,
  first: number,
  period: CalendarPeriod,
  calendar: Calendar,
): number => (base === undefined ? 0 : periodOf(dayOfIso(base), period, calendar) - first);

export type Follower = (of: FigureColumn) => FigureColumn;

export function followColumns(spec: PeriodsSpec): Follower[] {
  const make =
    (key: string, title: string, says: string, more: Partial<FigureColumn> = {}): Follower =>
    (of) => ({
      key: `${of.key}.${key}`,
      title: `${of.title}, ${title}`,
      unit: of.unit,
      type: 'number',
      ...(of.decimals !== undefined && { decimals: of.decimals }),
      says,
      ...more,
    });
  const out: Follower[] = [];
  for (const against of spec.against) {
    const [key, words] =
      against === 'previous'
        ? ['previous', 'the period before']
        : ['yearBefore', 'the same period a year before'];
    const reach = against === 'previous' ? { reach: [0, -1] } : {};
    out.push(
      make(`${key}Difference`, `difference from ${words}`, `This period less ${words}.`, reach),
      make(
        `${key}Change`,
        `change from ${words}`,
        `(This period − ${words}) ÷ the size of the latter.`,
        { type: 'share', unit: '', ...reach },
      ),
    );
  }
  if (spec.running)
    out.push(
      make('running', 'running total', 'All periods up to this one added up.', { reach: 'above' }),
    );
  if (spec.toDate)
    out.push(
      make(
        'toDate',
        'since the start of the year',
        'The periods of the year up to this one added up.',
        { reach: 'run' },
      ),
    );
  if (spec.moving) {
    const { k, place } = spec.moving;
    out.push(
      make(
        'moving',
        `${place} average of ${k}`,
        `Mean of ${k} periods${place === 'centred' ? ' around this one' : ' up to this one'}.`,
        { reach: movingReach(k, place) },
      ),
    );
  }
  if (spec.index)
    out.push(make('index', 'index', 'This period ÷ the base period × 100.', { unit: '' }));
  return out;
}
