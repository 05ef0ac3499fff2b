import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { examine } from '$lib/core/read/examine';
import { findTotals } from '$lib/core/read/totals';
import { finish } from '$lib/core/task/task';
import { newBench } from '$lib/core/bench/newBench';
import { OpenBench } from '../support/bench';
import { readText } from '../support/demo';

const foundIn = (text: string): number[] =>
  finish(findTotals(readText(text).reading.table)).map(({ record }) => record + 1);
const evidence = (text: string): string[] => {
  const { recipe, reading } = readText(text);
  const doubt = examine(recipe, reading).doubts.find(({ kind }) => kind === 'totals');
  return (doubt?.places ?? []).map((place) => place.text);
};

describe('totals inside a list', () => {
  it('are found by a word where a number should stand', () => {
    const jobs = Array.from(
      { length: 30 },
      (_, k) => `${1001 + k};${k % 2 ? 'A' : 'B'};${k + 0.5}`,
    );
    expect(foundIn(`Batch length;Site;Cost\n${jobs.join('\n')}\nTotal;;450\n`)).toEqual([31]);
  });

  it('are found by a sum beside a blank key, in any column of numbers', () => {
    // The price is no sum.
    expect(
      foundIn(
        'Crop,Field,Tons,Price\nOats,N,10,3\nOats,S,20,4\nOats,,30,3.5\nRye,N,5,2\nRye,S,6,2\nRye,,11,2\n',
      ),
    ).toEqual([3, 6]);
    // The same without the blanks is a list like another.
    expect(foundIn('Crop,Field,Tons\nOats,N,10\nOats,S,20\nOats,E,30\n')).toEqual([]);
    // A key that other records lack as well tells nothing.
    expect(
      foundIn(
        'Crop,Field,Tons\nOats,N,10\nOats,S,20\nOats,,30\nRye,,7\nRye,,8\nRye,E,1\nRye,E,2\nRye,E,4\n',
      ),
    ).toEqual([]);
  });

  it('say what they rest on: sums that agree, that differ, that were added up twice', () => {
    expect(
      evidence(
        'Crop,Tons\nOats,10\nRye,20\nSubtotal,30\nMaize,5\nPeas,7\nSubtotal,13\nGrand total,84\n',
      ),
    ).toEqual([
      'Crop: Subtotal; its Tons is the sum of records 1 to 2',
      'Crop: Subtotal; its Tons is 13, records 4 to 5 add up to 12',
      'Crop: Grand total; its Tons, 84, is twice the sum of records 1 to 6 without the 2 totals among them, 42: totals were added up with the rest',
    ]);
    expect(evidence('Crop,Field,Tons\nOats,N,10\nOats,S,20\nOats,,30\nRye,N,4\n')).toEqual([
      'Tons is the sum of records 1 to 2, and a key is blank',
    ]);
  });

  const rows = fc.array(
    fc.record({
      site: fc.constantFrom('N', 'S', 'E', 'W'),
      n: fc.integer({ min: 1, max: 5000 }),
      price: fc.integer({ min: 100, max: 900 }),
    }),
    { minLength: 3, maxLength: 12 },
  );
  const layout = fc.record({
    blocks: fc.array(rows, { minLength: 1, maxLength: 4 }),
    by: fc.constantFrom('word', 'blank', 'number'),
    grand: fc.boolean(),
  });

  it('every one of 2,000 layouts made at random, and nothing besides', () => {
    fc.assert(
      fc.property(layout, ({ blocks, by, grand }) => {
        const lines = ['Job no of pieces,Site,Pieces,Price'];
        const expected: number[] = [];
        let job = 100;
        let all = 0;
        const total = (label: string, sum: number): void => {
          expected.push(lines.length);
          lines.push(
            by === 'word'
              ? `${++job},${label},${sum},`
              : by === 'blank'
                ? `${++job},,${sum},`
                : `${label},X,${sum},`,
          );
        };
        for (const block of blocks) {
          let sum = 0;
          for (const { site, n, price } of block) {
            lines.push(`${++job},${site},${n},${price}.5`);
            sum += n;
          }
          all += sum;
          total('Subtotal', sum);
        }
        if (grand && blocks.length > 1) total('Grand total', all);
        // More than half of the cells would be words.
        fc.pre(by === 'word' || expected.length * 6 < lines.length);
        expect(foundIn(`${lines.join('\n')}\n`)).toEqual(expected);
      }),
      { numRuns: 2000 },
    );
  });

  it('none in lists without, blanks or not: fewer than 1 in 200', () => {
    let alarms = 0;
    let lists = 0;
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.option(fc.constantFrom('N', 'S', 'E'), { freq: 8 }),
            fc.integer({ min: 0, max: 60 }),
            fc.integer({ min: 0, max: 60 }),
          ),
          { minLength: 5, maxLength: 60 },
        ),
        (records) => {
          lists++;
          const text = records.map(([site, a, b]) => `${site ?? ''},${a},${b}`).join('\n');
          if (foundIn(`Site,Boxes,Crates\n${text}\n`).length) alarms++;
        },
      ),
      { numRuns: 2000, seed: 7 },
    );
    expect(alarms).toBeLessThan(lists / 200);
  });
});

describe('what a file states as its total', () => {
  const STATEMENT = 'Crop,Tons,Cost\nOats,10,2.50\nRye,20,1.25\nMaize,5,1\nTotal,36,4.75\n';
  const { table } = readText(STATEMENT).reading;

  it('is kept as known totals of the first bench, where it is set aside and wished for', () => {
    expect(newBench(table, 1, [4]).known).toEqual([]);
    const doc = newBench(table, 1, [4], true);
    expect(
      doc.known.map(({ place, value, decimals, source }) => [
        place.column,
        value,
        decimals,
        source,
      ]),
    ).toEqual([
      ['m1', 36, 0, 'the total in the file, record 4'],
      ['m2', 4.75, 2, 'the total in the file, record 4'],
    ]);
    const bench = new OpenBench(table, readText(STATEMENT).recipe, 'Crops');
    bench.show(doc);
    // The tons were added up wrongly in the file; the costs were not.
    expect(bench.ask('known', {}).map(({ stands }) => stands)).toEqual(['differs', 'agrees']);
  });

  it('is none where the total is not of all, or counts', () => {
    expect(newBench(table, 1, [2], true).known).toEqual([]);
    const parts = readText(
      'Crop,Tons\nOats,10\nRye,20\nSubtotal,30\nMaize,5\nPeas,6\nSubtotal,11\n',
    );
    expect(newBench(parts.reading.table, 1, [3, 6], true).known).toEqual([]);
  });
});
