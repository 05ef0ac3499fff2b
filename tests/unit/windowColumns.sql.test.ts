import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { computedColumn } from '$lib/core/prepare/computedColumn';
import type { WindowSpec } from '$lib/core/prepare/specs';
import { scalarColumn, textColumn, isText, type Column } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { near, sql, table } from '../support/againstSql';
import { answered, faultsOf, groups } from '../support/ask';

const FACTS = { id: 'made', name: 'Made', unit: '' };

const made = (on: Table, window: Partial<WindowSpec> & Pick<WindowSpec, 'figure'>): Column =>
  finish(computedColumn(on, { window: { by: [], order: [], descending: true, ...window } }, FACTS));
const cells = (column: Column): (number | string | null)[] =>
  isText(column)
    ? [...column.codes].map((code) => (code < 0 ? null : column.dictionary[code]))
    : [...column.values].map((v) => (v === v ? v : null));
const column = (name: string): string => {
  const found = table.columns.find((c) => c.name === name);
  if (!found) throw new Error(`no column ${name}`);
  return found.id;
};
/** One figure of every record, in the order of the file. */
const inSql = (figure: string): (number | string | null)[] =>
  sql(`select n, ${figure} w from (select rowid n, * from s) order by n`).map((r) =>
    typeof r.w === 'number' || typeof r.w === 'string' ? r.w : null,
  );
const asNear = (values: readonly (number | string | null)[]): unknown[] =>
  values.map((v) => (typeof v === 'number' ? near(v) : v));

describe('a figure of each record among those of its group, as SQL’s window functions give it', () => {
  const fares = { of: column('Fares taken'), by: [column('Vessel')] };
  const byDay = [{ column: column('Sailed on'), descending: false, blanks: 'last' as const }];
  const over = 'partition by vessel order by sailed_on, n rows unbounded preceding';

  it('rank, equal values sharing the first place', () => {
    expect(cells(made(table, { figure: 'rank', ...fares }))).toEqual(
      inSql(
        'case when fares is null then null else rank() over (partition by vessel order by fares desc nulls last) end',
      ),
    );
    expect(cells(made(table, { figure: 'rank', ...fares, descending: false }))).toEqual(
      inSql(
        'case when fares is null then null else rank() over (partition by vessel order by fares nulls last) end',
      ),
    );
  });

  it('percentile rank, among the records that have a value', () => {
    expect(cells(made(table, { figure: 'percentileRank', ...fares }))).toEqual(
      asNear(
        inSql(
          'case when fares is null then null else percent_rank() over (partition by vessel, fares is null order by fares) end',
        ),
      ),
    );
  });

  it('running total in the order of the days, equal days in the order of the file', () => {
    expect(cells(made(table, { figure: 'running', ...fares, order: byDay }))).toEqual(
      asNear(inSql(`coalesce(sum(fares) over (${over}), 0)`)),
    );
  });

  it('share of the sum of the group', () => {
    expect(cells(made(table, { figure: 'share', ...fares }))).toEqual(
      asNear(inSql('fares * 1.0 / sum(fares) over (partition by vessel)')),
    );
  });

  it('the value of the record before, the change from it, and the number in the order', () => {
    const lag = 'lag(fares) over (partition by vessel order by sailed_on, n)';
    expect(cells(made(table, { figure: 'previous', ...fares, order: byDay }))).toEqual(
      asNear(inSql(lag)),
    );
    expect(cells(made(table, { figure: 'change', ...fares, order: byDay }))).toEqual(
      asNear(inSql(`fares - ${lag}`)),
    );
    expect(cells(made(table, { figure: 'number', by: fares.by, order: byDay }))).toEqual(
      inSql('row_number() over (partition by vessel order by sailed_on, n)'),
    );
  });
});

/** Visits to a surgery: two spellings of one name, a blank, days out of order. */
const visits: Table = {
  length: 6,
  columns: [
    textColumn('Patient', ['Ida', 'Bo', 'ida ', 'Bo', null, 'Ida']),
    scalarColumn('On', 'date', [20_000, 20_010, 20_030, 20_001, 20_005, 20_010], { grain: 'day' }),
    textColumn('Room', ['A', 'B', 'C', 'A', 'B', 'C']),
    scalarColumn('Fee', 'number', [10, 20, NaN, -20, 5, 40], { unit: '£', decimals: 2 }),
  ],
};
const TALLIES = [{ kind: 'ledger', measures: [{ kind: 'records' }] }];
const ofPatient = {
  by: ['Patient'],
  order: [{ column: 'On', descending: false, blanks: 'last' as const }],
};

describe('figures within groups of other lists', () => {
  it('count days between dates, take spellings of one name as one, and give texts as texts', () => {
    const gap = made(visits, { figure: 'change', of: 'On', ...ofPatient });
    expect(cells(gap)).toEqual([null, 9, 20, null, null, 10]);
    expect(gap.unit).toBe('days');
    expect(cells(made(visits, { figure: 'previous', of: 'Room', ...ofPatient }))).toEqual([
      null,
      'A',
      'C',
      null,
      null,
      'A',
    ]);
  });

  it('a blank adds nothing, has no place and no share; a sum of 0 has no shares', () => {
    expect(cells(made(visits, { figure: 'running', of: 'Fee', ...ofPatient }))).toEqual([
      10, 0, 50, -20, 5, 50,
    ]);
    expect(cells(made(visits, { figure: 'rank', of: 'Fee', by: ['Patient'] }))).toEqual([
      2,
      1,
      null,
      2,
      1,
      1,
    ]);
    expect(cells(made(visits, { figure: 'share', of: 'Fee', by: ['Patient'] }))).toEqual([
      0.2,
      null,
      null,
      null,
      1,
      0.8,
    ]);
  });

  it('are columns like others: tallied, and named where they do not fit', () => {
    const window = { figure: 'number', ...ofPatient };
    const asked = {
      computed: [{ name: 'Visit', window }],
      tallies: [{ kind: 'ledger', groups: [{ column: 'Visit' }], measures: [{ kind: 'records' }] }],
    };
    expect(groups(answered(visits, asked)).map((g) => [g['Visit'], g['Records']])).toEqual([
      ['1', 3],
      ['2', 2],
      ['3', 1],
    ]);
    const faults = (window: object): string[] =>
      faultsOf(() => answered(visits, { computed: [{ name: 'W', window }], tallies: TALLIES }));
    expect(faults({ figure: 'running', of: 'Room' })[0]).toContain(
      'computed[0].window.of: “Room” is text',
    );
    expect(faults({ figure: 'rank' })[0]).toContain(
      'computed[0].window.of: It is not said of which column.',
    );
    expect(faults({ figure: 'number', by: ['Ward'] })[0]).toContain(
      'computed[0].window.by[0]: There is no column “Ward”',
    );
  });

  it('stand on other made columns, and are no circle', () => {
    const computed = [
      { name: 'Gap', window: { figure: 'change', of: 'Twice', ...ofPatient } },
      { name: 'Twice', expression: 'Fee * 2' },
    ];
    const asked = {
      computed,
      tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'Gap' }] }],
    };
    // Bo: −40 → 40; Ida: 20 → 80, then blank.
    expect(answered(visits, asked).tallies[0].tables[0].rows[0].cells.at(-1)).toBe(140);
    const circle = [{ name: 'A', window: { figure: 'rank', of: 'A' } }];
    expect(faultsOf(() => answered(visits, { computed: circle, tallies: TALLIES }))[0]).toContain(
      'A',
    );
  });
});
