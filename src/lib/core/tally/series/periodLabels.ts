import { isoDate } from '../../table/calendar';
import {
  periodEnd,
  periodLabel,
  periodStart,
  USUAL_CALENDAR,
  type Calendar,
  type CalendarPeriod,
} from '../../table/period';
import type { FigureColumn } from '../answer/result';

/** The label of a period: its words, and behind them its first day. */
export const periodColumn = (
  period: CalendarPeriod,
  calendar: Calendar = USUAL_CALENDAR,
): FigureColumn => ({
  key: 'period',
  title: 'Period',
  unit: '',
  type: 'text',
  keyType: { type: 'date', unit: '', decimals: 0, percent: false, grain: period, calendar },
});

/** The label of a period with its first and last day beside it. */
export const periodColumns = (period: CalendarPeriod, calendar?: Calendar): FigureColumn[] => [
  periodColumn(period, calendar),
  { key: 'from', title: 'From', unit: '', type: 'date' },
  { key: 'to', title: 'To', unit: '', type: 'date' },
];

/** The cells under such columns. */
export const periodCells = (
  index: number,
  period: CalendarPeriod,
  calendar?: Calendar,
): [string, string, string] => [
  periodLabel(index, period, calendar),
  isoDate(periodStart(index, period, calendar)),
  isoDate(periodEnd(index, period, calendar)),
];

/** The keys behind them: the first day stands for the period. */
export const periodKeys = (
  index: number,
  period: CalendarPeriod,
  calendar?: Calendar,
): [string, string, string] => {
  const [, from, to] = periodCells(index, period, calendar);
  return [from, from, to];
};
