import { ExpressionError } from '../errors';
import { type Span } from './span';
import { tokens, type Token } from './lex';

/** From the start of one place to the end of another. */
export const joined = (a: Span, b: Span): Span => ({ start: a.start, end: b.end });

/** The tokens of an expression, one after another. */
export class TokenReader {
  readonly #tokens: readonly Token[];
  #at = 0;

  constructor(source: string) {
    this.#tokens = tokens(source);
  }

  /** The token that comes next; at the end, the mark of the end. */
  get now(): Token {
    return this.#tokens[this.#at];
  }

  get before(): Token {
    return this.#tokens[Math.max(0, this.#at - 1)];
  }

  /** The token behind the next. */
  get behind(): Token {
    return this.#tokens[Math.min(this.#tokens.length - 1, this.#at + 1)];
  }

  skip(count = 1): void {
    this.#at += count;
  }

  /** Goes past a word where it stands next. */
  take(word: string): boolean {
    if (this.now.kind !== 'word' || this.now.text !== word) return false;
    this.#at++;
    return true;
  }

  /** Goes past a sign where it stands next. */
  takeSign(sign: string): boolean {
    if (this.now.kind !== 'sign' || this.now.text !== sign) return false;
    this.#at++;
    return true;
  }

  /** @throws ExpressionError where another word stands */
  must(word: string, remedy: string): void {
    if (!this.take(word)) this.fail(this.#expected(word), remedy);
  }

  mustSign(sign: string, remedy: string): void {
    if (!this.takeSign(sign)) this.fail(this.#expected(sign), remedy);
  }

  #expected = (what: string): string =>
    this.now.kind === 'end'
      ? `${what} was expected, but the expression ends.`
      : `${what} was expected, not “${this.now.raw}”.`;

  /** @throws ExpressionError at the next token */
  fail(fault: string, remedy: string): never {
    throw new ExpressionError(fault, this.now.span, remedy);
  }
}
