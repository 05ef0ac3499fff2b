import type { AcrossSpec, ComputedSpec } from '../../core/prepare/specs';

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

/** An expression longer than this is no name. */
const LONGEST = 40;

/**
 * What a column goes by until somebody names it: what it is across columns, or its expression without
 * the marks that only the expression needs: `Fares taken / Boarded`.
 */
export function proposedName({ across, expression }: Omit<ComputedSpec, 'name' | 'unit'>): string {
  if (across) return ACROSS[across.measure];
  const name = (expression ?? '')
    .replace(/NULLIF\(\s*("(?:[^"]|"")*"|\w+)\s*,\s*0\s*\)/gi, '$1')
    .replace(/"((?:[^"]|"")*)"/g, (_, quoted: string) => quoted.replaceAll('""', '"'))
    .replace(/\s+/g, ' ')
    .trim();
  return name === '' || name.length > LONGEST ? 'New column' : name;
}
