import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isText, textColumn } from './column';
import { choicesOf, firstAlike } from './lookAlikes';

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
    expect([...firstAlike(['other', a, b])]).toEqual([0, 1, 1]);
  });

  it.each([
    ['accents', 'Café', 'Cafe'],
    ['a letter', 'Holm', 'Holms'],
    ['a space', 'Inner Isles', 'InnerIsles'],
    ['words of another script that look different', 'Holm', 'Остров'],
  ])('%s makes two', (_, a, b) => {
    expect([...firstAlike([a, b])]).toEqual([0, 1]);
  });

  it('in another script, case is still no difference', () => {
    expect([...firstAlike(['НОС', 'нос'])]).toEqual([0, 0]);
  });

  it('are one through a third that looks like both', () => {
    // The middle one is the first in capitals, and the last in Latin letters.
    expect(new Set(firstAlike(['сор', 'СОР', 'COP', 'cop'])).size).toBe(1);
  });

  it('make choices under their commonest spelling, with every spelling and its count', () => {
    const column = textColumn('Route', [
      'Holm',
      'holm ',
      'Ness',
      'Holm',
      'HOLM',
      null,
      'holm ',
      'holm ',
    ]);
    if (!isText(column)) throw new Error('text');
    const counts = new Int32Array(column.dictionary.length);
    for (const code of column.codes) if (code >= 0) counts[code]++;
    expect(choicesOf(column, counts)).toEqual([
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
        const column = textColumn('t', dictionary);
        if (!isText(column)) throw new Error('text');
        const counts = new Int32Array(column.dictionary.length).fill(1);
        const choices = choicesOf(column, counts);
        const spelled = choices.flatMap((c) => c.spellings.map((s) => s.text));
        expect(spelled.toSorted()).toEqual([...column.dictionary].toSorted());
        const first = firstAlike(column.dictionary);
        for (const k of first) expect(first[k]).toBe(k);
      }),
    );
  });
});
