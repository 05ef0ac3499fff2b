import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { recordKeys } from '$lib/core/tally/input/recordKeys';
import { readDemo } from '../../support/demo';
import { rows, answeredOn } from '../../support/ask';

interface Entry {
  readonly key: number;
  readonly group: string;
  readonly amount: number | null;
}
const listOf = (entries: readonly Entry[]): Table => ({
  length: entries.length,
  columns: [
    scalarColumn(
      'Key',
      'number',
      entries.map((e) => e.key),
    ),
    textColumn(
      'Group',
      entries.map((e) => e.group),
    ),
    scalarColumn(
      'Amount',
      'number',
      entries.map((e) => e.amount),
      { decimals: 2 },
    ),
  ],
});
const compared = (ladder: object = {}) => ({
  lists: { before: {} },
  ladder,
  tallies: [
    {
      kind: 'comparison',
      with: 'before',
      match: ['Key'],
      tally: {
        kind: 'ledger',
        groups: [{ column: 'Group' }],
        measures: [
          { kind: 'sum', column: 'Amount' },
          { kind: 'mean', column: 'Amount' },
        ],
      },
    },
  ],
});

const amount = fc.option(
  fc.integer({ min: -1_000_000, max: 1_000_000 }).map((n) => n / 100),
  { nil: null, freq: 8 },
);
const entries = fc.uniqueArray(
  fc.record({
    key: fc.integer({ min: 1, max: 60 }),
    group: fc.constantFrom('a', 'b', 'c'),
    amount,
  }),
  { selector: ({ key }) => key, maxLength: 40 },
);

/** Two readings: of the older records most stay as they are, some change or go, and others come. */
const readings = fc
  .tuple(entries, entries, fc.array(fc.nat(9), { minLength: 40, maxLength: 40 }))
  .map(([old, others, fate]) => {
    const stay = old.flatMap((entry, k) => {
      if (fate[k] === 0) return [];
      if (fate[k] === 1) return [{ ...entry, amount: (entry.amount ?? 0) + 1 }];
      return [fate[k] === 2 ? { ...entry, group: 'c' } : entry];
    });
    const taken = new Set(old.map(({ key }) => key));
    return [old, [...stay, ...others.filter(({ key }) => !taken.has(key)).slice(0, 5)]] as const;
  });

