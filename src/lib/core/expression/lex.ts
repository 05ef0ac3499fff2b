import { ExpressionError } from '../errors';
import { type Span } from './span';

export interface Token {
  readonly kind: 'number' | 'text' | 'word' | 'quoted' | 'sign' | 'end';
  /** Words in capitals, texts and quoted names without their quotes. */
  readonly text: string;
  /** As it was written. */
  readonly raw: string;
  readonly span: Span;
}

const NUMBER = /^(\d+(\.\d*)?|\.\d+)(e[+-]?\d+)?/i;
const WORD = /^[\p{L}_][\p{L}\p{M}\p{N}_]*/u;
const SIGNS = ['<>', '<=', '>=', '||', '=', '<', '>', '+', '-', '*', '/', '(', ')', ','];

/** Signs of other languages, with what stands for them here. */
const FOREIGN: Record<string, string> = {
  '!=': 'Write <> for “is not”.',
  '==': 'Write a single = for “is”.',
  '&&': 'Write AND.',
  '&': 'Write || to join texts.',
  '^': 'Write POWER(a, b).',
  '%': 'Write MOD(a, b) for the remainder.',
  '[': 'Put a column name with spaces in double quotes.',
  '`': 'Put a column name with spaces in double quotes.',
  ';': 'Leave it out: an expression ends by itself.',
  '“': 'Use straight double quotes.',
  '”': 'Use straight double quotes.',
  '’': 'Use straight single quotes.',
  '‘': 'Use straight single quotes.',
};

/** Cuts an expression into tokens; the last one is `end`. @throws ExpressionError */
export function tokens(source: string): Token[] {
  const out: Token[] = [];
  let at = 0;
  const push = (kind: Token['kind'], text: string, length: number): void => {
    const span = { start: at, end: at + length };
    out.push({ kind, text, raw: source.slice(at, at + length), span });
    at += length;
  };
  while (at < source.length) {
    const rest = source.slice(at);
    const space = /^(\s+|--[^\n]*)/.exec(rest);
    if (space) {
      at += space[0].length;
      continue;
    }
    if (rest[0] === "'" || rest[0] === '"') {
      const { text, length } = quoted(source, at);
      push(rest[0] === "'" ? 'text' : 'quoted', text, length);
      continue;
    }
    const number = NUMBER.exec(rest);
    const word = WORD.exec(rest);
    const sign = SIGNS.find((s) => rest.startsWith(s));
    if (number) push('number', number[0], number[0].length);
    else if (word) push('word', word[0].toUpperCase(), word[0].length);
    else if (sign && !(sign === '=' && rest[1] === '=')) push('sign', sign, sign.length);
    else throw foreign(source, at);
  }
  push('end', '', 0);
  return out;
}

/** A text in quotes; the quote itself stands doubled in it. */
function quoted(source: string, start: number): { text: string; length: number } {
  const quote = source[start];
  let text = '';
  for (let i = start + 1; i < source.length; i++) {
    if (source[i] !== quote) text += source[i];
    else if (source[i + 1] === quote) text += source[i++];
    else return { text, length: i - start + 1 };
  }
  throw new ExpressionError(
    quote === "'"
      ? 'A text begins here and does not end.'
      : 'A column name begins here and does not end.',
    { start, end: source.length },
    `Close it with ${quote === "'" ? 'a single' : 'a double'} quote; write the quote itself twice.`,
  );
}

/** What mends some of them where they stand. */
const MENDED: Record<string, string> = {
  '!=': '<>',
  '==': '=',
  '&&': 'AND',
  '&': '||',
  ';': '',
};

/** Quotes that open and close, with the straight ones they stand for. */
const CURLY: Record<string, readonly [close: string, straight: string]> = {
  '“': ['”', '"'],
  '‘': ['’', "'"],
};

function foreign(source: string, at: number): ExpressionError {
  const two = source.slice(at, at + 2);
  const found = FOREIGN[two] ? two : String.fromCodePoint(source.codePointAt(at) ?? 0);
  const [close, straight] = CURLY[found] ?? [];
  const end = close === undefined ? -1 : source.indexOf(close, at);
  if (straight !== undefined && end > 0) {
    const inner = source.slice(at + 1, end).replaceAll(straight, straight + straight);
    return new ExpressionError(
      `“${found}” means nothing here.`,
      { start: at, end: end + 1 },
      FOREIGN[found],
      straight + inner + straight,
    );
  }
  return new ExpressionError(
    `“${found}” means nothing here.`,
    { start: at, end: at + found.length },
    FOREIGN[found] ?? 'Take it out.',
    MENDED[found] ?? (FOREIGN[found] ? null : ''),
  );
}
