import { describe, expect, it } from 'vitest';
import { key, near, sql, table } from '../../support/againstSql';
import { answered, groups } from '../../support/ask';

describe('percentiles and spread', () => {
  it('the median by route, with its place and neighbours', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'percentile',
          column: 'Boarded',
          key: key('Route'),
          percentiles: [50],
          ranksOf: [100],
        },
      ],
    });
    for (const g of groups(result)) {
      const values = sql(
        `select boarded b from s where route = '${g['Group'] ?? g['Route']}' and boarded is not null order by boarded`,
      ).map((r) => Number(r.b));
      const n = values.length;
      const middle = n % 2 ? values[(n - 1) / 2] : (values[n / 2 - 1] + values[n / 2]) / 2;
      expect([g['Values'], g['Value of Boarded'], g['Place in order']]).toEqual([
        n,
        middle,
        (n + 1) / 2,
      ]);
    }
    for (const g of groups(result, 'ranks')) {
      const [r] = sql(
        `select avg(boarded <= 100) p, sum(boarded < 100) u from s where route = '${g['Route']}'`,
      );
      expect([g['Percentile rank'], g['Values under it']]).toEqual([near(r.p), r.u]);
    }
  });
});
