import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { bitsetOf, fullBitset } from '../table/bitset';
import { scalarColumn } from '../table/column';
import { checkKnownTotal, type Explanation } from './knownTotal';

const FARES = [10, 25.5, 40, 8, 3.25, 100];

/** What would explain a known total of all fares, record 6 of which is set aside. */
function explained(known: number, totals: readonly number[] = []): readonly Explanation[] {
  const column = scalarColumn('Fares', 'number', FARES, { decimals: 2 });
  const all = fullBitset(FARES.length);
  const counted = bitsetOf(FARES.length, [0, 1, 2, 3, 4]);
  const setAside = bitsetOf(FARES.length, [5]);
  const { explanations } = finish(
    checkKnownTotal(known, {
      column,
      figure: 86.75,
      records: Int32Array.of(0, 1, 2, 3, 4),
      group: all,
      ladder: { all, rungs: [], narrowed: all, setAside, counted },
      rungNames: [],
      totals,
    }),
  );
  return explanations;
}
/** The records that an explanation with these words names. */
const named = (of: readonly Explanation[], words: RegExp): readonly number[] | undefined =>
  of.find((e) => words.test(e.words))?.records;

describe('what would explain a known total', () => {
  it('agrees, or agrees within rounding', () => {
    expect(explained(86.75).map((e) => e.words)).toEqual(['It agrees.']);
    expect(explained(86.7501).map((e) => e.words)).toEqual(['It agrees within rounding.']);
  });

  it('one record too many, and two of them, the first of the list among them', () => {
    expect(named(explained(86.75 - 40), /^Record 3 holds 40.00: without it/)).toEqual([2]);
    // 10 and 3.25: no single record holds 13.25.
    const pair = explained(86.75 - 13.25);
    expect(named(pair, /^Records 1 and 5 hold 10.00 and 3.25: without both/)).toEqual([0, 4]);
    expect(named(explained(86.75 - 33.5), /^Records 2 and 4 hold/)).toEqual([1, 3]);
    // Where one alone would do, no pair is looked for.
    expect(named(explained(86.75 - 10), /without both/)).toBeUndefined();
  });

  it('records that are not counted, by themselves and as what was set aside', () => {
    const found = explained(186.75);
    expect(named(found, /^Record 6 holds 100.00 and is not counted here/)).toEqual([5]);
    expect(found.find((e) => /set aside by hand/.test(e.words))?.remedy).toEqual({ do: 'putBack' });
  });

  it('a sign turned, a decimal point moved, digits swapped', () => {
    expect(named(explained(86.75 - 51), /A sign may be turned/)).toEqual([1]);
    expect(named(explained(86.75 + 9 * 8), /decimal point may be moved.*9 times 8.00/)).toEqual([
      3,
    ]);
    expect(named(explained(86.75 + 0.27), /divides by 9/)).toEqual([]);
  });

  it('a total inside the list that was counted with the rest', () => {
    const found = explained(86.75 - 40, [2, 5]);
    expect(named(found, /looks like a total inside the list/)).toEqual([2]);
  });
});
