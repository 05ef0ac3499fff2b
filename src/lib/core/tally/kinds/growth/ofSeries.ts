import { TallyRefused } from '../../../errors';
import type { Task } from '../../../task/task';
import { counted } from '../../../table/format';
import { PERIODS_IN_YEAR, periodLabel, periodEnd, periodStart } from '../../../table/period';
import { tableOf } from '../../answer/answer';
import { selectionOf, type TallyInput } from '../../input/input';
import { changeMark } from '../../trust/changeMark';
import { deviationOf, gapsMark } from '../../trust/influence';
import { keyColumns, joined } from '../../groups/keys';
import { measureColumn } from '../../answer/figure';
import type { TallyAnswer } from '../../kind/kind';
import { periodColumn, periodKeys } from '../../series/periodLabels';
import { PERIOD_WORDS } from '../../series/periodWords';
import { periodNamed } from '../../series/periodNamed';
import {
  figureOf,
  marked,
  type FigureColumn,
  type FigureRow,
  type FigureTable,
  type Mark,
} from '../../answer/result';
import { computeSeries, daysCondition, periodCondition, type Series } from '../../series/series';
import type { SeriesSpec } from '../../series/seriesSpec';
import { warn, type Warning } from '../../trust/warnings';
import { growthFacts, type Ends, type GrowthFacts } from './facts';
import { compoundRate, DAYS_IN_YEAR, periodRates } from './rates';
import type { GrowthSpec } from './spec';

/** Growth of a measure from one period to another: of the whole, and of each group beside it. */
export function* growthOfSeries(
  input: TallyInput,
  spec: GrowthSpec,
  asked: SeriesSpec,
): Task<TallyAnswer> {
  const selection = selectionOf(input, spec.scope);
  const { whole, groups, warnings } = yield* computeSeries(input, selection, asked);
  const { period, calendar, first } = whole;
  const ends = endsOf(whole, spec);
  const column = measureColumn(asked.measure, input.table, 'value');
  const label = (k: number): string => periodLabel(first + k, period, calendar);
  const intervals = ends.to - ends.from;
  const about: Omit<Ends, 'first' | 'last'> = {
    intervals,
    inYear: PERIODS_IN_YEAR[period] ?? (period === 'week' ? DAYS_IN_YEAR / 7 : DAYS_IN_YEAR),
    unit: column.unit,
    ...(column.decimals !== undefined && { decimals: column.decimals }),
    words: `${counted(intervals, PERIOD_WORDS[period])} between ${counted(intervals + 1, 'value')}, from ${label(ends.from)} to ${label(ends.to)}.`,
  };
  const factsOf = (series: Series): GrowthFacts => {
    const within = series.values.subarray(ends.from, ends.to + 1);
    return growthFacts(spec, { ...about, first: within[0], last: within[intervals] }, within);
  };
  const between = daysCondition(asked.column, {
    from: periodStart(first + ends.from, period, calendar),
    to: periodEnd(first + ends.to, period, calendar),
  });
  const found = factsOf(whole);
  const marks = (series: Series, columns: readonly FigureColumn[], before: number): Mark[] =>
    growthMarks(input, series, ends, column, columns, before);
  const tables: FigureTable[] = [
    {
      name: 'main',
      caption: 'Growth',
      labels: 0,
      columns: found.columns,
      rows: [
        {
          kind: 'group',
          level: 0,
          cells: found.cells,
          where: between,
          ...marked(marks(whole, found.columns, 0)),
        },
      ],
    },
  ];
  if (groups.length) {
    const ranked = groups
      .map((group) => ({ ...group, facts: factsOf(group.series) }))
      .sort((a, b) => byRate(a.facts.rate, b.facts.rate));
    const labels = yield* keyColumns(input, asked.by, selection);
    const width = 1 + labels.length;
    tables.push({
      name: 'groups',
      caption: 'Growth of the groups, the fastest first',
      labels: width,
      columns: [
        {
          key: 'place',
          title: 'Place',
          unit: '',
          type: 'rank',
          words: 'The place by the compound rate.',
        },
        ...labels,
        ...found.columns,
      ],
      rows: ranked.map(({ path, keys, where, series, facts }): FigureRow => {
        const place =
          facts.refused === null
            ? 1 + ranked.filter((r) => r.facts.rate > facts.rate).length
            : null;
        return {
          kind: 'group',
          level: 0,
          keys: [place, ...keys],
          cells: [place, ...path, ...facts.cells],
          where: joined([where, between]),
          ...marked([
            ...(facts.refused === null
              ? []
              : [
                  {
                    column: width + found.columns.findIndex((c) => c.key === 'rate'),
                    kind: 'doubt' as const,
                    words: facts.refused,
                  },
                ]),
            ...marks(series, found.columns, width),
          ]),
        };
      }),
    });
  }
  tables.push(periodTable(whole, ends, asked, column, label));
  return {
    tables: tables.map(tableOf),
    warnings: [...warnings, ...found.warnings, ...partialNotes(whole, ends.from, ends.to, label)],
  };
}

/** The highest first, those without a rate last. */
const byRate = (a: number, b: number): number =>
  a !== a || b !== b ? Number(a !== a) - Number(b !== b) : b - a;

/** Marks total growth and the compound rate where one record makes them. @param before columns before these */
function growthMarks(
  { table }: TallyInput,
  series: Series,
  { from, to }: { from: number; to: number },
  of: FigureColumn,
  columns: readonly FigureColumn[],
  before: number,
): Mark[] {
  const change = {
    before: series.values[from],
    after: series.values[to],
    ofBefore: series.rests(from),
    ofAfter: series.rests(to),
  };
  const at = (key: string): number => columns.findIndex((c) => c.key === key);
  return [
    ...changeMark(table, of, columns[at('total')], before + at('total'), change),
    ...changeMark(table, of, columns[at('rate')], before + at('rate'), change, (a, b) =>
      compoundRate(a, b, to - from),
    ),
  ];
}

/** The rates from period to period of the whole. */
function periodTable(
  { first, period, calendar, values, rests }: Series,
  { from, to }: { from: number; to: number },
  asked: SeriesSpec,
  column: FigureColumn,
  label: (k: number) => string,
): FigureTable {
  const within = values.subarray(from, to + 1);
  const rates = [NaN, ...periodRates(within)];
  return {
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
        words: '(This period − the one before) ÷ the size of the latter.',
      },
    ],
    rows: Array.from(within, (v, k): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [label(from + k), figureOf(v), figureOf(rates[k])],
      keys: periodKeys(first + from + k, period, calendar).slice(0, 1),
      where: periodCondition(asked.column, first + from + k, period, calendar),
      ...marked(gapsMark(column.measure, 1, rests(from + k))),
      ...deviationOf(column.measure, 1, rests(from + k)),
    })),
  };
}

/** The ends asked for, or the first and last whole period. @throws TallyRefused */
function endsOf(series: Series, spec: GrowthSpec): { from: number; to: number } {
  const { period, calendar, first, length } = series;
  const placeOf = (name: string | undefined, other: number): number =>
    name === undefined ? other : (periodNamed(name, period, calendar) ?? NaN) - first;
  const whole = {
    from: series.partialFirst && length > 2 ? 1 : 0,
    to: length - 1 - (series.partialLast && length > 2 ? 1 : 0),
  };
  const from = placeOf(spec.from, whole.from);
  const to = placeOf(spec.to, whole.to);
  if (!(from >= 0 && to < length && from <= to))
    throw new TallyRefused(
      'The ends of the growth lie outside the periods counted, or are turned round.',
    );
  return { from, to };
}

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
