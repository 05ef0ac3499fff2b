import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { choicesOf, firstAlike, type Choice, type Wanted } from './lookAlikes';

const alike = (texts: string[]): number[] => [...finish(firstAlike(texts))];
const choices = (
  dictionary: string[],
  counts: readonly number[],
  wanted: Partial<Wanted> = {},
): Choice[] =>
  finish(choicesOf({ dictionary }, Int32Array.from(counts), { most: 1000, ...wanted })).choices;

describe('values that look the same', () => {
  it.each([
    ['case and spaces around', 'Holm', ' HOLM '],
    ['spaces within, of any kind', 'Inner Isles', 'Inner\u00a0  isles'],
    ['dashes', 'Holm - Ness', 'Holm – Ness'],
    ['quotes', "O'Hara", 'O’Hara'],
    ['marks without width', 'Holm', 'Ho\u200blm'],
    ['letters of full width', 'Ness 2', 'Ｎｅｓｓ 2'],
    ['letters of another script', 'Ness', 'Neѕs'],
    ['a whole word of another script', 'CAT', 'САТ'],
  ])('%s', (_, a, b) => {
    expect(alike(['other', a, b])).toEqual([0, 1, 1]);
  });

  it.each([
    ['accents', 'Café', 'Cafe'],
    ['a letter', 'Holm', 'Holms'],
    ['a space', 'Inner Isles', 'InnerIsles'],
    ['words of another script that look different', 'Holm', 'Остров'],
  ])('%s makes two', (_, a, b) => {
    expect(alike([a, b])).toEqual([0, 1]);
  });

  it('in another script, case is still no difference', () => {
    expect(alike(['НОС', 'нос'])).toEqual([0, 0]);
  });

  it('are one through a third that looks like both', () => {
    // The middle one is the first in capitals, and the last in Latin letters.
    expect(new Set(alike(['сор', 'СОР', 'COP', 'cop'])).size).toBe(1);
  });

  it('make choices under their commonest spelling, with every spelling and its count', () => {
    expect(choices(['Holm', 'holm ', 'Ness', 'HOLM', 'gone'], [2, 3, 1, 1, 0])).toEqual([
      {
        text: 'holm ',
        count: 6,
        spellings: [
          { text: 'holm ', count: 3 },
          { text: 'Holm', count: 2 },
          { text: 'HOLM', count: 1 },
        ],
      },
      { text: 'Ness', count: 1, spellings: [{ text: 'Ness', count: 1 }] },
    ]);
  });

  it('every record is in one choice, whatever the texts', () => {
    const letters = fc.constantFrom('a', 'A', 'а', 'о', 'O', ' ', '-', '–', 'ё');
    const texts = fc.uniqueArray(fc.string({ unit: letters, minLength: 1, maxLength: 4 }), {
      minLength: 1,
      maxLength: 30,
    });
    fc.assert(
      fc.property(texts, (dictionary) => {
        const found = choices(
          dictionary,
          dictionary.map(() => 1),
        );
        const spelled = found.flatMap((c) => c.spellings.map((s) => s.text));
        expect(spelled.toSorted()).toEqual(dictionary.toSorted());
        const first = alike(dictionary);
        for (const k of first) expect(first[k]).toBe(k);
      }),
    );
  });

  it('only the commonest are made, by what is looked for, and the others counted', () => {
    const dictionary = ['a', 'b', 'B', 'c', 'd', 'e', 'none'];
    const counts = Int32Array.from([1, 2, 2, 4, 1, 1, 0]);
    const of = (wanted: Wanted): [string[], number] => {
      const { choices: found, more } = finish(choicesOf({ dictionary }, counts, wanted));
      return [found.map((c) => `${c.text} ${c.count}`), more];
    };
    expect(of({ most: 2 })).toEqual([['b 4', 'c 4'], 3]);
    // Of those that are equally common the first of the list.
    expect(of({ most: 3 })).toEqual([['b 4', 'c 4', 'a 1'], 2]);
    expect(of({ most: 9 })).toEqual([['b 4', 'c 4', 'a 1', 'd 1', 'e 1'], 0]);
    expect(of({ most: 9, apart: true })).toEqual([['c 4', 'b 2', 'B 2', 'a 1', 'd 1', 'e 1'], 0]);
    // One spelling that fits brings the whole choice.
    expect(of({ most: 9, fits: (text) => text === 'B' })).toEqual([['b 4'], 0]);
    expect(of({ most: 0 })).toEqual([[], 5]);
  });
});
