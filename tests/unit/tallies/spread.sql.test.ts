import { describe, expect, it } from 'vitest';
import { key, near, sailed, sql, table } from '../../support/againstSql';
import { answered, rows } from '../../support/ask';

/** Between the two neighbours of place 1 + p (n − 1), as the calculations define a quartile. */
function quantile(sorted: readonly number[], p: number): number {
  const place = p * (sorted.length - 1);
  const low = Math.floor(place);
  return sorted[low] + (place - low) * ((sorted[low + 1] ?? sorted[low]) - sorted[low]);
}

describe('spread', () => {
  it('of two columns by route, as SQL and the definitions give it', () => {
    const result = answered(table, {
      ladder: { rungs: [{ condition: sailed }] },
      tallies: [{ kind: 'spread', columns: ['Delay', 'Boarded'], key: key('Route') }],
    });
    const got = rows(result);
    for (const [title, column] of [
      ['Delay', 'delay'],
      ['Boarded', 'boarded'],
    ])
      for (const { route } of [...sql('select distinct route from s'), { route: null }]) {
        const where = `cancelled = 'no'${route === null ? '' : ` and route = '${route}'`}`;
        const row = got.find((g) => g['Column'] === title && g['Route'] === (route ?? 'All')) ?? {};
        const [facts] = sql(
          `select count(*) records, count(${column}) n, avg(${column}) m, min(${column}) low, max(${column}) high from s where ${where}`,
        );
        expect([row['Records'], row['count of values'], row['lowest'], row['highest']]).toEqual([
          facts.records,
          facts.n,
          facts.low,
          facts.high,
        ]);
        expect(Number(row['count of blanks']) + Number(row['count of unread cells'])).toBe(
          Number(facts.records) - Number(facts.n),
        );
        const [n, m] = [Number(facts.n), Number(facts.m)];
        const [powers] = sql(
          `select sum((${column} - ${m}) * (${column} - ${m})) two, sum((${column} - ${m}) * (${column} - ${m}) * (${column} - ${m})) three from s where ${where}`,
        );
        const deviation = Math.sqrt(Number(powers.two) / (n - 1));
        expect(row['mean']).toEqual(near(m));
        expect(row['standard deviation']).toEqual(near(deviation));
        expect(row['skewness']).toEqual(
          near((n / ((n - 1) * (n - 2))) * (Number(powers.three) / deviation ** 3)),
        );
        const sorted = sql(
          `select ${column} v from s where ${where} and ${column} is not null order by ${column}`,
        ).map((r) => Number(r.v));
        const [lower, median, upper] = [0.25, 0.5, 0.75].map((p) => quantile(sorted, p));
        expect([
          row['lower quartile'],
          row['median'],
          row['upper quartile'],
          row['interquartile range'],
        ]).toEqual([near(lower), near(median), near(upper), near(upper - lower)]);
      }
  });
});
