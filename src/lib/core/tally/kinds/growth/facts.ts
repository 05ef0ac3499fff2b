import { counted } from '../../../table/format';
import { shareColumn } from '../../answer/figure';
import { figureOf, type Figure, type FigureColumn } from '../../answer/result';
import { warn, type Warning } from '../../trust/warnings';
import { compoundRate, fittedRate, perYear, periodRates, refusal } from './rates';
import type { GrowthSpec } from './spec';

/** What stands between two ends. */
export interface Ends {
  readonly first: number;
  readonly last: number;
  readonly intervals: number;
  /** Periods to the year; null where that is not known. */
  readonly inYear: number | null;
  readonly unit: string;
  readonly decimals?: number;
  readonly words: string;
}

/** What growth comes to between two ends. */
export interface GrowthFacts {
  readonly columns: FigureColumn[];
  readonly cells: Figure[];
  /** The compound rate per period; NaN where it is refused. */
  readonly rate: number;
  /** Why there is no compound rate; null where there is one. */
  readonly refused: string | null;
  readonly warnings: Warning[];
}

/** The figures of growth between two ends, a column each. @param within all values from end to end */
export function growthFacts(spec: GrowthSpec, ends: Ends, within: ArrayLike<number>): GrowthFacts {
  const { first, last, intervals, inYear, unit, decimals } = ends;
  const rate = compoundRate(first, last, intervals);
  const rates = periodRates(within);
  const missing = rates.filter((r) => r !== r).length;
  // A mean over the rates that exist would pass over the others in silence.
  const mean = rates.length ? rates.reduce((s, r) => s + r, 0) / rates.length : NaN;
  const fitted = fittedRate(within);
  const value = (key: string, title: string, words: string): FigureColumn => ({
    key,
    title,
    unit,
    type: 'number',
    ...(decimals !== undefined && { decimals }),
    words,
  });
  const list: [FigureColumn, number][] = [
    [value('first', 'First value', 'The value growth begins from.'), first],
    [value('last', 'Last value', 'The value growth leads to.'), last],
    [
      { key: 'intervals', title: 'Intervals', unit: '', type: 'number', words: ends.words },
      intervals,
    ],
    [
      shareColumn('total', 'Total growth', '(Last − first) ÷ first.'),
      first > 0 ? (last - first) / first : NaN,
    ],
    [
      shareColumn(
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
            shareColumn(
              'yearly',
              'Compound rate per year',
              'The rate per period compounded over a year.',
            ),
            perYear(rate, inYear),
          ],
        ] as [FigureColumn, number][])),
    [
      shareColumn(
        'mean',
        'Mean of the period rates',
        'The rates from period to period, added up and divided by their number.',
      ),
      mean,
    ],
    [
      shareColumn(
        'fitted',
        'Fitted rate',
        'The slope of a line through the logarithms, as a rate.',
      ),
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
    warn('intervals', ends.words),
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
    cells: list.map(([, v]) => figureOf(v)),
    rate,
    refused,
    warnings,
  };
}
