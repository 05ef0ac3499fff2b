import { z } from 'zod';
import { FigurePlace, ScopeName } from '../tally/answer/result';

/** A figure that stands in the words of a report. Where it stands in them, its mark does: `{{c1}}`. */
export const CitedFigure = z.strictObject({
  id: z.string().regex(/^c[1-9]\d{0,8}$/),
  /** The tally, by its id in the tray. */
  tally: z.string().max(40),
  /** The figure; its row by the keys of its labels, so that it is found again when rows come or go. */
  place: FigurePlace,
  scope: ScopeName.optional(),
  /** The figure as it was when the words were read last. */
  read: z.string().max(4000),
});
export type CitedFigure = z.infer<typeof CitedFigure>;

/** Words, and figures that stand among them, in turn. */
export type NotePart = string | { readonly cited: string };

const MARK = /\{\{(c[1-9]\d{0,8})\}\}/;

/** How a figure is marked in words. */
export const citeMark = (id: string): string => `{{${id}}}`;

/**
 * Words with the figures that stand in them.
 * @example notePartsOf('Up to {{c1}} £.') // ['Up to ', { cited: 'c1' }, ' £.']
 */
export const notePartsOf = (words: string): NotePart[] =>
  words
    .split(MARK)
    .map((part, k): NotePart => (k % 2 ? { cited: part } : part))
    .filter((part) => part !== '');

/** The figures that words hold, by their ids. */
export const citedIn = (words: string): string[] =>
  notePartsOf(words).flatMap((part) => (typeof part === 'string' ? [] : [part.cited]));
