import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scalarColumn } from '../../../table/column';
import type { Influence } from '../../trust/influence';
import type { FigureColumn } from '../../answer/result';
import { placeMark } from './placeMark';

const table = { length: 1, columns: [scalarColumn('Fares', 'number', [1])] };
const column: FigureColumn = {
  key: 'm1',
  title: 'sum of Fares',
  unit: '',
  type: 'number',
  measure: { kind: 'sum', column: 'Fares' },
};

/** The place that a figure has among others, counted one by one. */
const placeBy = (
  values: readonly number[],
  own: number,
  value: number,
  from: 'highest' | 'lowest',
): number =>
  1 + values.filter((v, g) => g !== own && (from === 'highest' ? v > value : v < value)).length;

describe('a place that one record makes', () => {
  it('is told where the group would stand elsewhere without it, as counting one by one says', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -6, max: 6 }), { minLength: 1, maxLength: 12 }),
        fc.nat(),
        fc.integer({ min: -8, max: 8 }),
        fc.constantFrom<('highest' | 'lowest')[]>('highest', 'lowest'),
        (list, pick, without, from) => {
          const values = Float64Array.from(list);
          const own = pick % list.length;
          const sign = from === 'highest' ? -1 : 1;
          const order = list.map((_, g) => g).sort((a, b) => sign * (list[a] - list[b]) || a - b);
          const rests: Influence = {
            record: 0,
            value: 4,
            values: 9,
            records: 9,
            without,
            much: true,
            deviation: NaN,
          };
          const marks = placeMark(table, column, rests, values, own, order, from);
          const [is, would] = [list[own], without].map((v) => placeBy(list, own, v, from));
          expect(marks.map((m) => m.without)).toEqual(is === would ? [] : [would]);
          if (is !== would) expect(marks[0].words).toMatch(`Place ${would} without one record.`);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('is not told of a figure of few values, or of one that rests on none', () => {
    const values = Float64Array.of(5, 3);
    const few: Influence = {
      record: 0,
      value: 5,
      values: 1,
      records: 1,
      without: 0,
      much: true,
      deviation: NaN,
    };
    expect(placeMark(table, column, few, values, 0, [0, 1], 'highest')).toEqual([]);
    expect(placeMark(table, column, null, values, 0, [0, 1], 'highest')).toEqual([]);
  });
});
