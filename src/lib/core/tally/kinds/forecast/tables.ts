import type { Fitted } from '../../../forecast/method';
import { periodCells, periodColumns, periodKeys } from '../../series/periodLabels';
import {
  figureOf,
  marked,
  type FigureColumn,
  type FigureRow,
  type FigureTable,
  type Mark,
} from '../../answer/result';
import { periodCondition, type Series } from '../../series/series';
import { deviationOf, gapsMark } from '../../trust/influence';
import type { ForecastSpec } from './spec';
import type { ForecastPoints } from './points';

const percent = (level: number): string => `${Number((level * 100).toPrecision(6))} %`;

const cellsAt = ({ first, period, calendar }: Series, k: number) =>
  periodCells(first + k, period, calendar);
const keysAt = ({ first, period, calendar }: Series, k: number) =>
  periodKeys(first + k, period, calendar);

/** The periods to come: the forecast and the bounds of each level. */
export function ahead(
  spec: ForecastSpec,
  observed: ForecastPoints,
  fitted: Fitted,
  value: FigureColumn,
): FigureTable {
  const { series } = observed;
  return {
    name: 'main',
    caption: 'Forecast',
    labels: 3,
    columns: [...periodColumns(series.period, series.calendar), ...aheadColumns(spec, value)],
    rows: aheadRows(spec, observed, fitted),
  };
}

/** The forecast and the bounds of each level. */
export function aheadColumns(spec: ForecastSpec, value: FigureColumn): FigureColumn[] {
  const plain = plainOf(value);
  const bound = (side: 'low' | 'high', level: number, k: number): FigureColumn => ({
    key: `${side}${k + 1}`,
    title: `${side === 'low' ? 'Lower' : 'Upper'} bound, ${percent(level)}`,
    ...plain,
    words: `${percent(level)} of such values lie between the bounds, if the method holds.`,
  });
  return [
    {
      key: 'forecast',
      title: `Forecast of ${value.title}`,
      ...plain,
      words: 'The fitted method carried on.',
    },
    ...spec.levels.flatMap((level, k) => [bound('low', level, k), bound('high', level, k)]),
  ];
}

/** A row for each period to come. */
export const aheadRows = (
  spec: ForecastSpec,
  { points, series }: ForecastPoints,
  fitted: Fitted,
): FigureRow[] =>
  Array.from({ length: spec.horizon }, (_, h): FigureRow => ({
    kind: 'group',
    level: 0,
    cells: [
      ...cellsAt(series, points.y.length + h),
      figureOf(fitted.forecast(h + 1)),
      ...spec.levels.flatMap((level) => fitted.interval(h + 1, level).map(figureOf)),
    ],
    keys: keysAt(series, points.y.length + h),
    marks: [NOT_YET],
  }));

const NOT_YET: Mark = { kind: 'forecast', words: 'Not yet observed.' };

/** How figures in the unit of the measure are written. */
export const plainOf = (value: FigureColumn): Pick<FigureColumn, 'unit' | 'type' | 'decimals'> => ({
  unit: value.unit,
  type: 'number',
  ...(value.decimals !== undefined && { decimals: value.decimals }),
});

/**
 * The points the forecast stands on, with what the method gives for each.
 * @param heldOut how many of the last points the methods were measured by
 */
export function past(
  spec: ForecastSpec,
  { points, series }: ForecastPoints,
  fitted: Fitted,
  value: FigureColumn,
  heldOut: number,
): FigureTable {
  const plain = plainOf(value);
  return {
    name: 'points',
    caption: 'Points and fit',
    labels: 3,
    columns: [
      ...periodColumns(series.period, series.calendar),
      { ...value, key: 'actual', adds: undefined },
      { key: 'fitted', title: 'Fitted', ...plain, words: 'What the method gives for this point.' },
      { key: 'error', title: 'Error', ...plain, words: 'Actual − fitted.' },
    ],
    rows: Array.from(points.y, (v, k): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [
        ...cellsAt(series, k),
        figureOf(v),
        figureOf(fitted.fitted[k]),
        figureOf(v - fitted.fitted[k]),
      ],
      keys: keysAt(series, k),
      ...marked([
        ...(k >= points.y.length - heldOut ? [HELD_OUT] : []),
        ...gapsMark(value.measure, 3, series.rests(k)),
      ]),
      ...deviationOf(value.measure, 3, series.rests(k)),
      where: periodCondition(spec.series.column, series.first + k, series.period, series.calendar),
    })),
  };
}

const HELD_OUT: Mark = { kind: 'heldOut', words: 'Held out, to measure the methods by.' };
