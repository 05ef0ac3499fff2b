import { z } from 'zod';
import { Ask } from '../ask/ask';
import { Recipe } from '../read/recipe';
import { Figure, FigurePlace } from '../tally/result';

/**
 * Where a figure comes from, as one document: the list as it was read, what was asked of it, and what
 * came out. With the file, `tally verify` reckons it again.
 */
export const FigureRecord = z.strictObject({
  version: z.literal(1),
  /** The figure and its row in words, and the figure as it was shown. */
  says: z.string(),
  shown: z.string(),
  list: z.strictObject({
    name: z.string(),
    records: z.int(),
    /** Of the columns and cells as they were read (`tablePrint`). */
    print: z.string().regex(/^[0-9a-f]{64}$/),
    recipe: Recipe,
  }),
  /** One tally, over what counted. */
  ask: Ask,
  place: FigurePlace,
  /** The figure in full, and how many records stand behind it. */
  figure: Figure,
  records: z.int(),
});
export type FigureRecord = z.infer<typeof FigureRecord>;
