import type { Condition } from '../../scope/condition';
import { TallyRefused } from '../../errors';
import type { Steps } from '../../steps/steps';
import { dayOfIso } from '../../table/calendar';
import { counted } from '../../table/format';
import { PERIODS_IN_YEAR, periodLabel, periodOf } from '../../table/period';
import { tableOf } from '../answer';
import { selectionOf, type Base } from '../base';
import { measureColumn } from '../figure';
import { periodColumn, periodKeys } from '../periodLabels';
import { type TallyAnswer, type TallyKind } from '../kind';
import { figureOf, type FigureColumn, type FigureRow } from '../result';
import { warn, type Warning } from '../warnings';
import { checkSeries, computeSeries, periodCondition, visitSeries, type Series } from '../series';
import type { SeriesSpec } from '../seriesSpec';
import { growthFact } from './fact';
import { growthSentence } from './sentence';
import type { GrowthSpec } from './spec';
import { compoundRate, DAYS_IN_YEAR, fittedRate, perYear, periodRates, refusal } from './rates';

export const growthKind: TallyKind<GrowthSpec> = {
  check(spec, faults, path) {
    if (spec.series && spec.values)
      faults.add(`${path}.values`, 'Both a series and two values are given.', 'Take one of them.');
    if (spec.series) checkSeries(spec.series, faults, `${path}.series`);
    else if (!spec.values)
      faults.add(`${path}.series`, 'There is nothing to grow.', 'Name a series, or two values.');
    const { values } = spec;
    if (values && values.intervals === undefined && !(values.firstDate && values.lastDate))
      faults.add(
        `${path}.values.intervals`,
        'How far the values lie apart is not said.',
        'Give the intervals between them, or firstDate and lastDate.',
      );
    if (values?.firstDate && values.lastDate && values.firstDate >= values.lastDate)
      faults.add(
        `${path}.values.lastDate`,
        'The last date does not come after the first.',
        'Turn them round.',
      );
  },
  visit: (spec, visitor, path) =>
    spec.series ? { ...spec, series: visitSeries(spec.series, visitor, `${path}.series`) } : spec,
  *compute(base, spec) {
    return spec.series ? yield* growthOfSeries(base, spec, spec.series) : growthOfValues(spec);
  },
  sentence: growthSentence,
  fact: growthFact,
};

/** What stands between two ends. */
interface Ends {
  readonly first: number;
  readonly last: number;
  readonly intervals: number;
  /** Periods to the year; null where that is not known. */
  readonly inYear: number | null;
  readonly unit: string;
  readonly decimals?: number;
  readonly says: string;
}

function facts(
  spec: GrowthSpec,
  ends: Ends,
  within: ArrayLike<number>,
): { columns: FigureColumn[]; row: FigureRow; warnings: Warning[] } {
  const { first, last, intervals, inYear, unit, decimals } = ends;
  const rate = compoundRate(first, last, intervals);
  const rates = periodRates(within);
  const missing = rates.filter((r) => r !== r).length;
  // A mean over the rates that exist would pass over the others in silence.
  const mean = rates.length ? rates.reduce((s, r) => s + r, 0) / rates.length : NaN;
  const fitted = fittedRate(within);
  const value = (key: string, title: string, says: string): FigureColumn => ({
    key,
    title,
    unit,
    type: 'number',
    ...(decimals !== undefined && { decimals }),
    says,
  });
  const share = (key: string, title: string, says: string): FigureColumn => ({
    key,
    title,
    unit: '',
    type: 'share',
    says,
  });
  const list: [FigureColumn, number][] = [
    [value('first', 'First value', 'The value growth begins from.'), first],
    [value('last', 'Last value', 'The value growth leads to.'), last],
    [
      { key: 'intervals', title: 'Intervals', unit: '', type: 'number', says: ends.says },
      intervals,
    ],
    [
      share('total', 'Total growth', '(Last − first) ÷ first.'),
      first > 0 ? (last - first) / first : NaN,
    ],
    [
      share(
        'rate',
        'Compound rate per period',
        '(Last ÷ first) to the power of 1 ÷ intervals, less 1.',
      ),
      rate,
    ],
    ...(inYear === null
      ? []
      : ([
          [
            share(
              'yearly',
              'Compound rate per year',
              'The rate per period compounded over a year.',
            ),
            perYear(rate, inYear),
          ],
        ] as [FigureColumn, number][])),
    [
      share(
        'mean',
        'Mean of the period rates',
        'The rates from period to period, added up and divided by their number.',
      ),
      mean,
    ],
    [
      share('fitted', 'Fitted rate', 'The slope of a line through the logarithms, as a rate.'),
      fitted,
    ],
    [
      value(
        'ahead',
        `Value ${counted(spec.ahead, 'period')} on`,
        'The last value times (1 + the compound rate) for each period.',
      ),
      last * (1 + rate) ** spec.ahead,
    ],
  ];
  const refused = refusal(first, last, intervals);
  const warnings: Warning[] = [
    warn('intervals', ends.says),
    ...(refused === null ? [] : [warn('no-rate', `No compound rate: ${refused}`)]),
    ...(missing > 0
      ? [
          warn(
            'no-mean-rate',
            `No mean of the period rates: ${counted(missing, 'period')} ${missing === 1 ? 'has' : 'have'} no rate, as the one before is 0 or none.`,
          ),
        ]
      : []),
    ...(refused === null && mean - rate > 1e-6
      ? [
          warn(
            'mean-differs',
            'The mean of the period rates is not the compound rate: rates multiply. Wherever they vary, their mean is higher than what was really reached.',
          ),
        ]
      : []),
  ];
  return {
    columns: list.map(([column]) => column),
    row: { kind: 'group', level: 0, cells: list.map(([, v]) => figureOf(v)) },
    warnings,
  };
}

