import { z } from 'zod';
import { bestOf, fitMethod, holdOutLength, tryMethods, type Tried } from '../../forecast/holdOut';
import {
  isFitted,
  METHOD_WORDS,
  METHODS,
  type Fitted,
  type MethodKey,
  type Series as Points,
} from '../../forecast/method';
import type { Steps } from '../../steps/steps';
import { isoDate } from '../../table/calendar';
import { counted } from '../../table/format';
import { PERIODS_IN_YEAR, periodEnd, periodLabel, periodStart } from '../../table/period';
import { selectionOf, type Base } from '../base';
import { measureColumn } from '../figure';
import { nameIn, tallyCommon, TallyRefused, type TallyFigures, type TallyKind } from '../kind';
import {
  figureOf,
  type FigureColumn,
  type FigureRow,
  type FigureTable,
  type Warning,
} from '../result';
import { checkSeries, periodCondition, reckonSeries, SeriesSpec, type Series } from '../series';
import { measurePhrase } from '../words';

const share = z.number().min(0).max(1);

/** The series carried on by a method, with prediction intervals. */
export const ForecastSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('forecast'),
  series: SeriesSpec,
  method: z.enum(['best', ...METHODS]).default('best'),
  /** Periods ahead. */
  horizon: z.int().min(1).max(600).default(12),
  /** Periods in a season; a year's worth unless given, 1 for none. */
  season: z.int().min(1).max(400).optional(),
  /** Smoothing parameters; those left out are found. `k`: how many values the mean takes. */
  parameters: z
    .object({
      alpha: share.optional(),
      beta: share.optional(),
      gamma: share.optional(),
      phi: z.number().min(0.01).max(1).optional(),
      k: z.int().min(1).max(10_000).optional(),
    })
    .default({}),
  /** What to do about a period without a figure. */
  gaps: z.enum(['refuse', 'zero', 'interpolate']).default('refuse'),
  /** A last period that the data cover only partly. */
  incompleteLast: z.enum(['leaveOut', 'keep']).default('leaveOut'),
  levels: z.array(z.number().gt(0).lt(1)).max(5).default([0.8, 0.95]),
  /** Last points held out to measure methods by; a season or a fifth unless given. */
  holdOut: z.int().min(1).max(1000).optional(),
});
export type ForecastSpec = z.infer<typeof ForecastSpec>;

export const forecastKind: TallyKind<ForecastSpec> = {
  kind: 'forecast',
  spec: ForecastSpec,
  check(spec, faults, path) {
    checkSeries(spec.series, faults, `${path}.series`);
    const { parameters, method } = spec;
    if (method === 'damped' && parameters.phi === 1)
      faults.add(
        `${path}.parameters.phi`,
        'A damping of 1 does not damp.',
        'Take one under 1, or the method "trend".',
      );
  },
  reckon: reckonForecast,
  describe(spec, names, listName) {
    const { measure, period, column } = spec.series;
    const method =
      spec.method === 'best'
        ? 'the method that forecast its last part best'
        : METHOD_WORDS[spec.method];
    return `${listName}: ${measurePhrase(measure, names)} by ${period === 'half' ? 'half-year' : period} of ${nameIn(names, column)}, carried on for ${counted(spec.horizon, 'period')} by ${method}.`;
  },
};

/** The points a forecast stands on: periods first..first+n-1 of the series. */
interface Standing {
  readonly points: Points;
  readonly series: Series;
  readonly filled: number;
}

function* reckonForecast(base: Base, spec: ForecastSpec): Steps<TallyFigures> {
  const series = yield* reckonSeries(base, selectionOf(base, spec.scope), spec.series, [
    spec.series.measure,
  ]);
  const standing = stand(series, spec);
  const { points } = standing;
  const n = points.y.length;
  const label = (k: number): string =>
    periodLabel(series.first + k, series.period, series.calendar);
  yield undefined;
  const tried = tryMethods(
    points,
    spec.method === 'best' ? METHODS : [spec.method],
    spec.parameters,
    spec.holdOut ?? holdOutLength(points),
  );
  yield undefined;
  const method = spec.method === 'best' ? bestOf(tried) : spec.method;
  if (method === null)
    throw new TallyRefused(
      `No method can be fitted: the series has ${counted(n, 'point')}. Take a shorter period or more data.`,
    );
  const fitted = fitMethod(method, points, spec.parameters);
  if (!isFitted(fitted))
    throw new TallyRefused(`The ${METHOD_WORDS[method]} cannot be fitted: ${fitted.why}`);
  const value = measureColumn(spec.series.measure, base.table, 'value');
  return {
    tables: [
      ahead(spec, standing, fitted, value),
      past(spec, standing, fitted, value),
      methodTable(tried, method, value),
      parameterTable(method, fitted),
    ],
    warnings: [
      {
        code: 'stands-on',
        says: `It stands on ${counted(n, 'point')}, from ${label(0)} to ${label(n - 1)}.`,
      },
      ...(spec.method === 'best'
        ? [
            {
              code: 'chosen',
              says: `Chosen: ${METHOD_WORDS[method]}, with the least mean absolute error on the last ${counted(spec.holdOut ?? holdOutLength(points), 'point')} held out.`,
            },
          ]
        : []),
      ...doubts(standing, fitted, spec, label),
    ],
  };
}

