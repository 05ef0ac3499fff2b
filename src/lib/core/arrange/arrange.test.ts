import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { dayNumber } from '../table/calendar';
import { scalarColumn, textColumn } from '../table/column';
import type { Table } from '../table/table';
import { compareText } from '../table/collate';
import { groupCodes, KeyType } from './groupCodes';
import { GroupKey } from './groupKey';
import { sortRecords } from './sort';
import { SortKey } from './sortKey';
import { buildTree, groupPath, layoutLeaves } from './tree';

const key = (column: string, more: Partial<GroupKey> = {}): GroupKey =>
  GroupKey.parse({ column, ...more });
const sort = (table: Table, ...keys: Partial<SortKey>[]): number[] => [
  ...finish(
    sortRecords(
      table,
      keys.map((k) => SortKey.parse(k)),
    ),
  ),
];

describe('the order of records', () => {
  it('puts numbers inside text in number order, blanks last either way', () => {
    const t: Table = {
      length: 4,
      columns: [textColumn('pier', ['Pier 10', 'Pier 9', null, 'pier 2'])],
    };
    expect(sort(t, { column: 'pier' })).toEqual([3, 1, 0, 2]);
    expect(sort(t, { column: 'pier', descending: true })).toEqual([0, 1, 3, 2]);
    expect(sort(t, { column: 'pier', blanks: 'first' })).toEqual([2, 3, 1, 0]);
  });

  it('follows an order given by hand, others behind it', () => {
    const t: Table = {
      length: 4,
      columns: [textColumn('risk', ['High', 'Low', 'Other', 'Medium'])],
    };
    expect(sort(t, { column: 'risk', hand: ['Low', 'Medium', 'High'] })).toEqual([1, 3, 0, 2]);
  });

  it('is the stable sort that a comparison makes, for any numbers and keys', () => {
    const value = fc.option(
      fc.oneof(fc.double({ noNaN: true }), fc.integer({ min: -3, max: 3 }), fc.constant(-0)),
    );
    fc.assert(
      fc.property(
        fc.array(fc.tuple(value, fc.option(fc.constantFrom('a', 'b', 'Pier 9', 'Pier 10'))), {
          maxLength: 80,
        }),
        fc.boolean(),
        fc.boolean(),
        (rows, down, first) => {
          const t: Table = {
            length: rows.length,
            columns: [
              scalarColumn(
                'n',
                'number',
                rows.map((r) => r[0]),
              ),
              textColumn(
                't',
                rows.map((r) => r[1]),
              ),
            ],
          };
          const blank = (v: unknown): number => (v === null ? (first ? 0 : 2) : 1);
          const expected = rows
            .map((_, i) => i)
            .sort((i, j) => {
              const [a, b] = [rows[i], rows[j]];
              const text =
                blank(a[1]) - blank(b[1]) ||
                (a[1] !== null && b[1] !== null ? compareText(a[1], b[1]) : 0);
              if (text) return text;
              return (
                blank(a[0]) - blank(b[0]) ||
                (a[0] !== null && b[0] !== null
                  ? (down ? -1 : 1) * (a[0] < b[0] ? -1 : a[0] > b[0] ? 1 : 0)
                  : 0) ||
                i - j
              );
            });
          const blanks = first ? 'first' : 'last';
          expect(
            sort(t, { column: 't', blanks }, { column: 'n', descending: down, blanks }),
          ).toEqual(expected);
        },
      ),
    );
  });
});

