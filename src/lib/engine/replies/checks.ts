import { z } from 'zod';
import { FigurePlace } from '../../core/tally/answer/result';

/** A known total beside the figure as it is now. */
export const KnownNow = z.strictObject({
  id: z.string(),
  tally: z.string(),
  source: z.string(),
  note: z.string(),
  /** Where its figure stands now: a place in a ranking may be another than it was. */
  place: FigurePlace,
  /** Its row and its column in words. */
  where: z.string(),
  title: z.string(),
  figure: z.string(),
  known: z.string(),
  /** Figure less known. */
  difference: z.string(),
  /** lost: there is no such figure any more, for the reason in `why`. */
  stands: z.enum(['agrees', 'differs', 'lost']),
  why: z.string(),
});
export type KnownNow = z.infer<typeof KnownNow>;

/** A figure that stands in the words of the report, as it is now. */
export const CitedNow = z.strictObject({
  id: z.string(),
  tally: z.string(),
  place: FigurePlace,
  /** Its row and its column in words. */
  where: z.string(),
  title: z.string(),
  /** The figure now; where it is lost, as it was read last. */
  figure: z.string(),
  /** As it was when the words were read last. */
  read: z.string(),
  stands: z.enum(['same', 'moved', 'lost']),
  why: z.string(),
});
export type CitedNow = z.infer<typeof CitedNow>;
