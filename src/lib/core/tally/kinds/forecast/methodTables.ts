import type { Accuracy, Tried } from '../../../forecast/holdOut';
import { METHOD_WORDS, type MethodKey } from '../../../forecast/method';
import {
  figureOf,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type FigureTable,
} from '../../answer/result';

/** Columns of the errors of a method. */
export const errorColumns = (value: FigureColumn): FigureColumn[] => [
  {
    key: 'mae',
    title: 'Mean absolute error',
    unit: value.unit,
    type: 'number',
    words: 'Mean of the sizes of the errors.',
  },
  {
    key: 'rmse',
    title: 'Root mean square error',
    unit: value.unit,
    type: 'number',
    words: 'Square root of the mean squared error.',
  },
  {
    key: 'mape',
    title: 'Mean absolute percentage error',
    unit: '',
    type: 'share',
    words: 'Mean of the errors ÷ actual values; none if one of these is 0.',
  },
  {
    key: 'mase',
    title: 'Mean absolute scaled error',
    unit: '',
    type: 'number',
    words: 'Mean absolute error ÷ that of repeating the last season (or value).',
  },
];

export const errorCells = (a: Accuracy | null | undefined): Figure[] =>
  [a?.mae, a?.rmse, a?.mape, a?.mase].map((v) => figureOf(v ?? NaN));

/** How each method did on the points held out. */
export const methodTable = (
  tried: readonly Tried[],
  chosen: MethodKey,
  value: FigureColumn,
): FigureTable => ({
  name: 'methods',
  caption: 'Methods, measured on the points held out',
  labels: 1,
  columns: [
    { key: 'method', title: 'Method', unit: '', type: 'text' },
    ...errorColumns(value),
    { key: 'chosen', title: 'Chosen', unit: '', type: 'text' },
    { key: 'why', title: 'Why not tried', unit: '', type: 'text' },
  ],
  rows: tried.map(({ method, accuracy, why }): FigureRow => ({
    kind: 'group',
    level: 0,
    cells: [
      METHOD_WORDS[method],
      ...errorCells(accuracy),
      method === chosen ? 'yes' : 'no',
      why || null,
    ],
  })),
});

/** The errors of the method taken: of its fit one step ahead, and on the points held out. */
export const errorTable = (
  fit: { readonly accuracy: Accuracy; readonly points: number },
  heldOut: { readonly accuracy: Accuracy | null; readonly points: number },
  value: FigureColumn,
): FigureTable => ({
  name: 'errors',
  caption: 'Errors of the method taken',
  labels: 1,
  columns: [
    { key: 'of', title: 'Of', unit: '', type: 'text' },
    {
      key: 'points',
      title: 'Points',
      unit: '',
      type: 'count',
      words: 'Points that were compared.',
    },
    ...errorColumns(value),
  ],
  rows: [
    {
      kind: 'group',
      level: 0,
      cells: ['the fit, one period ahead', fit.points, ...errorCells(fit.accuracy)],
    },
    {
      kind: 'group',
      level: 0,
      cells: ['the points held out', heldOut.points, ...errorCells(heldOut.accuracy)],
    },
  ],
});
