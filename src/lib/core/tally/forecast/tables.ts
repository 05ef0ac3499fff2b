import type { Tried } from '../../forecast/holdOut';
import { METHOD_WORDS, type Fitted, type MethodKey } from '../../forecast/method';
import { periodCells, periodColumns, periodKeys } from '../periodLabels';
import {
  figureOf,
  type FigureColumn,
  type FigureRow,
  type FigureTable,
  type Mark,
} from '../result';
import { periodCondition, type Series } from '../series';
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
  { points, series }: ForecastPoints,
  fitted: Fitted,
  value: FigureColumn,
): FigureTable {
  const n = points.y.length;
  const plain = {
    unit: value.unit,
    type: 'number' as const,
    ...(value.decimals !== undefined && { decimals: value.decimals }),
  };
  return {
    name: 'main',
    caption: 'Forecast',
    labels: 3,
    columns: [
      ...periodColumns(series.period, series.calendar),
      {
        key: 'forecast',
        title: `Forecast of ${value.title}`,
        ...plain,
        says: 'The fitted method carried on.',
      },
      ...spec.levels.flatMap((level, k): FigureColumn[] => [
        {
          key: `low${k + 1}`,
          title: `Lower bound, ${percent(level)}`,
          ...plain,
          says: `${percent(level)} of such values lie between the bounds, if the method holds.`,
        },
        {
          key: `high${k + 1}`,
          title: `Upper bound, ${percent(level)}`,
          ...plain,
          says: `${percent(level)} of such values lie between the bounds, if the method holds.`,
        },
      ]),
    ],
    rows: Array.from({ length: spec.horizon }, (_, h): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [
        ...cellsAt(series, n + h),
        figureOf(fitted.forecast(h + 1)),
        ...spec.levels.flatMap((level) => fitted.interval(h + 1, level).map(figureOf)),
      ],
      keys: keysAt(series, n + h),
      marks: [{ kind: 'forecast', says: 'Not yet observed.' }],
    })),
  };
}

/** The points the forecast stands on, with what the method gives for each. */
/** @param heldOut how many of the last points the methods were measured by */
export function past(
  spec: ForecastSpec,
  { points, series }: ForecastPoints,
  fitted: Fitted,
  value: FigureColumn,
  heldOut: number,
): FigureTable {
  const plain = {
    unit: value.unit,
    type: 'number' as const,
    ...(value.decimals !== undefined && { decimals: value.decimals }),
  };
  return {
    name: 'points',
    caption: 'Points and fit',
    labels: 3,
    columns: [
      ...periodColumns(series.period, series.calendar),
      { ...value, key: 'actual', adds: undefined },
      { key: 'fitted', title: 'Fitted', ...plain, says: 'What the method gives for this point.' },
      { key: 'error', title: 'Error', ...plain, says: 'Actual − fitted.' },
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
      ...(k >= points.y.length - heldOut && { marks: [HELD_OUT] }),
      where: periodCondition(spec.series.column, series.first + k, series.period, series.calendar),
    })),
  };
}

const HELD_OUT: Mark = { kind: 'heldOut', says: 'Held out, to measure the methods by.' };

/** How each method did on the points held out. */
export function methodTable(
  tried: readonly Tried[],
  chosen: MethodKey,
  value: FigureColumn,
): FigureTable {
  const plain = { unit: value.unit, type: 'number' as const };
  return {
    name: 'methods',
    caption: 'Methods, measured on the points held out',
    labels: 1,
    columns: [
      { key: 'method', title: 'Method', unit: '', type: 'text' },
      {
        key: 'mae',
        title: 'Mean absolute error',
        ...plain,
        says: 'Mean of the sizes of the errors.',
      },
      {
        key: 'rmse',
        title: 'Root mean square error',
        ...plain,
        says: 'Square root of the mean squared error.',
      },
      {
        key: 'mape',
        title: 'Mean absolute percentage error',
        unit: '',
        type: 'share',
        says: 'Mean of the errors ÷ actual values; none if one of these is 0.',
      },
      {
        key: 'mase',
        title: 'Mean absolute scaled error',
        unit: '',
        type: 'number',
        says: 'Mean absolute error ÷ that of repeating the last season (or value).',
      },
      { key: 'chosen', title: 'Chosen', unit: '', type: 'text' },
      { key: 'why', title: 'Why not tried', unit: '', type: 'text' },
    ],
    rows: tried.map(({ method, accuracy: a, why }): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [
        METHOD_WORDS[method],
        ...[a?.mae, a?.rmse, a?.mape, a?.mase].map((v) => figureOf(v ?? NaN)),
        method === chosen ? 'yes' : 'no',
        why || null,
      ],
    })),
  };
}

const PARAMETER_WORDS = {
  alpha: 'level (alpha)',
  beta: 'trend (beta)',
  gamma: 'season (gamma)',
  phi: 'damping (phi)',
  k: 'values taken (k)',
} as const;

/** The parameters of the method taken, given or found. */
export const parameterTable = (method: MethodKey, { parameters }: Fitted): FigureTable => ({
  name: 'parameters',
  caption: `Parameters of ${METHOD_WORDS[method]}`,
  labels: 1,
  columns: [
    { key: 'parameter', title: 'Parameter', unit: '', type: 'text' },
    {
      key: 'value',
      title: 'Value',
      unit: '',
      type: 'number',
      says: 'As given, or found by least squared one-step error.',
    },
  ],
  rows: (Object.keys(PARAMETER_WORDS) as (keyof typeof PARAMETER_WORDS)[]).flatMap(
    (name): FigureRow[] =>
      parameters[name] === undefined
        ? []
        : [{ kind: 'group', level: 0, cells: [PARAMETER_WORDS[name], parameters[name]] }],
  ),
});
