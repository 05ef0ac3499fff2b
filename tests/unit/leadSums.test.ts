import { describe, expect, it } from 'vitest';
import { addRung, setLead } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import type { Condition } from '$lib/core/selection/condition';
import { OpenBench } from '../support/bench';
import { noRecipe, small } from '../support/smallList';

const over = (value: number): Condition => ({
  kind: 'leaf',
  column: 'Sum',
  not: false,
  test: { test: 'compare', op: 'ge', value },
});

/** 10, 5, 12, 7, 9 and 1 come to 44; those of 5 and more to 43, of 9 and more to 31. */
describe('the total that every step of What counts shows', () => {
  it('is of the records that are left at the step', () => {
    const bench = new OpenBench(small, noRecipe, 'Made');
    const start = setLead(newBench(small, 1), 'Sum');
    const doc = addRung(addRung(start, over(5)), over(9));
    const at = ({ all, rungs, counted }: ReturnType<OpenBench['show']>): string[] => [
      all.lead,
      ...rungs.map(({ lead }) => lead),
      counted.lead,
    ];
    expect(at(bench.show(start))).toEqual(['44', '44']);
    expect(at(bench.show(doc))).toEqual(['44', '43', '31', '31']);
    // A step that takes nothing away shows the whole, and the one after it what is left.
    expect(at(bench.show(addRung(addRung(start, over(0)), over(9))))).toEqual([
      '44',
      '44',
      '31',
      '31',
    ]);
    expect(at(bench.show(start))).toEqual(['44', '44']);
  });
});
