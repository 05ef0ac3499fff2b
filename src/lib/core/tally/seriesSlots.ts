import type { Names } from './kind';
import type { Part } from './sentence';
import type { SeriesSpec } from './seriesSpec';
import { type Option } from './ending';
import { calendarSlots, PERIOD_CHOICES } from './periodSlots';
import { choiceSlot, columnSlot, measureSlot } from './slots';

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
];

export const seriesCalendar = <Spec>(
  series: SeriesSpec,
  put: (series: SeriesSpec) => Spec,
): Option<Spec>[] =>
  calendarSlots('series.calendar', series.calendar, (calendar) => put({ ...series, calendar }));
