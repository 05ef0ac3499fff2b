import type { Task } from '../../../task/task';
import type { ScalarColumn } from '../../../table/column';
import { counted, showNumber, withUnit } from '../../../table/format';
import { periodLabel } from '../../../table/period';
import { tableOf } from '../../answer/answer';
import { selectionOf, type TallyInput } from '../../input/input';
import { measureColumn } from '../../answer/figure';
import { checkKey, keyColumns } from '../../groups/keys';
import type { TallyAnswer, TallyKind } from '../../kind/kind';
import { periodColumn, periodKeys } from '../../series/periodLabels';
import { figureOf, type FigureColumn, type FigureRow, type FigureTable } from '../../answer/result';
import { checkSeries, periodCondition, visitSeries, type Series } from '../../series/series';
import type { SeriesSpec } from '../../series/seriesSpec';
import { visitAll, visitOptional } from '../../spec/visit';
import { warn, type Warning } from '../../trust/warnings';
import { lineFact } from './fact';
import { linesOfColumns, linesOfSeries, numberColumn, type FittedLines } from './points';
import { lineSentence } from './sentence';
import type { LineSpec } from './spec';
import { farTable, MOST_FAR, recordCalled } from './far';
import { lineTable, predictionTable, type Axes } from './tables';

export const lineKind: TallyKind<LineSpec> = {
  check(spec, faults, path) {
    const { x, y, series } = spec;
    if (series) {
      checkSeries(series, faults, `${path}.series`);
      for (const side of ['x', 'y'] as const)
        if (spec[side] !== undefined)
          faults.add(
            `${path}.${side}`,
            'Both a series and columns are given.',
            'Take the series, or two columns.',
          );
      if (spec.by.length)
        faults.add(
          `${path}.by`,
          'The groups of a series stand in the series.',
          'Name them in series.by.',
        );
      return;
    }
    for (const [side, ref] of [
      ['x', x],
      ['y', y],
    ] as const)
      if (ref === undefined)
        faults.add(
          `${path}.${side}`,
          'A line needs two number columns, or a series.',
          'Name x, the column along, and y, the one that the line follows.',
        );
      else faults.column(`${path}.${side}`, ref, ['number', 'yesno']);
    if (x !== undefined && x === y)
      faults.add(`${path}.y`, 'The line of a column on itself says nothing.', 'Name another.');
    spec.by.forEach((key, k) => checkKey(key, faults, `${path}.by[${k}]`));
  },
  visit: (spec, visitor, path) => ({
    ...spec,
    ...(spec.x !== undefined && { x: visitOptional(spec.x, visitor.column, `${path}.x`) }),
    ...(spec.y !== undefined && { y: visitOptional(spec.y, visitor.column, `${path}.y`) }),
    by: visitAll(spec.by, visitor.key, `${path}.by`),
    ...(spec.series && { series: visitSeries(spec.series, visitor, `${path}.series`) }),
  }),
  *compute(input, spec) {
    return spec.series
      ? yield* lineOfSeries(input, spec, spec.series)
      : yield* lineOfColumns(input, spec, spec.x ?? '', spec.y ?? '');
  },
  sentence: lineSentence,
  fact: lineFact,
  shape: ({ x, y, by, series, origin, percent }) =>
    series || x === undefined || y === undefined
      ? null
      : { of: y, as: 'points', along: x, keys: by, fit: { origin, percent }, reach: [] },
  drawnWhole: () => ['points'],
};

const axisOf = (column: ScalarColumn, key: string): FigureColumn => ({
  key,
  title: column.name,
  unit: column.unit,
  type: 'number',
  decimals: column.decimals,
});

function* lineOfColumns(
  input: TallyInput,
  spec: LineSpec,
  x: string,
  y: string,
): Task<TallyAnswer> {
  const { table } = input;
  const [along, up] = [numberColumn(table, x), numberColumn(table, y)];
  const found = yield* linesOfColumns(input, spec, along, up);
  const selection = selectionOf(input, spec.scope);
  const labels = yield* keyColumns(input, spec.by, selection);
  const axes: Axes = { x: axisOf(along, 'x'), y: axisOf(up, 'y') };
  return yield* answerOf(
    spec,
    labels,
    axes,
    found,
    [farTable(labels, axes, found.far, recordCalled)],
    'record',
  );
}