function growthOfValues(spec: GrowthSpec): TallyAnswer {
  const { values } = spec;
  if (!values) throw new TallyRefused('There is nothing to grow.');
  const dated =
    values.intervals === undefined &&
    values.firstDate !== undefined &&
    values.lastDate !== undefined;
  const intervals = dated
    ? (dayOfIso(values.lastDate ?? '') - dayOfIso(values.firstDate ?? '')) / DAYS_IN_YEAR
    : (values.intervals ?? NaN);
  const says = dated
    ? `${Number(intervals.toPrecision(6))} years of ${DAYS_IN_YEAR} days between ${values.firstDate} and ${values.lastDate}.`
    : `${counted(intervals, 'interval')} between the two values.`;
  const { columns, row, warnings } = facts(
    spec,
    { first: values.first, last: values.last, intervals, inYear: dated ? 1 : null, unit: '', says },
    [values.first, values.last],
  );
  return {
    tables: [tableOf({ name: 'main', caption: 'Growth', labels: 0, columns, rows: [row] })],
    warnings,
  };
}

function* growthOfSeries(base: Base, spec: GrowthSpec, asked: SeriesSpec): Steps<TallyAnswer> {
  const series = yield* computeSeries(base, selectionOf(base, spec.scope), asked, [asked.measure]);
  const { from, to } = endsOf(series, spec);
  const within = series.values[0].subarray(from, to + 1);
  const { period, calendar, first } = series;
  const column = measureColumn(asked.measure, base.table, 'value');
  const intervals = to - from;
  const label = (k: number): string => periodLabel(first + k, period, calendar);
  const ends: Ends = {
    first: within[0],
    last: within[intervals],
    intervals,
    inYear: PERIODS_IN_YEAR[period] ?? (period === 'week' ? DAYS_IN_YEAR / 7 : DAYS_IN_YEAR),
    unit: column.unit,
    ...(column.decimals !== undefined && { decimals: column.decimals }),
    says: `${counted(intervals, WORDS[period])} between ${counted(intervals + 1, 'value')}, from ${label(from)} to ${label(to)}.`,
  };
  const { columns, row, warnings } = facts(spec, ends, within);
  const rates = [NaN, ...periodRates(within)];
  return {
    tables: [
      tableOf({
        name: 'main',
        caption: 'Growth',
        labels: 0,
        columns,
        rows: [{ ...row, where: betweenPeriods(asked, series, from, to) }],
      }),
      tableOf({
        name: 'periods',
        caption: 'Rates from period to period',
        labels: 1,
        columns: [
          periodColumn(period, calendar),
          { ...column, key: 'value' },
          {
            key: 'rate',
            title: 'Rate',
            unit: '',
            type: 'share',
            reach: [0, -1],
            says: '(This period − the one before) ÷ the size of the latter.',
          },
        ],
        rows: Array.from(within, (v, k): FigureRow => ({
          kind: 'group',
          level: 0,
          cells: [label(from + k), figureOf(v), figureOf(rates[k])],
          keys: periodKeys(first + from + k, period, calendar).slice(0, 1),
          where: periodCondition(asked.column, first + from + k, period, calendar),
        })),
      }),
    ],
    warnings: [...warnings, ...partialNotes(series, from, to, label)],
  };
}

const WORDS = {
  day: 'day',
  week: 'week',
  month: 'month',
  quarter: 'quarter',
  half: 'half-year',
  year: 'year',
} as const;

/** The ends asked for, or the first and last whole period. */
function endsOf(series: Series, spec: GrowthSpec): { from: number; to: number } {
  const { period, calendar, first, length } = series;
  const placeOf = (day: string | undefined, other: number): number =>
    day === undefined ? other : periodOf(dayOfIso(day), period, calendar) - first;
  const whole = {
    from: series.partialFirst && length > 2 ? 1 : 0,
    to: length - 1 - (series.partialLast && length > 2 ? 1 : 0),
  };
  const from = placeOf(spec.from, whole.from);
  const to = placeOf(spec.to, whole.to);
  if (from < 0 || to >= length || from > to)
    throw new TallyRefused(
      'The ends of the growth lie outside the periods counted, or are turned round.',
    );
  return { from, to };
}

const betweenPeriods = (
  asked: SeriesSpec,
  { first, period, calendar }: Series,
  from: number,
  to: number,
): Condition | undefined => {
  const start = periodCondition(asked.column, first + from, period, calendar);
  const end = periodCondition(asked.column, first + to, period, calendar);
  if (start.kind !== 'leaf' || end.kind !== 'leaf') return undefined;
  if (start.test.test !== 'between' || end.test.test !== 'between') return undefined;
  return { ...start, test: { ...start.test, to: end.test.to } };
};

function partialNotes(
  series: Series,
  from: number,
  to: number,
  label: (k: number) => string,
): Warning[] {
  const out: Warning[] = [];
  const { partialFirst, partialLast, length } = series;
  if (partialFirst)
    out.push(
      warn(
        'partial-first',
        `The data begin inside ${label(0)}${from > 0 ? ', which is left out.' : ': it is not a whole period.'}`,
      ),
    );
  if (partialLast)
    out.push(
      warn(
        'partial-last',
        `The data end inside ${label(length - 1)}${to < length - 1 ? ', which is left out.' : ': it is not a whole period.'}`,
      ),
    );
  return out;
}
