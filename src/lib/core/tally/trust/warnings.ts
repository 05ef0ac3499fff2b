import { z } from 'zod';

/** What an analyst should know before using a figure, by code: one list, for programs to tell apart. */
export const WARNING_CODES = [
  /** Preparing. */
  'frozen-list',
  'linked-list',
  'not-joined',
  /** The ask. */
  'no-version',
  /** Groups. */
  'labels-alike',
  'labels-as-one',
  'bands-gap',
  'bands-overlap',
  'in-no-band',
  'unequal-counts',
  'few-values',
  /** Conditional figures. */
  'rows-add',
  'rows-do-not-add',
  'rows-miss',
  'rows-overlap',
  'columns-overlap',
  'columns-miss',
  /** Rankings. */
  'not-ranked',
  'tie-at-edge',
  'repeated-keys',
  /** Periods, growth and forecasts. */
  'undated',
  'partial-first',
  'partial-last',
  'empty-periods',
  'like-with-like',
  'no-index-base',
  'no-rate',
  'intervals',
  'mean-differs',
  'no-mean-rate',
  'stands-on',
  'chosen',
  'few-points',
  'under-two-seasons',
  'gaps-filled',
  'last-far',
  'gave-most',
  'rests',
  'on-one-side',
  'reads-as',
  'without-both',
  'far-off',
  'not-forecast',
  'sum-of-forecasts',
  /** Tallies built on others. */
  'of-group-results',
  'moved',
  'not-all-traced',
  'explained',
  'left-over',
  'side-by-side',
  'none-in-both',
  'met-loosely',
  'totals-left-out',
] as const;

/** `code` is for programs, `words` for readers. */
export const Warning = z.object({ code: z.enum(WARNING_CODES), words: z.string() });
export type Warning = z.infer<typeof Warning>;

/** @example warn('no-rate', 'No compound rate: the first value is 0.') */
export const warn = (code: Warning['code'], words: string): Warning => ({ code, words });
