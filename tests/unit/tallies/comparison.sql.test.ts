import { describe, expect, it } from 'vitest';
import type { ScalarColumn } from '$lib/core/table/column';
import { columnOf, type Table } from '$lib/core/table/table';
import { db, key, near, sql, table } from '../../support/againstSql';
import { behind, rows, answeredOn } from '../../support/ask';

describe('comparison of two readings', () => {
  it('what moved by route, and through which records, as SQL finds it', () => {
    // The older reading: every 400th fare was lower by 1.25.
    const fares = columnOf(table, 'fares_taken') as ScalarColumn;
    const before = fares.values.slice();
    db.exec('create table older as select n, fares, route from s');
    for (let n = 0; n < before.length; n += 400) {
      before[n] -= 1.25;
      db.exec(`update older set fares = fares - 1.25 where n = ${n}`);
    }
    const older: Table = {
      ...table,
      columns: table.columns.map((c) => (c.id === fares.id ? { ...fares, values: before } : c)),
    };
    const { input, result } = answeredOn(
      table,
      {
        lists: { before: {} },
        tallies: [
          {
            kind: 'comparison',
            with: 'before',
            match: ['Sailed on', 'Time', 'Route', 'Vessel', 'Direction'],
            tally: {
              kind: 'ledger',
              groups: [key('Route')],
              measures: [{ kind: 'sum', column: 'Fares taken' }],
            },
          },
        ],
      },
      { before: older },
    );
    const got = rows(result);
    const want = sql(
      `select s.route, sum(older.fares) was, sum(s.fares) now, sum(s.fares <> older.fares) changed
       from s join older using (n) group by s.route having changed > 0`,
    );
    expect(got).toHaveLength(want.length + 1);
    for (const r of want) {
      const at = got.findIndex((g) => g['Where'] === r.route);
      expect(got[at]).toMatchObject({
        Before: near(r.was),
        After: near(r.now),
        Difference: near(Number(r.now) - Number(r.was)),
        Came: 0,
        Went: 0,
        Changed: r.changed,
      });
      const records = sql(
        `select n from s join older using (n) where s.route = '${r.route}' and s.fares <> older.fares order by n`,
      ).map((x) => x.n);
      const found = behind(input, result.tallies[0], { table: 0, row: at, column: 4 });
      expect([...found.records].sort((a, b) => a - b)).toEqual(records);
    }
    const [whole] = sql('select sum(s.fares) - sum(older.fares) d from s join older using (n)');
    expect(got[0]['Difference']).toEqual(near(whole.d));
  });
});