describe('groups', () => {
  it('never depend on the order of records: equal keys make one', () => {
    const t = textColumn('r', ['b', 'a', null, 'b', 'a']);
    const codes = finish(groupCodes(t, key('r')));
    const tree = finish(buildTree(5, [codes]));
    expect(tree.leaves).toBe(3);
    expect(tree.leafOf[0]).toBe(tree.leafOf[3]);
    expect(Array.from({ length: 3 }, (_, g) => groupPath(tree, 0, g)[0]).sort()).toEqual([
      'a',
      'b',
      'blank',
    ]);
  });

  it('take texts as one that differ in case or outer spaces, when asked', () => {
    const t = textColumn('r', ['Holm', 'holm ', ' HOLM', 'Ness']);
    expect(finish(groupCodes(t, key('r'))).size).toBe(4);
    const loose = finish(groupCodes(t, key('r', { loose: true })));
    expect(loose.size).toBe(2);
    expect(loose.label(0)).toBe('Holm');
  });

  it('are called by the commonest way they are written, wherever it stands', () => {
    const t = textColumn('r', ['HOLM', 'Holm', ' Holm', 'ness', 'Ness', 'NESS']);
    const label = (weights?: Float64Array): string[] => {
      const codes = finish(groupCodes(t, key('r', { loose: true }), null, weights));
      return [codes.label(0), codes.label(1)];
    };
    // Of equally common ones the first.
    expect(label()).toEqual(['Holm', 'ness']);
    // Rows that stand for several records count as so many.
    expect(label(Float64Array.of(9, 1, 1, 1, 1, 5))).toEqual(['HOLM', 'NESS']);
  });

  it('are periods of a date', () => {
    const t = scalarColumn('d', 'date', [
      dayNumber(2025, 3, 31),
      dayNumber(2025, 4, 1),
      dayNumber(2025, 6, 30),
      null,
    ]);
    const quarters = finish(groupCodes(t, key('d', { period: 'quarter' })));
    expect([...quarters.codes].map((c) => quarters.label(c))).toEqual([
      'Jan–Mar 2025',
      'Apr–Jun 2025',
      'Apr–Jun 2025',
      'blank',
    ]);
    expect(quarters.rank(-1)).toBeGreaterThan(quarters.rank(1));
  });

  it('number every combination that occurs, whichever way they are numbered', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: -1, max: 3 }),
            fc.integer({ min: -1, max: 5 }),
            fc.integer({ min: -1, max: 2 }),
          ),
          { minLength: 1, maxLength: 60 },
        ),
        (rows) => {
          const fake = (k: 0 | 1 | 2, size: number) => ({
            codes: Int32Array.from(rows, (r) => r[k]),
            size,
            label: String,
            rank: (c: number) => c,
            key: String,
            keyType: KeyType.parse({ type: 'text' }),
            where: () => {
              throw new Error('not asked');
            },
          });
          const small = finish(buildTree(rows.length, [fake(0, 4), fake(1, 6), fake(2, 3)]));
          const large = finish(
            buildTree(rows.length, [fake(0, 4_000_000), fake(1, 6), fake(2, 3)]),
          );
          const distinct = new Set(rows.map(String)).size;
          for (const tree of [small, large]) {
            expect(tree.leaves).toBe(distinct);
            rows.forEach((row, i) =>
              expect(groupPath(tree, 2, tree.leafOf[i])).toEqual(row.map(String)),
            );
            expect(tree.levels[0].size).toBe(new Set(rows.map((r) => r[0])).size);
            const { place, first, end } = finish(layoutLeaves(tree));
            expect([...place].sort((a, b) => a - b)).toEqual(
              Array.from({ length: distinct }, (_, k) => k),
            );
            rows.forEach((_, i) => {
              for (let l = 2, g = tree.leafOf[i]; l >= 0; g = tree.levels[l].parent[g], l--) {
                expect(first[l][g]).toBeLessThanOrEqual(place[tree.leafOf[i]]);
                expect(end[l][g]).toBeGreaterThan(place[tree.leafOf[i]]);
              }
            });
          }
        },
      ),
    );
  });

  it('can be a hundred thousand', () => {
    const length = 200_000;
    const t = scalarColumn(
      'n',
      'number',
      Array.from({ length }, (_, i) => (i * 7) % 100_000),
    );
    const tree = finish(buildTree(length, [finish(groupCodes(t, key('n')))]));
    expect(tree.leaves).toBe(100_000);
  });
});
