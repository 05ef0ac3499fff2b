import type { Names } from '../kind/kind';
import type { GroupKey } from '../../arrange/groupKey';
import type { Measure } from '../../measure/measure';
import { listedParts, type Part } from '../sentence/sentence';
import type { SeriesSpec } from './seriesSpec';
import { type Option } from '../sentence/optionalParts';
import { calendarSlots, PERIOD_CHOICES } from './periodSlots';
import { choiceSlot, columnSlot, keySlots, measureSlot } from '../sentence/slots';

/** `sum of Boarded by month of Sailed on` */
export const seriesParts = <Spec>(
  series: SeriesSpec,
  names: Names,
  put: (series: SeriesSpec) => Spec,
): Part<Spec>[] => [
  measureSlot<Spec>(
    'series.measure',
    series.measure,
    names,
    (measure) => put(measure ? { ...series, measure } : series),
    { needed: true },
  ),
  ' by ',
  choiceSlot<Spec, SeriesSpec['period']>(
    'series.period',
    'Period',
    series.period,
    PERIOD_CHOICES,
    (period) => put({ ...series, period }),
  ),
  ' of ',
  columnSlot<Spec>(
    'series.column',
    series.column,
    names,
    ['date', 'datetime'],
    (column) => put(column === null ? series : { ...series, column }),
    { needed: true },
  ),
  ...groupParts<Spec>('series.by', series.by, names, [series.measure], (by) =>
    put({ ...series, by }),
  ),
];

/** ` for each Route and Vessel`, and an empty place for one more. */
export function groupParts<Spec>(
  path: string,
  by: readonly GroupKey[],
  names: Names,
  measures: readonly Measure[],
  put: (by: GroupKey[]) => Spec,
): Part<Spec>[] {
  const { slots, add } = keySlots<Spec>(path, by, names, put, {
    measures,
    empty: by.length ? 'then…' : 'for each…',
    least: 0,
  });
  return by.length ? [' for each ', ...listedParts(slots), ' ', add] : [' ', add];
}

export const seriesCalendar = <Spec>(
  series: SeriesSpec,
  put: (series: SeriesSpec) => Spec,
): Option<Spec>[] =>
  calendarSlots('series.calendar', series.calendar, (calendar) => put({ ...series, calendar }));
