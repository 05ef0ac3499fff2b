import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../../../task/task';
import { tableOf, type AnswerTable } from '../../answer/answer';
import type { Figure, FigureRow } from '../../answer/result';
import { addDifferences, type FigureDifference } from './figureDifferences';

type Row = readonly [label: string | null, ...figures: Figure[]];

/** A table of one label and the figures named. */
const table = (titles: readonly string[], rows: readonly Row[]): AnswerTable =>
  tableOf({
    name: 'main',
    caption: '',
    labels: 1,
    columns: ['Route', ...titles].map((title, c) => ({
      key: `c${c}`,
      title,
      unit: '',
      type: c === 0 ? 'text' : 'number',
    })),
    rows: rows.map(([label, ...figures]): FigureRow => ({
      kind: label === null ? 'total' : 'group',
      level: label === null ? 0 : 1,
      cells: [label, ...figures],
    })),
  });

function moved(now: AnswerTable, then: AnswerTable, unmoved = false): FigureDifference[] {
  const found: FigureDifference[] = [];
  finish(addDifferences(found, now, then, unmoved));
  return found;
}
const said = (figures: readonly FigureDifference[]): Figure[][] =>
  figures.map(({ where, title, before, after, difference }) => [
    where,
    title,
    before,
    after,
    difference,
  ]);

describe('figures of two readings', () => {
  const then = table(
    ['Fares', 'Late'],
    [
      ['Holm', 10, 1],
      ['Gone', 5, 0],
      [null, 15, 1],
    ],
  );

  it('those that are not the same, by their labels and titles wherever they stand', () => {
    const now = table(
      ['Late', 'Fares'],
      [
        [null, 1, 22],
        ['New', 0, 7],
        ['Holm', 1, 15],
      ],
    );
    expect(said(moved(now, then))).toEqual([
      ['All', 'Fares', 15, 22, 7],
      ['New', 'Late', null, 0, null],
      ['New', 'Fares', null, 7, null],
      ['Holm', 'Fares', 10, 15, 5],
      // What only the older one has comes last.
      ['Gone', 'Late', 0, null, null],
      ['Gone', 'Fares', 5, null, null],
    ]);
  });

  it('a column that only one of them has is told with nothing on the other side', () => {
    const now = table(['Fares', 'Boarded'], [['Holm', 10, 3]]);
    expect(said(moved(now, then)).filter(([where]) => where === 'Holm')).toEqual([
      ['Holm', 'Boarded', null, 3, null],
      ['Holm', 'Late', 1, null, null],
    ]);
  });

  it('texts have no difference; a group and the whole of one name are two', () => {
    const before = table(
      ['Best'],
      [
        ['All', 'Gannet'],
        [null, 'Gannet'],
      ],
    );
    const after = table(
      ['Best'],
      [
        ['All', 'Gannet'],
        [null, 'Fulmar'],
      ],
    );
    expect(said(moved(after, before))).toEqual([['All', 'Best', 'Gannet', 'Fulmar', null]]);
  });

  it('those that stayed are told where they are asked for', () => {
    expect(moved(then, then)).toEqual([]);
    expect(said(moved(then, then, true))).toHaveLength(6);
  });

  it('is what looking every pair up by itself gives, for many rows with pauses', () => {
    const figures = fc.array(fc.tuple(fc.nat(3000), fc.nat(3)), { minLength: 1, maxLength: 2500 });
    fc.assert(
      fc.property(figures, figures, (a, b) => {
        const [was, is] = [new Map(a), new Map(b)];
        const rows = (of: ReadonlyMap<number, number>): Row[] =>
          [...of].map(([k, v]) => [`R${k}`, v]);
        const found = moved(table(['n'], rows(is)), table(['n'], rows(was)));
        const naive = [...new Set([...was.keys(), ...is.keys()])].filter(
          (k) => was.get(k) !== is.get(k),
        );
        expect(new Set(found.map(({ where }) => where))).toEqual(
          new Set(naive.map((k) => `R${k}`)),
        );
        for (const { where, before, after } of found) {
          const k = Number(where.slice(1));
          expect([before, after]).toEqual([was.get(k) ?? null, is.get(k) ?? null]);
        }
      }),
      { numRuns: 20 },
    );
    const many = table(
      ['n'],
      Array.from({ length: 40_000 }, (_, k): Row => [`R${k}`, k]),
    );
    let pauses = 0;
    const steps = addDifferences([], many, many, false);
    while (!steps.next().done) pauses++;
    expect(pauses).toBeGreaterThan(100);
  });
});
