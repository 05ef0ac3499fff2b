import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { collator, compareText } from './collate';
import { collationKey } from './collationKey';
import { textRanks } from './textRanks';

/** Texts in which letters, cases, marks and numbers meet often. */
const near = fc
  .array(fc.constantFrom(...'aAbBzZ019 -_.,/()#0', 'Pier ', '10', '007', 'T-'), { maxLength: 8 })
  .map((parts) => parts.join(''));
const printable = fc.string({ unit: 'binary-ascii', maxLength: 12 });
const anyText = fc.oneof(near, printable, fc.string({ unit: 'grapheme', maxLength: 6 }));

const sign = (n: number): number => Math.sign(n);

describe('the keys of texts', () => {
  it('are ordered as the collator orders the texts', () => {
    fc.assert(
      fc.property(near, near, (a, b) => {
        const [x, y] = [collationKey(a) ?? '?', collationKey(b) ?? '?'];
        expect([a, b, x < y ? -1 : x > y ? 1 : 0]).toEqual([a, b, sign(collator.compare(a, b))]);
      }),
      { numRuns: 4000 },
    );
    // The same letters in other cases: where the first of them differs counts.
    fc.assert(
      fc.property(
        near,
        fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }),
        (text, turned) => {
          const [a, b] = [
            text.toLowerCase(),
            Array.from(text.toLowerCase(), (c, k) => (turned[k] ? c.toUpperCase() : c)).join(''),
          ];
          for (const [one, other] of [
            [a, b],
            [text, b],
          ]) {
            const [x, y] = [collationKey(one) ?? '?', collationKey(other) ?? '?'];
            expect(x < y ? -1 : x > y ? 1 : 0).toBe(sign(collator.compare(one, other)));
          }
        },
      ),
      { numRuns: 2000 },
    );
    fc.assert(
      fc.property(printable, printable, (a, b) => {
        const [x, y] = [collationKey(a), collationKey(b)];
        if (x === null || y === null) return;
        expect(x < y ? -1 : x > y ? 1 : 0).toBe(sign(collator.compare(a, b)));
      }),
      { numRuns: 4000 },
    );
  });

  it('know numbers by their value, and the case only where all else is one', () => {
    const key = (text: string): string => collationKey(text) ?? '';
    expect(key('Pier 9') < key('Pier 10')).toBe(true);
    expect(key('Pier 010')).toBe(key('Pier 10'));
    expect(key('tern') < key('Tern')).toBe(true);
    expect(key('Tern') < key('terns')).toBe(true);
  });

  it('are not given for other letters, marks that cannot be seen, and numbers of no end', () => {
    for (const text of ['Håvard', 'tab\there', '€ 5', '9'.repeat(600)])
      expect(collationKey(text)).toBeNull();
  });
});

describe('the places of a dictionary’s texts', () => {
  it('are those of the language rules, whatever letters the texts have', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyText, { maxLength: 60 }), (dictionary) => {
        const ranks = finish(textRanks(dictionary));
        const ordered = [...dictionary.keys()].sort((a, b) => ranks[a] - ranks[b]);
        expect(ordered.map((code) => dictionary[code])).toEqual(dictionary.toSorted(compareText));
      }),
      { numRuns: 300 },
    );
  });

  it('begin with an order given by hand', () => {
    const dictionary = ['calm', 'gale', 'fresh', 'fog'];
    expect([...finish(textRanks(dictionary, ['gale', 'fresh', 'no such']))]).toEqual([2, 0, 1, 3]);
    expect([...finish(textRanks(dictionary))]).toEqual([0, 3, 2, 1]);
  });
});

describe('months and weekdays', () => {
  const ordered = (texts: readonly string[]): string[] => {
    const ranks = finish(textRanks(texts));
    return [...texts].map((_, rank) => texts[ranks.indexOf(rank)]);
  };
  it.each([
    [['Mar', 'Jan', 'Feb', 'Dec']],
    [['october', 'September', 'SEPT', 'august']],
    [['Wed', 'Mon', 'Tues', 'Sun']],
  ])('%s stand by the calendar', (texts) => {
    const months = ['jan', 'feb', 'mar', 'aug', 'sep', 'oct', 'dec', 'mon', 'tue', 'wed', 'sun'];
    const places = ordered(texts).map((text) => months.indexOf(text.slice(0, 3).toLowerCase()));
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });

  it('among other texts are texts', () => {
    expect(ordered(['May', 'April shower', 'March'])).toEqual(['April shower', 'March', 'May']);
    expect(ordered(['Sun', 'Mar'])).toEqual(['Mar', 'Sun']);
  });
});
