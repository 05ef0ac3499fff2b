/** A word of what was typed, and where it stands. */
export interface Token {
  /** As it was typed. */
  readonly text: string;
  /** In small letters, without accents around it. */
  readonly word: string;
  /** Whether a comma or semicolon stands before it. */
  readonly afterComma: boolean;
  /** Typed in quotes: one text, whatever stands in it. */
  readonly quoted: boolean;
}

const PARTS = /(["“”])([^"“”]*)["“”]|([,;])|([^\s,;"“”]+)/g;

/** What was typed as words; a text in quotes is one of them, commas only part them. */
export function tokensOf(typed: string): Token[] {
  const tokens: Token[] = [];
  let afterComma = false;
  for (const [, quote, inner = '', comma, plain = ''] of typed.matchAll(PARTS)) {
    if (comma) {
      afterComma = true;
      continue;
    }
    const text = quote ? inner.trim() : plain.replace(/[.:?!]+$/, '');
    if (text === '') continue;
    tokens.push({ text, word: text.toLowerCase(), afterComma, quoted: quote !== undefined });
    afterComma = false;
  }
  return tokens;
}

/** A plural as its singular, as far as endings tell: `gales` is `gale`, `boss` stays. */
export const singular = (word: string): string =>
  word.length > 3 && /[^s]s$/.test(word) ? word.slice(0, -1) : word;

/** Whether two words are the same but for a plural. */
export const sameWord = (a: string, b: string): boolean => a === b || singular(a) === singular(b);
