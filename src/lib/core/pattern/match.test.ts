import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NotLinear, regexTest } from './regex';
import { wildcardTest, type Wildcard } from './wildcard';

/** What the language's own engine says. Only asked of texts short enough for it. */
const native = (source: string, exact: boolean, text: string): boolean =>
  new RegExp(source, exact ? 'u' : 'iu').test(text);

describe('regular expressions in linear time', () => {
  it('say what the engine of the language says, for made expressions and texts', () => {
    const atom = fc.constantFrom(
      ...['a', 'b', 'é', '.', '\\d', '\\W', '[ab]', '[^a]', '[\\]a-]', '\\p{Lu}', '\\u{1F6F3}'],
      ...['\\x41', '\\-', '^', '$', '\\b', '\\B', '\\ud83d\\udef3', '🛳', '[🛳a]'],
    );
    const count = fc.constantFrom('', '', '', '*', '+', '?', '{2}', '{1,}', '{0,2}', '*?', '+?');
    const { source } = fc.letrec<{ source: string; part: string }>((tie) => ({
      part: fc.oneof(
        { depthSize: 'small', withCrossShrink: true },
        atom,
        tie('source').chain((inner) =>
          fc.constantFrom(`(${inner})`, `(?:${inner})`, `(?<n>${inner})`),
        ),
      ),
      source: fc.array(fc.tuple(tie('part'), count), { maxLength: 4 }).chain((parts) => {
        const text = parts
          .map(([part, c]) => (/^(\^|\$|\\b|\\B)$/.test(part) ? part : part + c))
          .join('');
        return fc.constantFrom(text, `${text}|b`);
      }),
    }));
    const text = fc
      .array(fc.constantFrom('a', 'b', 'A', 'é', 'É', '1', ' ', '-', ']', '🛳', '\n', '_'), {
        maxLength: 8,
      })
      .map((cs) => cs.join(''));
    let tried = 0;
    fc.assert(
      fc.property(
        source,
        fc.array(text, { minLength: 1, maxLength: 6 }),
        fc.boolean(),
        (s, texts, exact) => {
          let test: (text: string) => boolean;
          try {
            test = regexTest(s, exact);
          } catch (error) {
            // Two groups of one name are not well formed.
            if (error instanceof SyntaxError || error instanceof NotLinear) return;
            throw error;
          }
          tried++;
          for (const t of texts)
            // The engine also looks for edges within a character of two halves.
            if (!(s.includes('\\B') && t.includes('🛳')) && test(t) !== native(s, exact, t))
              throw new Error(`/${s}/ on ${JSON.stringify(t)}`);
        },
      ),
      { numRuns: 3000 },
    );
    expect(tried).toBeGreaterThan(1500);
  });

  it.each([
    ['^(a+)+$', 'a'.repeat(50_000) + 'b'],
    ['(a|a)*c', 'a'.repeat(50_000)],
    ['(.*)*x', 'a'.repeat(50_000)],
    ['^(([a-z])+.)+[A-Z]([a-z])+$', 'a'.repeat(50_000)],
    ['(a?){40}a{40}', 'a'.repeat(39)],
    ['\\d+\\d+\\d+x', '1'.repeat(50_000)],
  ])('/%s/ cannot hold anything up', (source, text) => {
    expect(regexTest(source, true)(text)).toBe(false);
  });

  it.each([
    ['(a)\\1', 'refers back to a part of itself'],
    ['(?<n>a)\\k<n>', 'refers back to a part of itself'],
    ['a(?=b)', 'looks ahead or behind'],
    ['(?<!a)b', 'looks ahead or behind'],
    ['(a{1000}){1000}', 'repeats too much'],
    ['('.repeat(600) + ')'.repeat(600), 'is longer than 1,000 characters'],
  ])('refuse number %#: it %2$s', (source, why) => {
    expect(() => regexTest(source, true)).toThrow(why);
  });

  it('refuse what is not well formed', () => {
    for (const source of ['(', '[a', 'a**', '\\', '{', '(?<n>a)(?<n>b)'])
      expect(() => regexTest(source, true), source).toThrow(SyntaxError);
  });
});

describe('patterns with places and runs', () => {
  it('fit as the regular expression of the same meaning does', () => {
    const place = fc.constantFrom<Wildcard>('run', 'one', { is: 'a' }, { is: 'b' }, { is: '🛳' });
    const text = fc
      .array(fc.constantFrom('a', 'b', '🛳', '\n'), { maxLength: 9 })
      .map((c) => c.join(''));
    fc.assert(
      fc.property(fc.array(place, { maxLength: 7 }), text, (pattern, t) => {
        const source = pattern
          .map((p) => (p === 'run' ? '[^]*' : p === 'one' ? '[^]' : p.is))
          .join('');
        return wildcardTest(pattern)(t) === new RegExp(`^${source}$`, 'u').test(t);
      }),
      { numRuns: 3000 },
    );
  });

  it('many runs cannot hold anything up', () => {
    const pattern = Array.from({ length: 30 }, (): Wildcard[] => ['run', { is: 'a' }]).flat();
    expect(wildcardTest([...pattern, { is: 'b' }])('a'.repeat(100_000))).toBe(false);
  });
});
