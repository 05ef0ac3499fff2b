/** A word of what was typed, and where it stands. */
export interface Token {
  /** As it was typed. */
  readonly text: string;
  /** In small letters. */
  readonly word: string;
  /** Whether a comma or semicolon stands before it. */
  readonly afterComma: boolean;
  /** Typed in quotes: one text, whatever stands in it. */
  readonly quoted: boolean;
}

/** A text in quotes; a comma; a bracket; a number with thousands marks; any other word. */
const PARTS =
  /(["“”])([^"“”]*)["“”]|([,;])|([()]|[^\s\d,;"“”()]*[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?(?![\d,])[^\s,;"“”()]*|[^\s,;"“”()]+)/g;

/** What was typed as words; a text in quotes is one of them, brackets are words, commas only part them. */
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

/** The words of a name as they are compared: in small letters, one blank apart. */
export const nameWords = (name: string): string[] => tokensOf(name).map(({ word }) => word);

/** A plural as its singular, as far as endings tell: `gales` is `gale`, `boss` stays. */
export const singular = (word: string): string =>
  word.length > 3 && /[^s]s$/.test(word) ? word.slice(0, -1) : word;

/** Whether two words are the same but for a plural. */
export const sameWord = (a: string, b: string): boolean => a === b || singular(a) === singular(b);

const NUMBER = /^[-−]?\d+(?:\.\d+)?$/;

/** A number as it is typed: `1,200`, `£2.5`, `−3`, `12h`. NaN for any other word. */
export function numberOf(token: Token | undefined): number {
  if (!token || token.quoted) return NaN;
  const plain = token.word
    .replace(/^([-−]?)[£$€¥]/, '$1')
    .replace(/(\d)(?:[a-z]{1,3}|[£$€¥])$/, '$1')
    .replace(/(\d),(?=\d{3}(?!\d))/g, '$1');
  return NUMBER.test(plain) ? Number(plain.replace('−', '-')) : NaN;
}
