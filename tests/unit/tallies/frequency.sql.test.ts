import { describe, expect, it } from 'vitest';
import { near, sql, table } from '../../support/againstSql';
import { answered, groups, rows } from '../../support/ask';

describe('frequency', () => {
  it('by value, with cumulative counts, blanks apart', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'frequency',
          key: { column: 'Delay' },
          measures: [{ kind: 'mean', column: 'Boarded' }],
        },
      ],
    });
    const want = sql(
      'select delay, count(*) n, avg(boarded) m, sum(count(*)) over (order by delay) c from s where delay is not null group by delay',
    );
    const got = groups(result);
    expect(got.length).toBe(want.length);
    // Shares are of the records that have a value.
    const [{ valued }] = sql('select count(delay) valued from s');
    got.forEach((g, k) =>
      expect([
        g['Count'],
        g['Share'],
        g['Cumulative count'],
        g['Cumulative share'],
        g['mean of Boarded'],
      ]).toEqual([
        want[k].n,
        near(Number(want[k].n) / Number(valued)),
        want[k].c,
        near(Number(want[k].c) / Number(valued)),
        near(want[k].m),
      ]),
    );
    const [{ n }] = sql('select count(*) n from s where delay is null');
    expect(Number(n)).toBeGreaterThan(0);
    const blank = rows(result).find((r) => r['Delay'] === 'blank or unread');
    expect([blank?.['Count'], blank?.['Share']]).toEqual([n, null]);
  });

  it('in the bands of a table: each value counts once', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'frequency',
          key: {
            column: 'Delay',
            bands: {
              by: 'table',
              bands: [
                { label: 'on time', from: 0, to: 5 },
                { label: 'slight', from: 5, to: 10 },
                { label: 'late', from: 10 },
              ],
            },
          },
        },
      ],
    });
    const want = sql(
      "select case when delay < 5 then 'on time' when delay < 10 then 'slight' else 'late' end b, count(*) n from s where delay >= 0 group by b",
    );
    for (const r of want)
      expect(groups(result).find((g) => g['Delay in bands'] === r.b)?.['Count']).toBe(r.n);
    const [early] = sql('select count(*) n from s where delay < 0');
    expect(rows(result).find((g) => g['Delay in bands'] === 'in no band')?.['Count'] ?? 0).toBe(
      early.n,
    );
  });
});
