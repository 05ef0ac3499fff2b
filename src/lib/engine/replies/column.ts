import { z } from 'zod';

/** A value, with all the ways of writing it that look the same. */
export const Choice = z.strictObject({
  text: z.string(),
  count: z.int(),
  spellings: z.array(z.strictObject({ text: z.string(), count: z.int() })),
});

export const Distribution = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('bins'),
    edges: z.array(z.number()),
    labels: z.array(z.string()),
    counts: z.array(z.int()),
    /** Values before the first and behind the last edge. */
    under: z.int(),
    over: z.int(),
  }),
  z.strictObject({
    kind: z.literal('values'),
    items: z.array(Choice),
    others: z.int(),
  }),
  z.strictObject({ kind: z.literal('none') }),
]);
export type Distribution = z.infer<typeof Distribution>;

export const ColumnFacts = z.strictObject({
  column: z.string(),
  name: z.string(),
  type: z.string(),
  unit: z.string(),
  facts: z.array(z.strictObject({ name: z.string(), value: z.string() })),
  distribution: Distribution,
  /** The kinds of tally that can be begun from it, with the words of each. */
  /** Whether its plain numbers all lie where years do. */
  mayBeYears: z.boolean(),
  asked: z.array(z.strictObject({ kind: z.string(), words: z.string() })),
});
export type ColumnFacts = z.infer<typeof ColumnFacts>;
