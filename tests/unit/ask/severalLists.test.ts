import { describe, expect, it } from 'vitest';
import { BadAsk } from '$lib/core/errors';
import { benchOf } from '$lib/core/bench/benchOf';
import { readAsk } from '$lib/core/ask/badAsk';
import { talliesOf } from '$lib/core/ask/result';
import type { Table } from '$lib/core/table/table';
import { near, sql, table } from '../../support/againstSql';
import { answered, faultsOf } from '../../support/ask';
import { readDemo } from '../../support/demo';

const vessels: Table = readDemo('vessels').reading.table;
const FREIGHT = {
  kind: 'leaf',
  column: 'Route',
  not: false,
  test: { test: 'is', values: ['Outer Freight'] },
};
const ledger = (column: string, measure: object) => ({
  kind: 'ledger',
  groups: [{ column }],
  measures: [measure],
});
const BOARDED = { kind: 'sum', column: 'Boarded' };

describe('one ask over several lists', () => {
  it('answers each list by its own preparation and ladder', () => {
    const result = answered(
      table,
      {
        lists: { vessels: { file: 'vessels.csv' } },
        tallies: [ledger('Vessel', BOARDED)],
        also: [
          {
            of: 'vessels',
            computed: [{ name: 'twice', expression: 'Passengers * 2' }],
            ladder: {
              rungs: [
                {
                  condition: {
                    kind: 'leaf',
                    column: 'Passengers',
                    not: false,
                    test: { test: 'compare', op: 'ge', value: 100 },
                  },
                },
              ],
            },
            tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'twice' }] }],
          },
        ],
      },
      { vessels },
    );
    const [also] = result.also;
    const passengers = vessels.columns.find((c) => c.name === 'Passengers');
    const kept = Array.from(passengers && 'values' in passengers ? passengers.values : []).filter(
      (v) => v >= 100,
    );
    expect(also.list).toMatchObject({ name: 'vessels', records: vessels.length });
    expect(also.counts.counted).toBe(kept.length);
    expect(also.tallies[0].tables[0].rows[0].cells).toEqual([
      kept.length,
      2 * kept.reduce((s, v) => s + v, 0),
    ]);
    expect(result.counts.counted).toBe(table.length);
    expect(talliesOf(result).length).toBe(2);
  });

  it('a linked list follows the list as read, or what is counted of it, and says which', () => {
    const byVessel = (follows?: string) => ({
      tally: ledger('Vessel', BOARDED),
      ...(follows && { follows }),
    });
    const result = answered(table, {
      lists: { read: byVessel(), counted: byVessel('counted') },
      ladder: { rungs: [{ condition: FREIGHT }] },
      tallies: [ledger('Vessel', BOARDED)],
      also: ['read', 'counted'].map((of) => ({
        of,
        tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'm1' }] }],
      })),
    });
    const [all] = sql('select count(distinct vessel) n, sum(boarded) b from s');
    const [freight] = sql(
      "select count(distinct vessel) n, sum(boarded) b from s where route = 'Outer Freight'",
    );
    expect(result.also.map((a) => a.tallies[0].tables[0].rows[0].cells)).toEqual([
      [all.n, near(all.b)],
      [freight.n, near(freight.b)],
    ]);
    expect(
      result.prepared.filter((w) => w.code === 'linked-list').map((w) => w.words.slice(0, 70)),
    ).toEqual([
      expect.stringContaining('as it was read'),
      expect.stringContaining('as it is counted'),
    ]);
  });

  it('names faults of every list at once, each at its place', () => {
    const ask = {
      lists: { vessels: { file: 'vessels.csv' } },
      tallies: [ledger('Vesel', BOARDED)],
      also: [
        { of: 'vessels', tallies: [ledger('Passenger', { kind: 'records' })] },
        { of: 'vesels', tallies: [ledger('Vessel', { kind: 'records' })] },
      ],
    };
    expect(faultsOf(() => answered(table, ask, { vessels })).map((f) => f.split(':')[0])).toEqual([
      'tallies[0].groups[0].column',
      'also[0].tallies[0].groups[0].column',
      'also[1].of',
    ]);
  });

  it('is no bench, which is of one list', () => {
    const ask = readAsk({
      tallies: [ledger('Vessel', BOARDED)],
      also: [{ of: 'x', tallies: [ledger('Vessel', BOARDED)] }],
    });
    expect(() => benchOf(ask, 1)).toThrow(BadAsk);
  });
});
