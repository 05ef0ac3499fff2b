/**
 * What a regular expression is made of. Its form is ECMAScript's with the u flag; the language's own
 * engine has already said that it is well formed, so that this reader needs no errors of form.
 */
export type Regex =
  /** One character that the language's own engine tells by this source: `[a-z]`, `\d`, `.`, `é`. */
  | { readonly re: 'character'; readonly source: string }
  | { readonly re: 'edge'; readonly at: 'start' | 'end' | 'word' | 'noWord' }
  | { readonly re: 'all'; readonly of: readonly Regex[] }
  | { readonly re: 'either'; readonly of: readonly Regex[] }
  | { readonly re: 'times'; readonly of: Regex; readonly least: number; readonly most: number };

/** Why an expression that is well formed is not taken all the same. */
export class NotLinear extends Error {}

/** Longer ones are not written by hand, and would nest too deep to be read. */
const LONGEST = 1000;

/**
 * Reads a regular expression.
 * @throws NotLinear for what cannot be matched in time linear in the text: references back, and
 * looks ahead or behind; and for more than 1,000 characters
 */
export function parseRegex(source: string): Regex {
  if (source.length > LONGEST) throw new NotLinear('is longer than 1,000 characters');
  return new Reader(source).whole();
}

const EDGES = { '^': 'start', $: 'end' } as const;

class Reader {
  #at = 0;
  readonly #characters: readonly string[];

  constructor(source: string) {
    this.#characters = [...source];
  }

  whole(): Regex {
    return this.#either();
  }

  get #next(): string | undefined {
    return this.#characters[this.#at];
  }

  #take(word: string): boolean {
    const here = this.#characters.slice(this.#at, this.#at + word.length).join('');
    if (here !== word) return false;
    this.#at += word.length;
    return true;
  }

  /** Up to and with a character. */
  #upTo(end: string): string {
    const from = this.#at;
    while (this.#characters[this.#at++] !== end);
    return this.#characters.slice(from, this.#at).join('');
  }

  #either(): Regex {
    const of = [this.#all()];
    while (this.#take('|')) of.push(this.#all());
    return of.length === 1 ? of[0] : { re: 'either', of };
  }

  #all(): Regex {
    const of: Regex[] = [];
    while (this.#next !== undefined && this.#next !== '|' && this.#next !== ')')
      of.push(this.#times(this.#one()));
    return of.length === 1 ? of[0] : { re: 'all', of };
  }

  #one(): Regex {
    const c = this.#next ?? '';
    this.#at++;
    if (c === '^' || c === '$') return { re: 'edge', at: EDGES[c] };
    if (c === '(') return this.#group();
    if (c === '[') return { re: 'character', source: `[${this.#classRest()}` };
    if (c === '\\') return this.#escape();
    return { re: 'character', source: c };
  }

  #group(): Regex {
    for (const look of ['?=', '?!', '?<=', '?<!'])
      if (this.#take(look)) throw new NotLinear('looks ahead or behind');
    if (this.#take('?<')) this.#upTo('>');
    else if (!this.#take('?:') && this.#take('?'))
      throw new NotLinear('changes within itself how case counts');
    const inner = this.#either();
    this.#take(')');
    return inner;
  }

  /** A class after its bracket, to the bracket that ends it. */
  #classRest(): string {
    const from = this.#at;
    for (;;) {
      const c = this.#characters[this.#at++];
      if (c === '\\') this.#at++;
      else if (c === ']') return this.#characters.slice(from, this.#at).join('');
    }
  }

  #escape(): Regex {
    const c = this.#next ?? '';
    this.#at++;
    if (c === 'b') return { re: 'edge', at: 'word' };
    if (c === 'B') return { re: 'edge', at: 'noWord' };
    if (c === 'k' || (c >= '1' && c <= '9')) throw new NotLinear('refers back to a part of itself');
    return { re: 'character', source: `\\${c}${this.#escapeRest(c)}` };
  }

  #escapeRest(c: string): string {
    const many = (n: number): string => {
      this.#at += n;
      return this.#characters.slice(this.#at - n, this.#at).join('');
    };
    if (c === 'x') return many(2);
    if (c === 'c') return many(1);
    if (c === 'p' || c === 'P') return this.#upTo('}');
    if (c !== 'u') return '';
    if (this.#next === '{') return this.#upTo('}');
    const first = many(4);
    // Two halves of one character are written one behind the other.
    const low = this.#characters.slice(this.#at, this.#at + 6).join('');
    const pair = /^[dD][89abAB]/.test(first) && /^\\u[dD][c-fC-F]/.test(low);
    return pair ? first + many(6) : first;
  }

  #times(of: Regex): Regex {
    const range = this.#range();
    if (!range) return of;
    // Whether few or many are taken first changes where a match ends, never whether there is one.
    this.#take('?');
    return { re: 'times', of, ...range };
  }

  #range(): { least: number; most: number } | null {
    if (this.#take('*')) return { least: 0, most: Infinity };
    if (this.#take('+')) return { least: 1, most: Infinity };
    if (this.#take('?')) return { least: 0, most: 1 };
    if (!this.#take('{')) return null;
    const [least, most] = this.#upTo('}').slice(0, -1).split(',');
    return {
      least: Number(least),
      most: most === undefined ? Number(least) : most === '' ? Infinity : Number(most),
    };
  }
}
