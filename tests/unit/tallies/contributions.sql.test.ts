import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { checkFooting } from '$lib/core/tally/trust/checkFooting';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { tableOf } from '$lib/core/tally/answer/answer';
import { near, sql, table } from '../../support/againstSql';
import { answered, behind, faultsOf, groups, rows, answeredOn } from '../../support/ask';

const asked = (more: object = {}) => ({
  kind: 'contributions',
  measure: { kind: 'sum', column: 'Fares taken' },
  by: [{ column: 'Vessel' }],
  between: { of: 'periods', column: 'Sailed on', period: 'year', from: '2024', to: '2025' },
  ...more,
});

describe('what moved it', () => {
  it('each vessel’s part of the rise of fares, the largest first, adds up to it', () => {
    const result = answered(table, { tallies: [asked()] });
    const want = sql(
      `select vessel v, sum(fares * (sailed_on like '2024%')) a, sum(fares * (sailed_on like '2025%')) b
      from s where sailed_on >= '2024' and sailed_on < '2026' group by 1 order by abs(b - a) desc`.replaceAll(
        'b - a',
        "sum(fares * ((sailed_on like '2025%') - (sailed_on like '2024%')))",
      ),
    );
    const got = groups(result);
    expect(got.map((g) => [g['Vessel'], g['Contribution']])).toEqual(
      want.map((w) => [w.v, near(Number(w.b) - Number(w.a))]),
    );
    const change = want.reduce((s, w) => s + Number(w.b) - Number(w.a), 0);
    expect(rows(result)[0]['Contribution']).toEqual(near(change));
    expect(got[0]['Share of the change']).toEqual(near(Number(got[0]['Contribution']) / change));
    expect(result.tallies[0].warnings.find((w) => w.code === 'gave-most')?.words).toContain(
      'Fulmar',
    );
  });

  it('a part opens to the records of both years, each side to its own', () => {
    const { input, result } = answeredOn(table, { tallies: [asked()] });
    const of = (column: string) =>
      behind(input, result.tallies[0], { table: 0, row: ['Gannet'], column }).records.length;
    const [n] = sql(`select sum(sailed_on like '2024%') a, sum(sailed_on like '2025%') b
      from s where vessel = 'Gannet'`);
    expect([of('before'), of('after'), of('gave')]).toEqual([n.a, n.b, Number(n.a) + Number(n.b)]);
  });

  it('the first few and all others in one line', () => {
    const all = groups(answered(table, { tallies: [asked()] }));
    const result = answered(table, { tallies: [asked({ top: 3 })] });
    const [whole, a, b, c, others] = rows(result);
    expect(others['Vessel']).toBe(`${all.length - 3} others`);
    expect([a, b, c, others].reduce((s, r) => s + Number(r['Contribution']), 0)).toBeCloseTo(
      Number(whole['Contribution']),
      6,
    );
  });

  // Kitagawa 1955, worked out by hand: weights ½, ½ → ¼, ¾; means 10, 20 → 12, 20.
  const means: Table = {
    length: 8,
    columns: [
      textColumn('P', ['a', 'a', 'a', 'a', 'b', 'b', 'b', 'b']),
      textColumn('G', ['x', 'x', 'y', 'y', 'x', 'y', 'y', 'y']),
      scalarColumn('V', 'number', [9, 11, 20, 20, 12, 19, 20, 21]),
    ],
  };
  const ofMeans = asked({
    measure: { kind: 'mean', column: 'V' },
    by: [{ column: 'G' }],
    between: { of: 'groups', key: { column: 'P' }, from: 'a', to: 'b' },
  });

  it('of a mean: what came from the groups’ own means, and what from their weights', () => {
    const [whole, ...parts] = rows(answered(means, { tallies: [ofMeans] }));
    // From 15 to 18: x by its mean 2 · ⅜ = 0.75, by its weight −¼ · (11 − 16.5) = 1.375; y 0 and ¼ · (20 − 16.5) = 0.875.
    expect(whole['Contribution']).toBe(3);
    const x = parts.find((p) => p['G'] === 'x');
    const y = parts.find((p) => p['G'] === 'y');
    expect([x?.['By its own mean'], x?.['By its weight'], x?.['Contribution']]).toEqual([
      0.75, 1.375, 2.125,
    ]);
    expect([y?.['By its own mean'], y?.['By its weight'], y?.['Contribution']]).toEqual([
      0, 0.875, 0.875,
    ]);
  });

  it('parts of any sum, count or mean add up to the change, also of groups on one side only', () => {
    const record = fc.record({
      p: fc.constantFrom('a', 'b'),
      g: fc.constantFrom('x', 'y', 'z', null),
      v: fc.option(fc.integer({ min: -99, max: 99 }), { nil: null, freq: 8 }),
    });
    fc.assert(
      fc.property(
        fc.array(record, { minLength: 2, maxLength: 40 }),
        fc.constantFrom('sum', 'mean', 'values'),
        fc.option(fc.integer({ min: 1, max: 2 }), { nil: undefined }),
        (list, kind, top) => {
          if (!list.some((r) => r.p === 'a') || !list.some((r) => r.p === 'b')) return;
          const of: Table = {
            length: list.length,
            columns: [
              textColumn(
                'P',
                list.map((r) => r.p),
              ),
              textColumn(
                'G',
                list.map((r) => r.g),
              ),
              scalarColumn(
                'V',
                'number',
                list.map((r) => r.v),
              ),
            ],
          };
          const spec = { ...ofMeans, measure: { kind, column: 'V' }, ...(top && { top }) };
          const { input, result } = answeredOn(of, { tallies: [spec] });
          const [whole, ...parts] = rows(result);
          const change = whole['Contribution'];
          if (change === null) return;
          expect(parts.reduce((s, p) => s + Number(p['Contribution']), 0)).toBeCloseTo(
            Number(change),
            9,
          );
          const [tally] = result.tallies;
          const footing = finish(
            checkFooting(input, { ...tally, tables: tally.tables.map(tableOf) }),
          );
          expect(footing.foots, footing.words).toBe(true);
          expect(footing.compared).toBeGreaterThan(0);
        },
      ),
    );
  });

  it('between two readings of a list, the older by the same steps', () => {
    const older: Table = {
      ...means,
      columns: means.columns.map((c) =>
        c.name === 'V' ? scalarColumn('V', 'number', [9, 11, 20, 20, 12, 19, 20, 1]) : c,
      ),
    };
    const result = answered(
      means,
      {
        tallies: [
          asked({
            measure: { kind: 'sum', column: 'V' },
            by: [{ column: 'G' }],
            between: { of: 'readings', with: 'before' },
          }),
        ],
      },
      { before: older },
    );
    expect(rows(result).map((r) => [r['G'], r['Contribution']])).toEqual([
      ['Change', 20],
      ['y', 20],
      ['x', 0],
    ]);
  });

  it('a year in part is set against the same part', () => {
    const result = answered(table, {
      tallies: [
        asked({ between: { of: 'periods', column: 'Sailed on', period: 'year', to: '2026' } }),
      ],
    });
    const [want] =
      sql(`select sum(fares * (sailed_on like '2026%')) - sum(fares * (sailed_on like '2025%')) d
      from s where substr(sailed_on, 6) <= '06-30'`);
    expect(rows(result)[0]['Contribution']).toEqual(near(want.d));
    expect(result.tallies[0].warnings.map((w) => w.code)).toContain('like-with-like');
  });

  it('says what cannot be', () => {
    const faults = (tally: object) => faultsOf(() => answered(table, { tallies: [tally] }));
    expect(faults(asked({ measure: { kind: 'median', column: 'Delay' } }))[0]).toContain(
      'Ask for a sum, a count or a mean.',
    );
    expect(
      faults(
        asked({ between: { of: 'periods', column: 'Sailed on', period: 'month', to: '2025' } }),
      ),
    ).toEqual(['tallies[0].between.to: “2025” covers several months. Name one: “2024-04”.']);
    expect(() =>
      answered(table, {
        tallies: [
          asked({
            between: { of: 'groups', key: { column: 'Route' }, from: 'Nowhere', to: 'Nessness' },
          }),
        ],
      }),
    ).toThrow('No counted record is in a group “Nowhere”.');
  });
});
