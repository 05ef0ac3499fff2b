import { describe, expect, it } from 'vitest';
import { db, key, near, sql, table } from '../../support/againstSql';
import { answered, groups, rows } from '../../support/ask';
import { readDemo } from '../../support/demo';

describe('joined and stacked columns', () => {
  it('a lookup by vessel', () => {
    const vessels = readDemo('vessels').reading.table;
    const result = answered(
      table,
      {
        lists: { fleet: {} },
        joins: [{ list: 'fleet', on: [{ column: 'Vessel' }], bring: [{ column: 'Car spaces' }] }],
        computed: [{ name: 'Free', expression: '"Car spaces" - vehicles' }],
        tallies: [
          { kind: 'ledger', groups: [key('Vessel')], measures: [{ kind: 'sum', column: 'Free' }] },
        ],
      },
      { fleet: vessels },
    );
    db.exec('drop table if exists v; create table v (vessel text, spaces real)');
    const insert = db.prepare('insert into v values (?, ?)');
    for (let i = 0; i < vessels.length; i++) {
      const [name, spaces] = [
        vessels.columns[0],
        vessels.columns.find((c) => c.name === 'Car spaces'),
      ];
      if (name.type !== 'text' || !spaces || spaces.type === 'text') throw new Error('types');
      insert.run(
        name.dictionary[name.codes[i]],
        Number.isNaN(spaces.values[i]) ? null : spaces.values[i],
      );
    }
    const want = sql(
      'select s.vessel, sum(spaces - vehicles) f, count(*) n from s left join v using (vessel) group by 1 order by 1',
    );
    expect(groups(result).map((g) => [g['Vessel'], g['Records'], g['sum of Free']])).toEqual(
      want.map((r) => [r.vessel, r.n, near(r.f ?? 0)]),
    );
    expect(result.list.records).toBe(table.length);
  });

  it('kiosks as one record a day and kiosk, and back', () => {
    const kiosks = readDemo('kiosks').reading.table;
    const names = kiosks.columns.slice(1).map((c) => c.name);
    const stack = { do: 'stack', columns: names, name: 'Kiosk', value: 'Sold' };
    const tally = {
      kind: 'ledger',
      groups: [{ column: 'Kiosk' }],
      measures: [
        { kind: 'sum', column: 'Sold' },
        { kind: 'blanks', column: 'Sold' },
      ],
    };
    const result = answered(kiosks, { reshape: [stack], tallies: [tally] });
    expect(result.list.records).toBe(kiosks.length * names.length);
    for (const column of kiosks.columns.slice(1)) {
      if (column.type === 'text') throw new Error('text');
      const there = column.values.filter((v) => v === v);
      const got = groups(result).find((g) => g['Kiosk'] === column.name) ?? {};
      expect(got['sum of Sold']).toBe(there.reduce((s, v) => s + v, 0));
      expect(got['count of blanks of Sold']).toBe(
        column.values.length - there.length - column.unread.size,
      );
    }
    const back = answered(kiosks, {
      reshape: [stack, { do: 'unstack', name: 'Kiosk', value: 'Sold' }],
      tallies: [{ kind: 'spread', columns: names, facts: [{ kind: 'values' }, { kind: 'sum' }] }],
    });
    const straight = answered(kiosks, {
      tallies: [{ kind: 'spread', columns: names, facts: [{ kind: 'values' }, { kind: 'sum' }] }],
    });
    expect(rows(back)).toEqual(rows(straight));
  });
});
