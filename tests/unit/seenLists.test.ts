import { describe, expect, it } from 'vitest';
import { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { seeingAll, seeingNew } from '$lib/core/bench/seenLists';
import { scalarColumn } from '$lib/core/table/column';

const before = newBench({ length: 1, columns: [scalarColumn('n', 'number', [1])] }, 1);
const withLists = (...names: string[]): Bench => ({
  ...before,
  lists: Object.fromEntries(names.map((name, k) => [name, { list: k + 2, table: 'main' }])),
});

describe('readings of other lists that were seen', () => {
  it('a list that a change takes in is seen as it is; those there before are as they were', () => {
    const one = seeingNew(before, withLists('A'), new Map([['A', 7]]));
    expect(one.seen).toEqual({ A: 7 });
    // A was read anew meanwhile: taking B in says nothing of it.
    const two = { ...withLists('A', 'B'), seen: one.seen };
    const current = new Map([
      ['A', 8],
      ['B', 3],
    ]);
    expect(seeingNew(one, two, current).seen).toEqual({ A: 7, B: 3 });
    expect(seeingAll(two, current).seen).toEqual({ A: 8, B: 3 });
    expect(Bench.parse(seeingAll(two, current))).toEqual(seeingAll(two, current));
  });

  it('a bench that takes in none, or one whose reading is fixed, is left as it is', () => {
    expect(seeingNew(before, before, new Map())).toBe(before);
    const fixed = withLists('A');
    expect(seeingNew(before, fixed, new Map())).toBe(fixed);
  });
});