/** The series without a partial last period, its gaps treated as asked. @throws TallyRefused */
function stand(series: Series, spec: ForecastSpec): Standing {
  const keep =
    series.partialLast && spec.incompleteLast === 'leaveOut' ? series.length - 1 : series.length;
  const y = series.values[0].slice(0, keep);
  const empty = (k: number): boolean => y[k] !== y[k] || series.records[k] === 0;
  const gaps = Array.from(y.keys()).filter(empty);
  if (gaps.length > 0 && spec.gaps === 'refuse')
    throw new TallyRefused(
      `${counted(gaps.length, 'period')} ${gaps.length === 1 ? 'has' : 'have'} no figure, the first ${periodLabel(series.first + gaps[0], series.period, series.calendar)}. Choose whether gaps count as 0 or are interpolated, or take a longer period.`,
    );
  for (const k of gaps) y[k] = spec.gaps === 'zero' ? 0 : NaN;
  if (spec.gaps === 'interpolate') interpolate(y);
  const season =
    spec.season ?? PERIODS_IN_YEAR[series.period] ?? (series.period === 'week' ? 52 : 7);
  return { points: { y, season }, series, filled: gaps.length };
}

/** Straight between the neighbours that are there; both ends have records. */
function interpolate(y: Float64Array): void {
  let from = -1;
  for (let k = 0; k < y.length; k++) {
    if (y[k] !== y[k]) continue;
    for (let j = from + 1; j < k; j++)
      y[j] = from < 0 ? y[k] : y[from] + ((y[k] - y[from]) * (j - from)) / (k - from);
    from = k;
  }
  for (let j = from + 1; j < y.length; j++) y[j] = from < 0 ? 0 : y[from];
}

const percent = (level: number): string => `${Number((level * 100).toPrecision(6))} %`;

function periodCells(series: Series, k: number): (string | null)[] {
  const { first, period, calendar } = series;
  return [
    periodLabel(first + k, period, calendar),
    isoDate(periodStart(first + k, period, calendar)),
    isoDate(periodEnd(first + k, period, calendar)),
  ];
}

const PERIOD_COLUMNS: FigureColumn[] = [
  { key: 'period', title: 'Period', unit: '', type: 'text' },
  { key: 'from', title: 'From', unit: '', type: 'date' },
  { key: 'to', title: 'To', unit: '', type: 'date' },
];

function ahead(
  spec: ForecastSpec,
  { points, series }: Standing,
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
      ...PERIOD_COLUMNS,
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
        ...periodCells(series, n + h),
        figureOf(fitted.forecast(h + 1)),
        ...spec.levels.flatMap((level) => fitted.interval(h + 1, level).map(figureOf)),
      ],
      marks: [{ kind: 'forecast', says: 'Not yet observed.' }],
    })),
  };
}

function past(
  spec: ForecastSpec,
  { points, series }: Standing,
  fitted: Fitted,
  value: FigureColumn,
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
      ...PERIOD_COLUMNS,
      { ...value, key: 'actual', adds: undefined },
      { key: 'fitted', title: 'Fitted', ...plain, says: 'What the method gives for this point.' },
      { key: 'error', title: 'Error', ...plain, says: 'Actual − fitted.' },
    ],
    rows: Array.from(points.y, (v, k): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [
        ...periodCells(series, k),
        figureOf(v),
        figureOf(fitted.fitted[k]),
        figureOf(v - fitted.fitted[k]),
      ],
      where: {
        condition: periodCondition(
          spec.series.column,
          series.first + k,
          series.period,
          series.calendar,
        ),
      },
    })),
  };
}

function methodTable(tried: readonly Tried[], chosen: MethodKey, value: FigureColumn): FigureTable {
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

const parameterTable = (method: MethodKey, { parameters }: Fitted): FigureTable => ({
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

/** A last error beyond so many deviations of the others lies far off the fit. */
const FAR = 3;

function doubts(
  { points, series, filled }: Standing,
  fitted: Fitted,
  spec: ForecastSpec,
  label: (k: number) => string,
): Warning[] {
  const { y, season } = points;
  const n = y.length;
  const out: Warning[] = [];
  if (n < series.length)
    out.push({
      code: 'partial-last',
      says: `${label(series.length - 1)} is covered only partly and left out.`,
    });
  if (series.partialFirst)
    out.push({
      code: 'partial-first',
      says: `The data begin inside ${label(0)}: it is not a whole period.`,
    });
  if (filled > 0)
    out.push({
      code: 'gaps-filled',
      says: `${counted(filled, 'period')} without a figure ${filled === 1 ? 'was' : 'were'} ${spec.gaps === 'zero' ? 'taken as 0' : 'interpolated'}.`,
    });
  if (n < 8)
    out.push({
      code: 'few-points',
      says: `Only ${counted(n, 'point')}: too few to tell a trend from chance.`,
    });
  if (season > 1 && n < 2 * season)
    out.push({
      code: 'under-two-seasons',
      says: `Under two seasons of ${season} points: no season can be told from a trend.`,
    });
  const errors = Array.from(y, (v, t) => v - fitted.fitted[t]);
  const last = errors[n - 1];
  const others = errors.slice(0, -1).filter((e) => e === e);
  const sd = Math.sqrt(others.reduce((s, e) => s + e * e, 0) / others.length);
  if (others.length > 2 && Math.abs(last) > FAR * sd && sd > 0)
    out.push({
      code: 'last-far',
      says: `The last point, ${label(n - 1)}, lies ${(Math.abs(last) / sd).toFixed(1)} times the usual error off the fit.`,
    });
  return out;
}
