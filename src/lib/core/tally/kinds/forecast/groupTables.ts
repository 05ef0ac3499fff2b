import type { Fitted } from '../../../forecast/method';
import { METHOD_WORDS } from '../../../forecast/method';
import { figureOf, type FigureColumn, type FigureRow, type FigureTable } from '../../answer/result';
import { periodCells, periodColumns, periodKeys } from '../../series/periodLabels';
import type { GroupSeries } from '../../series/series';
import type { Carried } from './carry';
import { errorCells, errorColumns } from './methodTables';
import type { ForecastSpec } from './spec';
import { aheadColumns, aheadRows, plainOf } from './tables';

/** A group with its forecast, or why there is none. */
export interface GroupForecast {
  readonly group: GroupSeries;
  readonly carried: Carried | null;
  readonly why: string;
}

/** The periods to come of each group. */
export const groupTable = (
  spec: ForecastSpec,
  labels: readonly FigureColumn[],
  value: FigureColumn,
  forecasts: readonly GroupForecast[],
): FigureTable => ({
  name: 'groups',
  caption: 'Forecast of each group',
  labels: labels.length + 3,
  columns: [
    ...labels,
    ...periodColumns(spec.series.period, spec.series.calendar),
    ...aheadColumns(spec, value),
  ],
  rows: forecasts.flatMap(({ group, carried }) =>
    carried
      ? aheadRows(spec, carried.observed, carried.fitted).map((row): FigureRow => ({
          ...row,
          cells: [...group.path, ...row.cells],
          keys: [...group.keys, ...(row.keys ?? [])],
        }))
      : [],
  ),
});

/** Which method each group was carried on by, how sure, or why it was not. */
export const chosenTable = (
  labels: readonly FigureColumn[],
  value: FigureColumn,
  forecasts: readonly GroupForecast[],
): FigureTable => ({
  name: 'chosen',
  caption: 'The method of each group, measured on the points held out',
  labels: labels.length,
  columns: [
    ...labels,
    { key: 'method', title: 'Method', unit: '', type: 'text' },
    { key: 'points', title: 'Points', unit: '', type: 'count', words: 'Points it stands on.' },
    ...errorColumns(value),
    { key: 'why', title: 'Why not', unit: '', type: 'text' },
  ],
  rows: forecasts.map(({ group, carried, why }): FigureRow => ({
    kind: 'group',
    level: 0,
    keys: [...group.keys],
    cells: [
      ...group.path,
      carried ? METHOD_WORDS[carried.method] : null,
      carried?.observed.points.y.length ?? null,
      ...errorCells(carried?.tried.find((t) => t.method === carried.method)?.accuracy),
      why || null,
    ],
    where: group.where,
  })),
});

/** The sum of the groups’ forecasts beside the forecast of the sum. */
export function sumTable(
  spec: ForecastSpec,
  value: FigureColumn,
  { observed, fitted }: { observed: Carried['observed']; fitted: Fitted },
  forecasts: readonly GroupForecast[],
): FigureTable {
  const { first, period, calendar } = observed.series;
  const plain = plainOf(value);
  const from = first + observed.points.y.length;
  return {
    name: 'sums',
    caption: 'The sum of the groups’ forecasts beside the forecast of the sum',
    labels: 3,
    columns: [
      ...periodColumns(period, calendar),
      {
        key: 'groups',
        title: 'Sum of the groups’ forecasts',
        ...plain,
        words: 'Each group carried on by itself, then added up.',
      },
      {
        key: 'whole',
        title: 'Forecast of the sum',
        ...plain,
        words: 'All groups together carried on as one series.',
      },
      { key: 'difference', title: 'Difference', ...plain, words: 'The first less the second.' },
    ],
    rows: Array.from({ length: spec.horizon }, (_, h): FigureRow => {
      const whole = fitted.forecast(h + 1);
      const sum = forecasts.reduce((s, { carried }) => s + (carried?.at(from + h) ?? 0), 0);
      return {
        kind: 'group',
        level: 0,
        keys: periodKeys(from + h, period, calendar),
        cells: [
          ...periodCells(from + h, period, calendar),
          figureOf(sum),
          figureOf(whole),
          figureOf(sum - whole),
        ],
        marks: [{ kind: 'forecast', words: 'Not yet observed.' }],
      };
    }),
  };
}
