import type { Making } from '../../core/prepare/computedColumn';
import type { AcrossSpec, WindowSpec } from '../../core/prepare/specs';

const ACROSS: Readonly<Record<AcrossSpec['measure'], string>> = {
  sum: 'Total',
  mean: 'Mean',
  median: 'Median',
  max: 'Highest',
  min: 'Lowest',
  second: 'Second highest',
  lead: 'Lead',
  range: 'Range',
  sd: 'Spread',
  values: 'Values',
  blanks: 'Blanks',
  distinct: 'Different values',
  highestColumn: 'Which is highest',
  lowestColumn: 'Which is lowest',
  product: 'Product',
  geometricMean: 'Geometric mean',
};

/** What a figure within groups goes by, of a column. */
const WINDOW: Readonly<Record<WindowSpec['figure'], (of: string) => string>> = {
  rank: (of) => `Rank by ${of}`,
  percentileRank: (of) => `Percentile rank by ${of}`,
  number: () => 'Number',
  running: (of) => `${of}, running`,
  share: (of) => `Share of ${of}`,
  previous: (of) => `${of} before`,
  change: (of) => `Change of ${of}`,
};

/** An expression longer than this is no name. */
const LONGEST = 40;

/**
 * What a column goes by until somebody names it: what it is across columns, or its expression without
 * the marks that only the expression needs: `Fares taken / Boarded`.
 */
export function proposedName(
  { across, window, expression }: Making,
  nameOf: (id: string) => string = (id) => id,
): string {
  if (across) return ACROSS[across.measure];
  if (window)
    return window.of === undefined && window.figure !== 'number'
      ? 'New column'
      : WINDOW[window.figure](nameOf(window.of ?? ''));
  const name = (expression ?? '')
    .replace(/NULLIF\(\s*("(?:[^"]|"")*"|\w+)\s*,\s*0\s*\)/gi, '$1')
    .replace(/"((?:[^"]|"")*)"/g, (_, quoted: string) => quoted.replaceAll('""', '"'))
    .replace(/\s+/g, ' ')
    .trim();
  return name === '' || name.length > LONGEST ? 'New column' : name;
}