describe('what moved, and through which records', () => {
  it('by hand: one came, one went, one changed its value, one its group', () => {
    const before = listOf([
      { key: 1, group: 'a', amount: 10 },
      { key: 2, group: 'a', amount: 20 },
      { key: 3, group: 'b', amount: 5 },
      { key: 4, group: 'b', amount: 7 },
    ]);
    const after = listOf([
      { key: 1, group: 'a', amount: 12.5 },
      { key: 3, group: 'a', amount: 5 },
      { key: 4, group: 'b', amount: 7 },
      { key: 9, group: 'b', amount: 100 },
    ]);
    const { result } = answeredOn(after, compared(), { before });
    const found = rows(result).filter((row) => row['Figure'] === 'sum of Amount');
    const of = (where: string): unknown => {
      const row = found.find((r) => r['Where'] === where);
      return (
        row && [
          row['Before'],
          row['After'],
          row['By coming'],
          row['By going'],
          row['By changing'],
          row['Left over'],
        ]
      );
    };
    expect(of('a')).toEqual([30, 17.5, 0, -20, 7.5, 0]);
    expect(of('b')).toEqual([12, 107, 100, 0, -5, 0]);
    expect(of('Grand total')).toEqual([42, 124.5, 100, -20, 2.5, 0]);
    // A mean is not taken apart.
    const mean = rows(result).find((r) => r['Where'] === 'a' && r['Figure'] === 'mean of Amount');
    expect([mean?.['By coming'], mean?.['Left over']]).toEqual([null, null]);
    expect(result.tallies[0].warnings.map(({ code }) => code)).toContain('explained');
  });

  it('says the same where groups are expressions, whose records are asked all over', () => {
    const by = (column: string, ladder: object) => {
      const [{ tally, ...rest }] = compared().tallies;
      return {
        ...compared(ladder),
        tallies: [{ ...rest, tally: { ...tally, groups: [{ column }] } }],
      };
    };
    fc.assert(
      fc.property(readings, fc.boolean(), ([old, now], narrowed) => {
        fc.pre(old.length > 0 && now.length > 0);
        const others = { before: listOf(old) };
        // Highest values of each reading: who is among them is told by all of them.
        const test = { test: 'extreme', side: 'highest', k: 5, of: 'records' };
        const ladder = narrowed
          ? { rungs: [{ id: 'r', condition: { kind: 'leaf', column: 'Amount', test } }] }
          : {};
        const of = (column: string): unknown =>
          rows(answeredOn(listOf(now), by(column, ladder), others).result);
        let plain: unknown;
        try {
          plain = of('Group');
        } catch (error) {
          expect(() => of("expression: Group || ''")).toThrow(String(error).replace(/^\w+: /, ''));
          return;
        }
        expect(of("expression: Group || ''")).toEqual(plain);
      }),
      { numRuns: 60 },
    );
  });

  it('whatever changed, the records explain all of it', () => {
    const rung = (test: object): object => ({
      id: 'r',
      condition: { kind: 'leaf', column: 'Amount', test },
    });
    const ladders = fc.constantFrom(
      {},
      { rungs: [rung({ test: 'compare', op: 'gt', value: 0 })], setAside: { records: [1] } },
      // A record that stays as it was is among the highest of one reading alone.
      { rungs: [rung({ test: 'extreme', side: 'highest', k: 5, of: 'records' })] },
    );
    const both = fc.oneof(readings, fc.tuple(entries, entries));
    fc.assert(
      fc.property(both, ladders, ([old, now], ladder) => {
        fc.pre(old.length > 0 && now.length > 0);
        const { result } = answeredOn(listOf(now), compared(ladder), { before: listOf(old) });
        for (const row of rows(result)) {
          if (row['Figure'] !== 'sum of Amount' && row['Figure'] !== 'Records') continue;
          const parts = ['coming', 'going', 'changing'].map((what) => Number(row[`By ${what}`]));
          const difference = Number(row['After'] ?? 0) - Number(row['Before'] ?? 0);
          expect(parts.reduce((a, b) => a + b, 0)).toBeCloseTo(difference, 6);
          expect(row['Left over']).toBe(0);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('a record set aside is set aside in both readings, and moves nothing', () => {
    const list = listOf([
      { key: 1, group: 'a', amount: 10 },
      { key: 2, group: 'a', amount: 1000 },
    ]);
    // The same records in another order: the one set aside is the second here, the first there.
    const before = listOf([
      { key: 2, group: 'a', amount: 1000 },
      { key: 1, group: 'a', amount: 10 },
    ]);
    const asked = compared({ setAside: { records: [2] } });
    expect(rows(answeredOn(list, asked, { before }).result)).toEqual([]);
  });
});

describe('columns that name a record', () => {
  it('are as few as will do; none where nothing does', () => {
    const { table } = readDemo('sailings').reading;
    const keys = recordKeys(table);
    expect(keys.length).toBeGreaterThan(1);
    expect(keys.length).toBeLessThan(6);
    expect(keys).not.toContain('fares_taken');
    const cells = new Set(
      Array.from({ length: 20_000 }, (_, i) => i)
        .filter((i) => i < table.length)
        .map((i) =>
          keys
            .map((id) => {
              const column = table.columns.find((c) => c.id === id);
              return column && ('codes' in column ? column.codes[i] : column.values[i]);
            })
            .join('|'),
        ),
    );
    expect(cells.size).toBeGreaterThan(0.99 * Math.min(20_000, table.length));
    expect(recordKeys(readDemo('kiosks').reading.table)).toEqual(['day']);
    const alike: Table = { length: 4, columns: [textColumn('x', ['a', 'a', 'a', 'a'])] };
    expect(recordKeys(alike)).toEqual([]);
    expect(recordKeys({ length: 0, columns: [] })).toEqual([]);
  });
});
