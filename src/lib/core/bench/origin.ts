import { z } from 'zod';
import { ReshapeSpec } from '../prepare/specs';
import { Tally } from '../tally/spec/specs';

/** Which records of a bench a list is made of. */
export const MADE_OF = ['all', 'counted'] as const;

/** What of a bench becomes a list of its own. */
export const Making = z.discriminatedUnion('of', [
  /** Its records, with their made columns, stacked or unstacked in this order. */
  z.strictObject({
    of: z.literal('records'),
    records: z.enum(MADE_OF),
    reshape: z.array(ReshapeSpec).max(20).default([]),
  }),
  /** The rows of a tally's table, one record each, totals left out. */
  z.strictObject({
    of: z.literal('tally'),
    tally: Tally,
    /** The table by its name; the first unless given. */
    table: z.string().max(60).default('main'),
  }),
]);
export type Making = z.infer<typeof Making>;

/**
 * Where a list comes from that is made of another: linked to it, or frozen as it was on a day. A
 * linked list follows the bench it was made from: its readings, its corrections, its made columns
 * and What counts there.
 */
export const Origin = z.strictObject({
  bench: z.int().min(1),
  make: Making,
  frozen: z.iso.date().nullable(),
});
export type Origin = z.infer<typeof Origin>;

/** Where a list comes from, as it is said on pages. */
export interface ListOrigin {
  /** The day on which it was frozen; null: it follows the bench. */
  readonly frozen: string | null;
  /** Why it could not be made anew; null where it could. */
  readonly fault: string | null;
  /** Whether an earlier reading of it was brought back: it does not follow until it is made anew. */
  readonly putBack: boolean;
  /** Null where the bench is gone. */
  readonly bench: { readonly id: number; readonly name: string; readonly list: string } | null;
}

/**
 * The same in words.
 * @example originWords({ frozen: null, fault: null, putBack: false, bench: { id: 1, name: 'Bench 1', list: 'Kiosks' } }) // 'follows Kiosks, Bench 1'
 */
export function originWords({ frozen, putBack, bench }: ListOrigin): string {
  const of = bench ? `${bench.list}, ${bench.name}` : 'a bench that is gone';
  if (putBack) return `made of ${of}, put back to an earlier reading`;
  return frozen === null ? `follows ${of}` : `frozen on ${frozen} from ${of}`;
}
