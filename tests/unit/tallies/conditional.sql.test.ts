import { describe, expect, it } from 'vitest';
import { key, leaf, near, sql, table } from '../../support/againstSql';
import { answered, groups } from '../../support/ask';

describe('conditional figures', () => {
  it('rows that overlap say so, and what they miss', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'conditional',
          rows: [
            { name: 'late', condition: { kind: 'expression', expression: 'delay >= 10' } },
            { name: 'in a gale', condition: leaf('Weather', { test: 'is', values: ['gale'] }) },
          ],
          everythingElse: true,
          columns: [
            {},
            { measure: { kind: 'mean', column: 'Boarded' } },
            {
              name: 'on Nessness',
              condition: leaf('Route', { test: 'contains', text: 'nessness' }),
            },
          ],
        },
      ],
    });
    const cell = (where: string) =>
      sql(`select count(*) n, avg(boarded) m, sum(route = 'Nessness') k from s where ${where}`)[0];
    const got = groups(result);
    for (const [name, where] of [
      ['late', 'delay >= 10'],
      ['in a gale', "weather = 'gale'"],
      ['Everything else', "not coalesce(delay >= 10, 0) and not coalesce(weather = 'gale', 0)"],
    ]) {
      const row = got.find((g) => g['Where'] === name) ?? {};
      const want = cell(where);
      expect([row['count of records'], row['mean of Boarded'], row['on Nessness']]).toEqual([
        want.n,
        near(want.m),
        want.k,
      ]);
    }
    const [both] = sql("select count(*) n from s where delay >= 10 and weather = 'gale'");
    expect(result.tallies[0].warnings.map((w) => w.words).join(' ')).toContain(
      `${both.n} records meet more than one row`,
    );
  });

  it('the groups of a key as rows add up to the whole', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'conditional',
          key: key('Vessel'),
          columns: [{}, { measure: { kind: 'sum', column: 'Vehicles' } }],
        },
      ],
    });
    expect(
      groups(result).map((g) => [g['Vessel'], g['count of records'], g['sum of Vehicles']]),
    ).toEqual(
      sql('select vessel, count(*) n, sum(vehicles) v from s group by vessel order by vessel').map(
        (r) => [r.vessel, r.n, near(r.v)],
      ),
    );
    expect(result.tallies[0].warnings.map((w) => w.code)).toEqual(['rows-add']);
    expect(result.tallies[0].footing.foots).toBe(true);
  });
});
