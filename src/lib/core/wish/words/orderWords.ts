/** Which end of an order words mean. */
export type End = 'highest' | 'lowest';

/** Words that say which end comes first: `largest first`, `the worst 3`. */
export const END_WORDS: ReadonlyMap<string, End> = new Map<string, End>([
  ['most', 'highest'],
  ['largest', 'highest'],
  ['biggest', 'highest'],
  ['highest', 'highest'],
  ['best', 'highest'],
  ['top', 'highest'],
  ['first', 'highest'],
  ['least', 'lowest'],
  ['fewest', 'lowest'],
  ['smallest', 'lowest'],
  ['lowest', 'lowest'],
  ['worst', 'lowest'],
  ['bottom', 'lowest'],
  ['last', 'lowest'],
]);

/** Those that a number may follow: `top 3`, `the last 5`. */
export const COUNTED_ENDS: ReadonlySet<string> = new Set([
  ...['first', 'top', 'last', 'bottom', 'best', 'worst', 'highest', 'lowest'],
  ...['largest', 'smallest', 'biggest'],
]);
