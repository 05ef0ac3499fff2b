import { z } from 'zod';
import { Ask } from '../ask/ask';
import { upgraded, wordsForSays } from '../ask/upgrade';
import { Recipe } from '../read/recipe';
import { Figure, FigurePlace } from '../tally/answer/result';
import type { FigureBehind } from '../tally/behind/behind';

/**
 * Where a figure comes from, as one document: the list as it was read, what was asked of it, and what
 * came out. With the file, `tally verify` computes it again.
 */
export const FigureRecord = z.strictObject({
  version: z.literal(2),
  /** The figure and its row in words, and the figure as it was shown. */
  words: z.string(),
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

/** The figure and its row in words, as a record has them. */
export const figureWords = ({ where, column }: Pick<FigureBehind, 'where' | 'column'>): string =>
  [where, column.title].filter(Boolean).join(', ');

/** A record of any version, as a file brings it: of version 1, its words were `says`, and its ask is older. */
export const AnyFigureRecord: z.ZodType<FigureRecord> = z
  .unknown()
  .transform((document) =>
    typeof document === 'object' && document !== null && 'version' in document && 'ask' in document
      ? {
          ...(document.version === 1
            ? { ...Object(wordsForSays(document)), version: 2 }
            : document),
          ask: upgraded(document.ask),
        }
      : document,
  )
  .pipe(FigureRecord);
