import { describe, expect, it } from 'vitest';
import { key, near, sql, table } from '../../support/againstSql';
import { answered, behind, groups, rows, answeredOn } from '../../support/ask';

const FARES = { kind: 'sum', column: 'Fares taken' };
const ledger = (groups_: object[], measures: object[]) => ({
  kind: 'ledger',
  groups: groups_,
  measures,
});

describe('tallies of group results', () => {
  const monthly = ledger(
    [key('Route'), { column: 'Vessel' }, { column: 'Sailed on', period: 'month' }],
    [FARES],
  );
  const quarterly = {
    kind: 'nested',
    inner: monthly,
    outer: ledger(
      [{ column: 'Route' }, { column: 'Sailed on by month', period: 'quarter' }],
      [
        { kind: 'max', column: 'm1' },
        { kind: 'atMax', column: 'm1', other: 'Vessel' },
      ],
    ),
  };
  const deep = {
    kind: 'nested',
    inner: quarterly,
    outer: ledger([{ column: 'Route' }], [{ kind: 'mean', column: 'm1' }]),
  };
  const months = `with m as (select route r, vessel v, substr(sailed_on, 1, 7) m, sum(fares) s from s group by 1, 2, 3),
    q as (select r, substr(m, 1, 4) || '-' || ((substr(m, 6) + 2) / 3) q, max(s) best from m group by 1, 2)`;

  it('months of the inner tally roll up to quarters of the outer one', () => {
    const got = groups(answered(table, { tallies: [quarterly] }));
    const want = sql(`${months} select r, q, best from q order by r, q`);
    expect(got.map((g) => [g['Route'], g['highest of sum of Fares taken']])).toEqual(
      want.map((w) => [w.r, near(w.best)]),
    );
  });

  it('to any depth: of those results again', () => {
    const result = answered(table, { tallies: [deep] });
    const want = sql(`${months} select r, avg(best) a from q group by 1 order by 1`);
    expect(
      groups(result).map((g) => [g['Route'], g['mean of highest of sum of Fares taken']]),
    ).toEqual(want.map((w) => [w.r, near(w.a)]));
    expect(result.tallies[0].words).toBe(
      'First, sum of Fares taken for each Route, then Vessel, then Sailed on by month; then, of those results: highest of sum of Fares taken and Vessel at the highest sum of Fares taken for each Route, then Sailed on by month by quarter; then, of those results: mean of highest of sum of Fares taken for each Route.',
    );
  });

  it('a figure of the outermost opens to the records themselves', () => {
    const { input, result } = answeredOn(table, { tallies: [deep] });
    const { records } = behind(input, result.tallies[0], {
      table: 0,
      row: ['Nessness'],
      column: 'm1',
    });
    expect(records.length).toBe(sql("select count(*) n from s where route = 'Nessness'")[0].n);
  });

  it('no figure of results claims a record of their number', () => {
    const { tallies } = answered(table, { tallies: [deep] });
    const marks = tallies[0].tables[0].rows.flatMap((r) => r.marks ?? []);
    expect(marks.length).toBeGreaterThan(0);
    for (const mark of marks) {
      expect(mark.record).toBeUndefined();
      expect(mark.words).toContain('one of the group results');
    }
  });

  it('names what does not fit at any depth', () => {
    const wrong = { ...deep, inner: { ...quarterly, inner: ledger([key('Rout')], [FARES]) } };
    expect(() => answered(table, { tallies: [wrong] })).toThrow(/Rout/);
    expect(rows(answered(table, { tallies: [deep] })).length).toBe(5);
  });
});
