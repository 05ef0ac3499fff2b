import { RESERVED } from './parse';

const PLAIN = /^[\p{L}_][\p{L}\p{M}\p{N}_]*$/u;

/**
 * A column's name as an expression writes it: bare, or in double quotes where it has spaces or other
 * signs, or would mean something else.
 * @example writeName('Fares taken') // "Fares taken", in double quotes
 */
export const writeName = (name: string): string =>
  PLAIN.test(name) && !RESERVED.has(name.toUpperCase()) ? name : `"${name.replaceAll('"', '""')}"`;
