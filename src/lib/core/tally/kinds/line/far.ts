import { recordNumber } from '../../../table/recordNumber';
import { figureOf, type FigureColumn, type FigureRow, type FigureTable } from '../../answer/result';
import type { FarPoint } from './points';
import type { Axes } from './tables';

/** Rows of points far off; more are counted in a warning. */
export const MOST_FAR = 200;

/** The records (or periods) furthest from their line. @param called their own label columns and cells */
export const farTable = (
  labels: readonly FigureColumn[],
  { x, y }: Axes,
  far: readonly FarPoint[],
  called: {
    readonly column: FigureColumn;
    cell(point: FarPoint): Pick<FigureRow, 'cells' | 'keys' | 'where'>;
  },
): FigureTable => ({
  name: 'far',
  caption: 'Far off the line, the furthest first',
  labels: 1 + labels.length,
  columns: [
    called.column,
    ...labels,
    { ...plainly(x), key: 'x', reach: [0], words: `Its ${x.title}.` },
    { ...plainly(y), key: 'y', reach: [0], words: `Its ${y.title}.` },
    { ...plainly(y), key: 'fitted', title: 'On the line', words: 'The line there.' },
    {
      ...plainly(y),
      key: 'residual',
      title: 'Off by',
      words: 'The value less the line.',
    },
    {
      key: 'deviations',
      title: 'Deviations off',
      unit: '',
      type: 'number',
      decimals: 1,
      words: 'Off by ÷ the residual deviation of its line.',
    },
  ],
  rows: far.slice(0, MOST_FAR).map((point): FigureRow => {
    const own = called.cell(point);
    return {
      kind: 'group',
      level: 0,
      ...own,
      cells: [
        ...own.cells,
        ...point.of.path,
        ...[point.x, point.y, point.y - point.residual, point.residual, point.deviations].map(
          figureOf,
        ),
      ],
      keys: [...(own.keys ?? []), ...point.of.keys],
    };
  }),
});

/** A column's values as they are, not figures of a measure. */
const plainly = ({ measure: _, adds: _adds, ...column }: FigureColumn): FigureColumn => ({
  ...column,
  type: 'number',
});

/** Points that are records, by their numbers. */
export const recordCalled = {
  column: {
    key: 'record',
    title: 'Record',
    unit: '',
    type: 'number' as const,
    decimals: 0,
  },
  cell: ({ at }: FarPoint): Pick<FigureRow, 'cells' | 'keys' | 'where'> => ({
    cells: [recordNumber(at)],
    keys: [recordNumber(at)],
    where: { kind: 'records', not: false, records: [recordNumber(at)] },
  }),
};
