import { AGGREGATES } from '$lib/core/parts/groupedPart';
import { z } from 'zod';

/** Columns of what is asked of a database, by their places: those that make groups, and those that are added up. */
export const Grouped = z.strictObject({
  kept: z.array(z.int().min(0)),
  summed: z.array(z.int().min(0)),
  /** Of those: the ones whose deviations are asked for. */
  squared: z.array(z.int().min(0)),
});
export type Grouped = z.infer<typeof Grouped>;

type Aggregate = (typeof AGGREGATES)[number];

/** How a database says what grouping needs. */
export interface GroupingDialect {
  /** The value of a column to group by: what differs in the list is apart here. @param place of the column */
  key(name: string, place: number): string;
  /** What a column comes to in a group. */
  readonly aggregates: Readonly<Record<Aggregate, (name: string, place: number) => string>>;
}

const columnName = (place: number): string => `c${place}`;

/**
 * A select that groups another: the columns kept, the number of records, and the aggregates of each column summed.
 * @param select what is asked of, a whole SELECT
 * @param width how many columns that has; two of them may have one name
 * @example
 * groupedSelect('SELECT * FROM fees', 2, { kept: [0], summed: [], squared: [] }, dialect)
 * // WITH asked(c0, c1) AS (SELECT * FROM fees) SELECT c0 AS k0, count(*) AS records FROM asked GROUP BY 1
 */
export function groupedSelect(
  select: string,
  width: number,
  { kept, summed, squared }: Grouped,
  { key, aggregates }: GroupingDialect,
): string {
  const names = Array.from({ length: width }, (_, place) => columnName(place));
  const cells = [
    ...kept.map((place, k) => `${key(columnName(place), place)} AS k${k}`),
    'count(*) AS records',
    ...summed.flatMap((place, k) =>
      AGGREGATES.map((one) =>
        one === 'squares' && !squared.includes(place)
          ? `CAST(NULL AS double precision) AS s${k}_${one}`
          : `${aggregates[one](columnName(place), place)} AS s${k}_${one}`,
      ),
    ),
  ];
  const groups = kept.length ? ` GROUP BY ${kept.map((_, k) => k + 1).join(', ')}` : '';
  return `WITH asked(${names.join(', ')}) AS (${select}\n) SELECT ${cells.join(', ')} FROM asked${groups}`;
}
