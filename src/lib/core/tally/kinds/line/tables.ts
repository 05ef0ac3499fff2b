import type { Task } from '../../../task/task';
import { madeRows } from '../../answer/answer';
import { studentQuantile } from '../../../forecast/quantiles';
import { lineAt, predictionSd } from '../../../measure/line';
import { showNumber } from '../../../table/format';
import {
  figureOf,
  marked,
  type FigureColumn,
  type FigureRow,
  type FigureTable,
} from '../../answer/result';
import type { FittedLines, LinePoints } from './points';
import type { LineSpec } from './spec';

/** How x and y are called and written. */
export interface Axes {
  readonly x: FigureColumn;
  readonly y: FigureColumn;
}

const per = (y: FigureColumn, x: FigureColumn): string =>
  y.unit || x.unit ? `${y.unit || '1'}/${x.unit || '1'}` : '';

/** Columns of what a line is. */
export const lineColumns = ({ x, y }: Axes): FigureColumn[] => [
  {
    key: 'n',
    title: 'Points',
    unit: '',
    type: 'count',
    reach: [0],
    words: `Those with both ${x.title} and ${y.title}.`,
  },
  {
    key: 'slope',
    title: 'Slope',
    unit: per(y, x),
    type: 'number',
    significant: 6,
    reach: [0],
    words: `How much ${y.title} the line gains for each one more of ${x.title}, by least squares.`,
  },
  {
    key: 'slopeSe',
    title: 'Standard error of the slope',
    unit: per(y, x),
    type: 'number',
    significant: 4,
    words: 'Residual deviation ÷ the square root of the sum of squares of x about its mean.',
  },
  {
    key: 'intercept',
    title: 'Intercept',
    unit: y.unit,
    type: 'number',
    significant: 6,
    reach: [0],
    words: `The line where ${x.title} is 0.`,
  },
  {
    key: 'interceptSe',
    title: 'Standard error of the intercept',
    unit: y.unit,
    type: 'number',
    significant: 4,
    words: 'None for a line through the origin.',
  },
  {
    key: 'r',
    title: 'Correlation r',
    unit: '',
    type: 'number',
    decimals: 4,
    words: 'Correlation; none where a column does not vary.',
  },
  {
    key: 'r2',
    title: 'Explained r²',
    unit: '',
    type: 'number',
    decimals: 4,
    words: 'The share of the variance of y that the line explains.',
  },
  {
    key: 'residualSd',
    title: 'Residual deviation',
    unit: y.unit,
    type: 'number',
    significant: 5,
    words: 'Square root of the squared residuals ÷ (n − 2), n − 1 through the origin.',
  },
];

const lineCells = ({ n, line }: LinePoints): FigureRow['cells'] =>
  line
    ? [
        n,
        ...[
          line.slope,
          line.slopeSe,
          line.intercept,
          line.interceptSe,
          line.r,
          line.r2,
          line.residualSd,
        ].map(figureOf),
      ]
    : [n, null, null, null, null, null, null, null];

/** Under so many points a line is anybody's. */
const FEW = 10;

const lineMarks = ({ line }: LinePoints): Pick<FigureRow, 'marks'> =>
  marked(
    !line
      ? [{ kind: 'doubt', words: 'No line: under two points, or x does not vary.' }]
      : line.n < FEW
        ? [{ kind: 'few', words: `${line.n} points` }]
        : [],
  );

/** The line of the whole, and of each group. */
export function* lineTable(
  labels: readonly FigureColumn[],
  axes: Axes,
  { whole, groups }: FittedLines,
): Task<FigureTable> {
  const all: FigureRow = {
    kind: labels.length ? 'total' : 'group',
    level: 0,
    keys: [],
    cells: [...labels.map((_, k) => (k === 0 ? 'All' : null)), ...lineCells(whole)],
    ...lineMarks(whole),
  };
  const parts = yield* madeRows(groups, (group) => ({
    kind: 'group',
    level: 1,
    keys: [...group.keys],
    cells: [...group.path, ...lineCells(group)],
    ...(group.where && { where: group.where }),
    ...lineMarks(group),
  }));
  return {
    name: 'main',
    caption: 'The line',
    labels: labels.length,
    columns: [...labels, ...lineColumns(axes)],
    rows: [all, ...parts],
  };
}

/** y predicted at the values of x that were asked for. */
export function* predictionTable(
  spec: LineSpec,
  labels: readonly FigureColumn[],
  { x, y }: Axes,
  { whole, groups }: FittedLines,
): Task<FigureTable> {
  const plain = {
    unit: y.unit,
    type: 'number' as const,
    ...(y.decimals !== undefined && { decimals: y.decimals }),
  };
  const percent = `${Number(spec.percent.toPrecision(6))} %`;
  const rowOf = (points: LinePoints, at: number): FigureRow => {
    const { line } = points;
    const df = line ? line.n - (line.origin ? 1 : 2) : 0;
    const reach = line
      ? studentQuantile((1 + spec.percent / 100) / 2, df) * predictionSd(line, at)
      : NaN;
    const value = line ? lineAt(line, at) : NaN;
    const beyond = line && (at < line.least || at > line.most);
    return {
      kind: 'group',
      level: 0,
      keys: [...(points.where ? points.keys : labels.map(() => null)), at],
      cells: [
        ...(points.where ? points.path : labels.map((_, k) => (k === 0 ? 'All' : null))),
        at,
        ...[value, value - reach, value + reach].map(figureOf),
      ],
      ...marked(
        beyond
          ? [
              {
                column: labels.length,
                kind: 'doubt',
                words: `Beyond the points, which lie from ${showNumber(line.least)} to ${showNumber(line.most)}.`,
              },
            ]
          : [],
      ),
    };
  };
  return {
    name: 'predictions',
    caption: 'Predicted',
    labels: labels.length + 1,
    columns: [
      ...labels,
      {
        key: 'at',
        title: x.title,
        unit: x.unit,
        type: 'number',
        ...(x.decimals !== undefined && { decimals: x.decimals }),
      },
      { key: 'predicted', title: `Predicted ${y.title}`, ...plain, words: 'The line there.' },
      {
        key: 'low',
        title: `Lower bound, ${percent}`,
        ...plain,
        words: `${percent} of new values lie between the bounds, if the line holds (Student t).`,
      },
      {
        key: 'high',
        title: `Upper bound, ${percent}`,
        ...plain,
        words: `${percent} of new values lie between the bounds, if the line holds (Student t).`,
      },
    ],
    rows: yield* madeRows([whole, ...groups], (points) =>
      [...new Set(spec.at)].map((at) => rowOf(points, at)),
    ),
  };
}
