import { z } from 'zod';
import { FigurePlace, ScopeName, type FigureColumn } from '../tally/answer/result';

/** What a figure should be by another source. It stays in the bench and is compared at every change. */
export const KnownTotal = z.strictObject({
  id: z.string().min(1).max(40),
  /** The tally, by its id in the tray. */
  tally: z.string().max(40),
  /** The figure; its row by the keys of its labels, so that it is found again when rows come or go. */
  place: FigurePlace,
  /** The grand total of all records, or of those narrowed to, in the place of those counted. */
  scope: ScopeName.optional(),
  /** In the unit of the column; shares as fractions. */
  value: z.number(),
  /** Decimals that it was given with: it says no more than these. */
  decimals: z.int().min(0).max(12),
  /** `the quarterly statement`. */
  source: z.string().max(300).default(''),
  note: z.string().max(2000).default(''),
});
export type KnownTotal = z.infer<typeof KnownTotal>;

/** A number as an analyst types it, with the decimals it was given with; null where it is none. */
export interface Typed {
  readonly value: number;
  readonly decimals: number;
}

/**
 * Reads what a figure should be: thousands marks, currency signs and a per cent sign may stand there.
 * @param share whether the figure is a fraction shown as per cent
 * @example readKnown('8,826,504.25', false) // { value: 8826504.25, decimals: 2 }
 * @example readKnown('5.4 %', true) // { value: 0.054, decimals: 3 }
 */
export function readKnown(text: string, share: boolean): Typed | null {
  const plain = text
    .replace(/[,\s£$€¥%]/g, '')
    .replace(/^[−–]/, '-')
    .replace(/^\((.+)\)$/, '-$1');
  if (!/^[-+]?\d+(\.\d+)?$/.test(plain)) return null;
  const decimals = Math.min(12, plain.split('.')[1]?.length ?? 0);
  // The point is moved in the text: a division would not give the nearest double.
  return share
    ? { value: Number(`${plain}e-2`), decimals: Math.min(12, decimals + 2) }
    : { value: Number(plain), decimals };
}

export const isShare = ({ type, percent }: Pick<FigureColumn, 'type' | 'percent'>): boolean =>
  type === 'share' || percent === true;

/**
 * Whether a figure is what it should be, as far as the known total was given: 5.4 is any figure from
 * 5.35 to 5.45. A few units in the last place of a double are allowed for.
 */
export function agrees({ value, decimals }: Typed, figure: number): boolean {
  const half = 0.5 * 10 ** -decimals;
  return Math.abs(figure - value) <= half + 1e-9 * Math.max(half, Math.abs(value) * 1e-3);
}
