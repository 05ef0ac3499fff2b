import type { Comparison } from '../../selection/condition';

/** Words that compare, before the number: the longest first. */
export const COMPARED: readonly (readonly [words: readonly string[], op: Comparison])[] = [
  [['more', 'than'], 'gt'],
  [['greater', 'than'], 'gt'],
  [['higher', 'than'], 'gt'],
  [['longer', 'than'], 'gt'],
  [['later', 'than'], 'gt'],
  [['less', 'than'], 'lt'],
  [['lower', 'than'], 'lt'],
  [['fewer', 'than'], 'lt'],
  [['shorter', 'than'], 'lt'],
  [['earlier', 'than'], 'lt'],
  [['at', 'least'], 'ge'],
  [['at', 'most'], 'le'],
  [['up', 'to'], 'le'],
  [['over'], 'gt'],
  [['above'], 'gt'],
  [['after'], 'gt'],
  [['under'], 'lt'],
  [['below'], 'lt'],
  [['before'], 'lt'],
  [['equals'], 'eq'],
  [['since'], 'ge'],
  [['from'], 'ge'],
  [['>='], 'ge'],
  [['<='], 'le'],
  [['≥'], 'ge'],
  [['≤'], 'le'],
  [['>'], 'gt'],
  [['<'], 'lt'],
];

/** Words that compare behind the number: `10 or more`. */
export const COMPARED_BEHIND: readonly (readonly [words: readonly string[], op: Comparison])[] = [
  [['or', 'more'], 'ge'],
  [['or', 'over'], 'ge'],
  [['or', 'less'], 'le'],
  [['or', 'fewer'], 'le'],
  [['or', 'under'], 'le'],
];

/** Words that look into a text. */
export const TEXT_TESTS: readonly (readonly [
  words: readonly string[],
  test: 'contains' | 'startsWith' | 'endsWith',
])[] = [
  [['starts', 'with'], 'startsWith'],
  [['starting', 'with'], 'startsWith'],
  [['begins', 'with'], 'startsWith'],
  [['beginning', 'with'], 'startsWith'],
  [['ends', 'with'], 'endsWith'],
  [['ending', 'with'], 'endsWith'],
  [['ending', 'in'], 'endsWith'],
  [['ends', 'in'], 'endsWith'],
  [['contains'], 'contains'],
  [['containing'], 'contains'],
  [['holds'], 'contains'],
];

export const IS_WORDS: ReadonlySet<string> = new Set(['is', 'are', 'was', 'were', '=']);
export const BLANK_WORDS: ReadonlySet<string> = new Set(['blank', 'empty', 'missing']);
/** Words that turn what follows them round. */
export const NOT_WORDS: ReadonlySet<string> = new Set([
  ...['not', 'without', 'except', 'excluding', 'no'],
]);
/** Words that narrow to what they stand beside. */
export const ONLY_WORDS: ReadonlySet<string> = new Set(['only', 'just', 'alone']);
/** Words that may stand before a value or a time. */
export const IN_WORDS: ReadonlySet<string> = new Set([
  ...['in', 'on', 'at', 'during', 'of', 'for', 'from', 'with', 'within'],
]);
export const ARTICLES: ReadonlySet<string> = new Set(['the', 'a', 'an', 'its', 'their']);
/** Values of yes/no columns: they say nothing by themselves. */
export const YES_NO_WORDS: ReadonlySet<string> = new Set(['yes', 'no', 'true', 'false']);
