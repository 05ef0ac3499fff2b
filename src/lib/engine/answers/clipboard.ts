import type { LineDialect } from '../../core/write/grid';

/** How tables of texts are copied. */
export const CLIPBOARD: LineDialect = { delimiter: 'tab', decimal: 'point' };

/** Lines a clipboard can take; more go into a file. */
export const MOST_COPIED = 200_000;
