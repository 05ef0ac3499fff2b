import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { fullBitset, remove } from '$lib/core/table/bitset';
import { wholeInput, type TallyInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { Tally } from '$lib/core/tally/spec/specs';
import { checkFooting } from '$lib/core/tally/trust/checkFooting';
import type { Answer } from '$lib/core/tally/answer/answer';

/** A bakery's deliveries, and what its rounds were planned to bring. */
const deliveries: Table = {
  length: 8,
  columns: [
    textColumn('Round', ['North', 'North', 'Quay', 'Quay', 'Hill', 'hill ', 'Mill', 'Ferry']),
    scalarColumn('Loaves', 'number', [10, 15, 7, 3, 4, 6, NaN, 9]),
    scalarColumn('Day', 'date', [19_723, 19_754, 19_723, 19_754, 19_723, 19_754, 19_723, 19_754]),
  ],
};
const plan: Table = {
  length: 5,
  columns: [
    textColumn('Line', ['North', 'quay', 'Hill', 'Harbour', 'Mill']),
    scalarColumn('Planned', 'number', [24, 12, 10, 5, 2]),
    textColumn('Day', ['Mon', 'Mon', 'Mon', 'Mon', 'Mon']),
  ],
};

const input = (more: Partial<TallyInput> = {}): TallyInput => ({
  ...wholeInput(deliveries, 'Deliveries'),
  others: new Map([['Plan', plan]]),
  ...more,
});
const asked = (more: object = {}): Tally =>
  Tally.parse({
    kind: 'reconciliation',
    with: 'Plan',
    measure: { kind: 'sum', column: 'Loaves' },
    by: [{ column: 'Round', loose: true }],
    against: { kind: 'sum', column: 'Planned' },
    meets: ['Line'],
    ...more,
  });
const answer = (more: object = {}, on = input()): Answer => finish(computeTally(on, asked(more)));
const rows = ({ tables: [main] }: Answer): unknown[][] =>
  Array.from({ length: main.length }, (_, n) => main.row(n).cells);
const refusal = (more: object, on = input()): string => {
  try {
    answer(more, on);
  } catch (error) {
    return error instanceof Error ? error.message : '';
  }
  return 'not refused';
};

describe('two lists side by side', () => {
  // By hand: North 25 for 24, Quay 10 for 12, Hill 10 for 10 (two spellings), Mill blank for 2,
  // Ferry 9 and not planned, Harbour 5 planned and not there.
  it('sets each group of one against that of the other, the furthest apart first', () => {
    expect(rows(answer())).toEqual([
      ['All', 54, 53, 1, 54 / 53, 'over', 8, 5],
      ['Ferry', 9, 0, 9, null, 'not in Plan', 1, 0],
      ['Harbour', 0, 5, -5, 0, 'not in Deliveries', 0, 1],
      ['Mill', null, 2, -2, null, 'no value in Deliveries', 1, 1],
      ['Quay', 10, 12, -2, 10 / 12, 'under', 2, 1],
      ['North', 25, 24, 1, 25 / 24, 'over', 2, 1],
      ['Hill', 10, 10, 0, 1, 'agrees', 2, 1],
    ]);
  });

  it('says how many agree, lie apart, stand in one list alone, and met but for case', () => {
    const words = answer().warnings.map((w) => w.words);
    expect(words).toContain(
      '6 groups: 1 agrees, 2 lie apart, 1 is not in Plan, 1 is in Plan alone, 1 has no value on one side. All 5 records of Plan count.',
    );
    expect(words).toContain('1 group met though its names differ in case or spaces.');
  });

  it('takes two figures within the tolerance as the same, in amount and in per cent of the other', () => {
    const states = (most: number, unit: string): unknown[] =>
      rows(answer({ tolerance: { in: unit, most } }))
        .filter(([name]) => name === 'Quay' || name === 'North')
        .map((cells) => [cells[0], cells[5]]);
    expect(states(1, 'amount')).toEqual([
      ['Quay', 'under'],
      ['North', 'agrees'],
    ]);
    expect(states(2, 'amount')).toEqual([
      ['Quay', 'agrees'],
      ['North', 'agrees'],
    ]);
    // 1 of 24 is 4.2 %, 2 of 12 are 16.7 %.
    expect(states(4.1, 'percent')).toEqual([
      ['Quay', 'under'],
      ['North', 'over'],
    ]);
    expect(states(5, 'percent')).toEqual([
      ['Quay', 'under'],
      ['North', 'agrees'],
    ]);
  });

  it('puts those that agree in one line where only the others are wanted, and still foots', () => {
    const found = answer({ apart: true, tolerance: { in: 'amount', most: 2 } });
    expect(rows(found).map(([name]) => name)).toEqual([
      'All',
      'Ferry',
      'Harbour',
      'Mill',
      '3 groups that agree',
    ]);
    expect(rows(found).at(-1)?.slice(1)).toEqual([45, 46, -1, 45 / 46, 'agrees', 6, 3]);
    expect(finish(checkFooting(input(), found)).failure).toBeNull();
  });

  it('tells a group that does not count here from one that is not in the list', () => {
    const counted = fullBitset(deliveries.length);
    remove(counted, 2);
    remove(counted, 3);
    const found = rows(answer({ by: [{ column: 'Round' }] }, input({ counted })));
    // “quay” and “Quay” are two names: the list's own counts none of its records.
    expect(found.find(([name]) => name === 'quay')).toEqual([
      'quay',
      0,
      12,
      -12,
      0,
      'not in Deliveries',
      0,
      1,
    ]);
    const same: Table = {
      ...plan,
      columns: [
        textColumn('Line', ['North', 'Quay', 'Hill', 'Harbour', 'Mill']),
        ...plan.columns.slice(1),
      ],
    };
    const others = new Map([['Plan', same]]);
    expect(
      rows(answer({}, input({ counted, others }))).find(([name]) => name === 'Quay')?.[5],
    ).toBe('no record of it counts here');
  });

  it('brings no group together that could meet several but for case', () => {
    const twice: Table = {
      length: 2,
      columns: [textColumn('Line', ['quay', 'QUAY']), scalarColumn('Planned', 'number', [6, 4])],
    };
    const on = input({ others: new Map([['Plan', twice]]) });
    const found = answer({ by: [{ column: 'Round' }] }, on);
    const states = new Map(rows(found).map((cells) => [cells[0], cells[5]]));
    expect(['Quay', 'quay', 'QUAY'].map((name) => states.get(name))).toEqual([
      'not in Plan',
      'not in Deliveries',
      'not in Deliveries',
    ]);
    expect(found.warnings.some((w) => w.code === 'met-loosely')).toBe(false);
  });

  it('opens to the records of both lists', () => {
    const found = answer();
    const elsewhere = (n: number): number[] => {
      const other = found.elsewhere && finish(found.elsewhere(n));
      return other ? [...other.records] : [];
    };
    const at = (name: string): number => rows(found).findIndex(([label]) => label === name);
    expect(elsewhere(0)).toEqual([0, 1, 2, 3, 4]);
    expect(elsewhere(at('Quay'))).toEqual([1]);
    expect(elsewhere(at('Harbour'))).toEqual([3]);
    expect(elsewhere(at('Ferry'))).toEqual([]);
  });

  it('leaves out the totals that were set aside in the other list', () => {
    const found = answer({}, input({ totalsAside: new Map([['Plan', [4]]]) }));
    expect(rows(found)[0].slice(1, 4)).toEqual([54, 48, 6]);
    expect(rows(found).some(([name]) => name === 'Harbour')).toBe(false);
  });

  it('takes columns of the same names unless others are named, and says what there is to choose', () => {
    expect(refusal({ against: undefined })).toBe(
      '“Plan” has no column “Loaves”. Choose the one that stands against it: “Line”, “Planned” or “Day”.',
    );
    expect(refusal({ with: 'Budget' })).toContain('“Budget” is not at hand');
    expect(refusal({ against: { kind: 'mean', column: 'Line' } })).toContain(
      'In “Plan”: “Line” is text',
    );
    const twin = input({ others: new Map([['Plan', deliveries]]) });
    const own = rows(answer({ against: undefined, meets: undefined }, twin));
    expect(
      own.every((cells) => ['agrees', 'no value in Deliveries'].includes(String(cells[5]))),
    ).toBe(true);
  });

  it('refuses groups that can never be the same', () => {
    const byDay = { by: [{ column: 'Day', period: 'month' }], meets: undefined };
    expect(refusal(byDay)).toContain('their groups can never be the same');
    const bands = { by: 'equalCount', count: 2 };
    const byBands = { by: [{ column: 'Loaves', bands }], meets: ['Planned'] };
    expect(refusal(byBands)).toContain('Give them edges of their own');
  });

  it('property: the differences add up to that of the whole, every group of both lists stands once', () => {
    const list = fc.array(
      fc.tuple(fc.constantFrom('a', 'b', 'C', 'c', 'd'), fc.integer({ min: -50, max: 50 })),
      { minLength: 1, maxLength: 30 },
    );
    const tableOf = (records: readonly (readonly [string, number])[]): Table => ({
      length: records.length,
      columns: [
        textColumn(
          'Round',
          records.map(([name]) => name),
        ),
        scalarColumn(
          'Loaves',
          'number',
          records.map(([, value]) => value),
        ),
      ],
    });
    fc.assert(
      fc.property(list, list, fc.boolean(), fc.boolean(), (mine, theirs, loose, apart) => {
        const on = {
          ...wholeInput(tableOf(mine), 'Mine'),
          others: new Map([['Theirs', tableOf(theirs)]]),
        };
        const tally = asked({
          with: 'Theirs',
          by: [{ column: 'Round', loose }],
          against: undefined,
          meets: undefined,
          apart,
        });
        const found = finish(computeTally(on, tally));
        const [whole, ...groups] = rows(found);
        const sum = (of: readonly (readonly [string, number])[]): number =>
          of.reduce((s, [, v]) => s + v, 0);
        expect(whole.slice(1, 4)).toEqual([sum(mine), sum(theirs), sum(mine) - sum(theirs)]);
        expect(groups.reduce((s, cells) => s + Number(cells[3]), 0)).toBe(sum(mine) - sum(theirs));
        expect(groups.reduce((s, cells) => s + Number(cells[6]), 0)).toBe(mine.length);
        expect(groups.reduce((s, cells) => s + Number(cells[7]), 0)).toBe(theirs.length);
        expect(finish(checkFooting(on, found)).failure).toBeNull();
      }),
    );
  });
});