function* lineOfSeries(input: TallyInput, spec: LineSpec, asked: SeriesSpec): Task<TallyAnswer> {
  const found = yield* linesOfSeries(input, spec, asked);
  const { series } = found;
  const { first, period, calendar } = series;
  const selection = selectionOf(input, spec.scope);
  const labels = yield* keyColumns(input, asked.by, selection);
  const value = measureColumn(asked.measure, input.table, 'y');
  const axes: Axes = {
    x: { key: 'x', title: 'periods', unit: '', type: 'number', decimals: 0 },
    y: value,
  };
  const called = {
    column: periodColumn(period, calendar),
    cell: ({ at }: { readonly at: number }): Pick<FigureRow, 'cells' | 'keys' | 'where'> => ({
      cells: [periodLabel(first + at, period, calendar)],
      keys: periodKeys(first + at, period, calendar).slice(0, 1),
      where: periodCondition(asked.column, first + at, period, calendar),
    }),
  };
  return yield* answerOf(
    spec,
    labels,
    axes,
    found,
    [farTable(labels, axes, found.far, called), pointTable(series, found, value, called)],
    'period',
  );
}

/** The points of a series with what the line gives for each. */
const pointTable = (
  series: Series,
  { whole: { line } }: FittedLines,
  value: FigureColumn,
  called: {
    readonly column: FigureColumn;
    cell(point: { readonly at: number }): Pick<FigureRow, 'cells' | 'keys' | 'where'>;
  },
): FigureTable => ({
  name: 'points',
  caption: 'Points and line',
  labels: 1,
  columns: [
    called.column,
    {
      key: 'x',
      title: 'Number of the period',
      unit: '',
      type: 'number',
      decimals: 0,
      words: 'Counted from 1.',
    },
    { ...value, key: 'y', adds: undefined },
    {
      ...value,
      key: 'fitted',
      title: 'On the line',
      type: 'number',
      measure: undefined,
      adds: undefined,
      words: 'The line there.',
    },
  ],
  rows: Array.from(series.values, (v, k): FigureRow => {
    const own = called.cell({ at: k });
    return {
      kind: 'group',
      level: 0,
      ...own,
      cells: [
        ...own.cells,
        k + 1,
        figureOf(v),
        figureOf(line ? line.intercept + line.slope * (k + 1) : NaN),
      ],
    };
  }),
});

function* answerOf(
  spec: LineSpec,
  labels: readonly FigureColumn[],
  axes: Axes,
  found: FittedLines,
  more: readonly FigureTable[],
  what: 'record' | 'period',
): Task<TallyAnswer> {
  return {
    tables: [
      yield* lineTable(labels, axes, found),
      ...(spec.at.length ? [yield* predictionTable(spec, labels, axes, found)] : []),
      ...more,
    ].map(tableOf),
    warnings: [...found.warnings, ...notes(spec, axes, found, what)],
  };
}

/** `Each one more of Boarded goes with £7.20 more of Fares taken.` and what the line leaves out. */
function notes(
  spec: LineSpec,
  { x, y }: Axes,
  { whole: { line }, without, far }: FittedLines,
  what: 'record' | 'period',
): Warning[] {
  const out: Warning[] = [];
  if (line)
    out.push(
      warn(
        'reads-as',
        `${what === 'period' ? 'One period' : `One more of ${x.title}${x.unit ? ` (${x.unit})` : ''}`} goes with ${withUnit(showNumber(Math.abs(line.slope), undefined, Math.abs(line.slope) >= 100 ? 1 : 4), y.unit)} ${line.slope < 0 ? 'less' : 'more'} of ${y.title}; it does not say that the one makes the other.`,
      ),
    );
  if (without > 0)
    out.push(
      warn(
        'without-both',
        `${counted(without, what)} ${without === 1 ? 'lacks' : 'lack'} one of the two values and ${without === 1 ? 'is' : 'are'} left out.`,
      ),
    );
  if (far.length > 0)
    out.push(
      warn(
        'far-off',
        `${counted(far.length, what)} ${far.length === 1 ? 'lies' : 'lie'} more than ${showNumber(spec.far)} deviations off the line${far.length > MOST_FAR ? `; the furthest ${MOST_FAR} are named` : ''}.`,
      ),
    );
  return out;
}
