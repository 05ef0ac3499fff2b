import { METHOD_WORDS, type Fitted, type MethodKey, type Term } from '../../../forecast/method';
import { autocorrelation, residuals } from '../../../forecast/residuals';
import { periodLabel } from '../../../table/period';
import { figureOf, type FigureColumn, type FigureRow, type FigureTable } from '../../answer/result';
import { SEASON_BY_WORDS } from './seasonWords';
import type { ForecastPoints } from './points';
import { plainOf } from './tables';

/** Tables that say what a forecast is made of. */

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
  caption: `Parameters of ${METHOD_WORDS[method]}${parameters.seasonBy ? `, ${SEASON_BY_WORDS[parameters.seasonBy]}` : ''}`,
  labels: 1,
  columns: [
    { key: 'parameter', title: 'Parameter', unit: '', type: 'text' },
    {
      key: 'value',
      title: 'Value',
      unit: '',
      type: 'number',
      words: 'As given, or found by least squared one-step error.',
    },
  ],
  rows: (Object.keys(PARAMETER_WORDS) as (keyof typeof PARAMETER_WORDS)[]).flatMap(
    (name): FigureRow[] =>
      parameters[name] === undefined
        ? []
        : [{ kind: 'group', level: 0, cells: [PARAMETER_WORDS[name], parameters[name]] }],
  ),
});

const TERM_WORDS: Record<Term['name'], string> = {
  level: 'last level',
  trend: 'trend for each period',
  season: 'season of',
  intercept: 'intercept, one period before the first',
  slope: 'slope for each period',
  logIntercept: 'intercept of the logarithms',
  logSlope: 'slope of the logarithms for each period',
  rate: 'rate for each period',
  change: 'mean change for each period',
};

/** Terms that are no amounts of the measure: factors, rates, logarithms. */
const isPure = (name: Term['name'], method: MethodKey): boolean =>
  ['rate', 'logIntercept', 'logSlope'].includes(name) ||
  (name === 'season' && method === 'seasonalMultiplicative');

/** The level, trend and seasons as they stand behind the last point: what is carried on. */
export function termTable(
  method: MethodKey,
  { terms }: Fitted,
  { points, series }: ForecastPoints,
  value: FigureColumn,
): FigureTable {
  const { first, period, calendar } = series;
  const wordsOf = ({ name, ahead }: Term): string =>
    ahead === undefined
      ? TERM_WORDS[name]
      : `${TERM_WORDS[name]} ${periodLabel(first + points.y.length + ahead - 1, period, calendar)}`;
  return {
    name: 'terms',
    caption: 'What is carried on from the last point',
    labels: 1,
    columns: [
      { key: 'term', title: 'Term', unit: '', type: 'text' },
      { key: 'amount', title: 'Amount', ...plainOf(value), words: 'In the unit of the measure.' },
      {
        key: 'factor',
        title: 'Factor',
        unit: '',
        type: 'number',
        words: 'Of a season that multiplies, of a rate, or of logarithms.',
      },
    ],
    rows: terms.map((term): FigureRow => {
      const pure = isPure(term.name, method);
      const figure = figureOf(term.value);
      return {
        kind: 'group',
        level: 0,
        cells: [wordsOf(term), pure ? null : figure, pure ? figure : null],
      };
    }),
  };
}

/** Lags looked at: two seasons, or ten. */
const MOST_LAGS = 24;

/** How the errors of the fit hang together: with nothing left to carry on they lie within the bounds. */
export function autocorrelationTable(
  { fitted }: Fitted,
  { points: { y, season } }: ForecastPoints,
): FigureTable {
  const errors = residuals(y, fitted);
  const n = errors.filter((e) => e === e).length;
  const lags = Math.min(MOST_LAGS, season > 1 ? 2 * season : 10, Math.floor(n / 2));
  const bound = 1.96 / Math.sqrt(n);
  return {
    name: 'autocorrelation',
    caption: 'Autocorrelation of the errors of the fit',
    labels: 1,
    columns: [
      { key: 'lag', title: 'Lag', unit: '', type: 'number', decimals: 0 },
      {
        key: 'r',
        title: 'Autocorrelation',
        unit: '',
        type: 'number',
        decimals: 3,
        words: 'Of each error with the one so many periods before.',
      },
      {
        key: 'bound',
        title: 'Bound',
        unit: '',
        type: 'number',
        decimals: 3,
        words: '1.96 ÷ √n: 95 % of such figures lie within it if the errors are chance.',
      },
    ],
    rows: autocorrelation(errors, lags).map((r, k): FigureRow => ({
      kind: 'group',
      level: 0,
      cells: [k + 1, figureOf(r), bound],
      ...(Math.abs(r) > bound && {
        marks: [
          {
            column: 1,
            kind: 'doubt',
            words: 'Beyond what chance makes: something is left in the errors.',
          },
        ],
      }),
    })),
  };
}
