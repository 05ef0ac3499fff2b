import { describe, expect, it } from 'vitest';
import { key, near, sailed, sql, table } from '../../support/againstSql';
import { behind, answeredOn } from '../../support/ask';

describe('behind a figure', () => {
  it('gives the very records, the skipped ones, and words', () => {
    const { input, result } = answeredOn(table, {
      ladder: { rungs: [{ condition: sailed }], setAside: { records: [4, 6] } },
      tallies: [
        {
          kind: 'crosstab',
          down: [key('Route')],
          across: [key('Sailed on', { period: 'quarter' })],
          measures: [{ kind: 'mean', column: 'Delay' }],
        },
      ],
    });
    const { columns, rows: lines } = result.tallies[0].tables[0];
    const row = lines.findIndex((r) => r.cells[0] === 'Nessness');
    const column = columns.findIndex((c) => c.title.startsWith('Jul–Sep 2025'));
    const found = behind(input, result.tallies[0], { table: 0, row, column });
    const want = sql(
      "select n from s where cancelled = 'no' and n not in (3, 5) and route = 'Nessness' and sailed_on between '2025-07-01' and '2025-09-30'",
    );
    expect([...found.records]).toEqual(want.map((r) => r.n));
    expect(found.values + found.blanks + found.unread).toBe(want.length);
    const [mean] = sql(`select avg(delay) m from s where n in (${want.map((r) => r.n).join(',')})`);
    expect(found.figure).toEqual(near(mean.m));
    expect(found.arithmetic).toMatch(/^Sum .* ÷ \d+\.$/);
  });

  it('every figure of every kind stands on as many records as its count says', () => {
    const { input, result } = answeredOn(table, {
      tallies: [
        { kind: 'ledger', groups: [key('Route'), key('Vessel')], measures: [] },
        { kind: 'frequency', key: { column: 'Delay', bands: { by: 'number', count: 7 } } },
        { kind: 'conditional', key: { column: 'Weather' }, columns: [{}] },
        { kind: 'ranking', groups: [key('Vessel')], by: { kind: 'records' }, top: 3 },
        {
          kind: 'periods',
          column: 'Sailed on',
          levels: ['year', 'half'],
          calendar: { yearStartsIn: 4 },
          measures: [{ kind: 'records' }],
        },
        { kind: 'spread', columns: ['Delay'], key: key('Route') },
        {
          kind: 'frequency',
          key: { column: "expression: CASE WHEN delay >= 10 THEN 'late' ELSE route END" },
        },
        { kind: 'frequency', key: { column: 'Sailed on', period: 'weekday' } },
      ],
    });
    for (const tally of result.tallies) {
      const [main] = tally.tables;
      const column = main.columns.findIndex((c) => c.measure?.kind === 'records');
      main.rows.forEach((line, row) => {
        expect([
          tally.words,
          row,
          behind(input, tally, { table: 0, row, column }).records.length,
        ]).toEqual([tally.words, row, line.cells[column]]);
      });
    }
  });
});
