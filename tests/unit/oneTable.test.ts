import { describe, expect, it } from 'vitest';
import { fromParts } from '$lib/core/ask/resultParts';
import { benchOf } from '$lib/core/bench/benchOf';
import { readAsk } from '$lib/core/ask/badAsk';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { WriteRefused } from '$lib/core/errors';
import { plainFormat } from '$lib/core/table/format';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { Dialect, type Values } from '$lib/core/write/dialect';
import type { OutForm } from '$lib/core/write/forms';
import { resultFile } from '$lib/core/write/resultFile';
import { tableFile } from '$lib/core/write/tableFile';
import { answered, rows } from '../support/ask';
import { OpenBench } from '../support/bench';
import { csvOf } from '../support/handedOver';
import { day, noRecipe } from '../support/smallList';

/** Till takings of three stalls: dates by month, a time of day, values below zero, a stall without a name. */
const stalls: Table = {
  length: 5,
  columns: [
    textColumn('Stall', ['North', 'North', 'North', null, 'South']),
    scalarColumn('Taken', 'number', [133, 138, 183, -1235, 20], { unit: '£', id: 'taken' }),
    scalarColumn(
      'Month',
      'date',
      ['2024-01-01', '2024-01-01', '2024-02-01', '2024-02-01', '2024-02-01'].map(day),
      { grain: 'month' },
    ),
    scalarColumn('Closed', 'time', [63_015_000, 64_800_000, 61_200_000, NaN, 0]),
  ],
};
const benchOn = (tally: unknown, more: Partial<Bench> = {}, view: object = {}): Bench => {
  const parsed = Tally.parse(tally);
  return {
    ...newBench(stalls, 1),
    tray: [{ id: 'ledger', tally: parsed, view: { ...newView(parsed), ...view }, note: '' }],
    open: 'ledger',
    ...more,
  };
};
const opened = (doc: Bench, others = new Map<string, Table>()): OpenBench => {
  const bench = new OpenBench(stalls, noRecipe, 'Stalls', others);
  bench.show(doc);
  return bench;
};
const linesOf = (text: string): string[] => text.trimEnd().split('\r\n');
const running = {
  kind: 'ledger',
  groups: [{ column: 'Stall' }],
  measures: [
    { kind: 'sum', column: 'taken' },
    { kind: 'running', column: 'taken' },
  ],
};

describe('running totals of records', () => {
  it('are handed over as they are shown, under a head of their own', () => {
    const bench = opened(benchOn(running, {}, { showDown: 2 }));
    // 133, 133 + 138, and 183 more.
    const north = bench.lines(0, 4).filter(({ kind }) => kind === 'record');
    expect(north.map(({ cells }) => cells.slice(0, 2))).toEqual([
      ['133', '133'],
      ['138', '271'],
      ['183', '454'],
    ]);
    const [head, ...lines] = linesOf(csvOf(bench, 'shown')).map((line) => line.split(','));
    const [own, total] = ['sum of Taken (£)', 'running total of Taken (£)'].map((h) =>
      head.indexOf(h),
    );
    expect(Math.min(own, total)).toBeGreaterThan(0);
    expect(lines.slice(0, 3).map((line) => [line[own], line[total]])).toEqual([
      ['133', '133'],
      ['138', '271'],
      ['183', '454'],
    ]);
  });

  it('stand behind the records of an answer, within each group', () => {
    const result = answered(stalls, { tallies: [{ ...running, records: true }] });
    const told = rows(result, 'records').map((row) => row['running total of Taken']);
    expect(told).toEqual([133, 271, 454, -1235, 20]);
  });
});

describe('full values', () => {
  it('have labels as the values behind them, a plain minus, and nothing for blank', () => {
    const bench = opened(
      benchOn(
        {
          kind: 'ledger',
          groups: [{ column: 'Month' }, { column: 'Stall' }],
          measures: [{ kind: 'sum', column: 'taken' }],
        },
        {},
        { showDown: 2 },
      ),
    );
    expect(bench.ask('copy', { values: 'full' }).text).toBe(
      [
        'Month\tStall\tRecords\tsum of Taken (£)',
        '2024-01-01\tNorth\t2\t271',
        'Jan 2024\t\t2\t271',
        '2024-02-01\tNorth\t1\t183',
        '2024-02-01\tSouth\t1\t20',
        '2024-02-01\t\t1\t-1235',
        'Feb 2024\t\t3\t-1032',
        'Grand total\t\t5\t-761',
        '',
      ].join('\r\n'),
    );
    expect(bench.ask('copy', { values: 'shown' }).text).toContain('Feb 2024\tblank\t1\t-1,235');
  });
});

describe('a decimal comma', () => {
  it('is for numbers alone: a time keeps its marks', async () => {
    const dialect = Dialect.parse({ values: 'shown', delimiter: 'semicolon', decimal: 'comma' });
    const moment = scalarColumn('Begun', 'datetime', [day('2024-05-03') * 86_400_000 + 37_800_250]);
    const list: Table = {
      length: 1,
      columns: [moment, scalarColumn('Fare', 'number', [1234.5], { decimals: 1 })],
    };
    const { bytes } = await tableFile({ name: 'L', table: list, notes: [] }, 'csv', dialect);
    expect(new TextDecoder().decode(bytes)).toBe(
      'Begun;Fare\r\nFri 3 May 2024, 10:30:00.250;1.234,5\r\n',
    );
    const bench = opened(
      benchOn(
        {
          kind: 'ledger',
          measures: [
            { kind: 'max', column: 'Closed' },
            { kind: 'sum', column: 'taken' },
          ],
        },
        {},
        { showDown: 0 },
      ),
    );
    const { parts } = bench.ask('asked', { tallies: ['ledger'], values: 'shown', report: false });
    const file = await resultFile(fromParts(parts), 'csv', dialect);
    expect(new TextDecoder().decode(file.bytes)).toContain('5;-761;18:00');
  });
});

describe('± the deviation', () => {
  const mean = { kind: 'mean', column: 'taken' };
  // 133, 138 and 183: mean 151.33, deviation √(1516.67 ÷ 2) = 27.54.
  const SHOWN = '151 ± 28';
  const formats = { taken: { ...plainFormat, deviation: 2 as const } };
  const key = { column: 'Stall' };
  const textsOf = (tally: unknown): string[] => {
    const bench = opened(
      benchOn(
        { kind: 'ledger' },
        {
          formats,
          tray: [
            ...benchOn({ kind: 'ledger' }).tray,
            { id: 'other', tally: Tally.parse(tally), view: newView(Tally.parse(tally)), note: '' },
          ],
        },
      ),
    );
    const view = { down: 99, turned: [] };
    const at = { tally: 'other', table: 'main', across: 0, from: 0, count: 50, view };
    return bench.ask('rows', at).rows.flatMap(({ cells }) => cells);
  };

  it.each([
    { kind: 'ledger', groups: [key], measures: [mean] },
    {
      kind: 'crosstab',
      down: [key],
      across: [{ column: 'Month', period: 'year' }],
      measures: [mean],
    },
    {
      kind: 'conditional',
      rows: [
        {
          name: 'north',
          condition: { kind: 'leaf', column: 'Stall', test: { test: 'is', values: ['North'] } },
        },
      ],
      columns: [{ measure: mean }],
    },
    { kind: 'frequency', key, measures: [mean] },
    { kind: 'spread', columns: ['taken'], key, facts: [{ kind: 'mean' }] },
    { kind: 'spread', columns: ['taken', 'Stall'], key, facts: [{ kind: 'mean' }] },
    { kind: 'ranking', groups: [key], by: mean },
    { kind: 'ranking', groups: [key], by: mean, from: 'lowest', top: 2 },
    {
      kind: 'contributions',
      measure: mean,
      by: [{ column: 'Month', period: 'year' }],
      between: { of: 'groups', key, from: 'North', to: 'South' },
    },
  ])('stands beside the means of $kind', (tally) => {
    expect(textsOf(tally)).toContain(SHOWN);
  });

  it('stands behind the figure, too', () => {
    const bench = opened(benchOn({ kind: 'ledger', groups: [key], measures: [mean] }, { formats }));
    const place = { tally: 'ledger', table: 'main', row: ['North'], column: 'm1' };
    expect(bench.ask('behind', { place }).figure).toBe(SHOWN);
    expect(bench.ask('figureRecord', { place }).shown).toBe(SHOWN);
  });

  it('goes into every form that has figures as shown, and into no other', async () => {
    const ask = { formats, tallies: [{ kind: 'ledger', groups: [key], measures: [mean] }] };
    const result = answered(stalls, ask);
    const text = async (form: OutForm, dialect?: Dialect): Promise<string> =>
      new TextDecoder().decode((await resultFile(result, form, dialect)).bytes);
    expect(await text('md')).toContain(`| ${SHOWN} |`);
    expect(await text('html')).toContain(SHOWN);
    expect(await text('csv', Dialect.parse({ values: 'shown' }))).toContain(SHOWN);
    expect(await text('csv')).not.toContain('±');
    expect(await text('csv')).toContain(String((133 + 138 + 183) / 3));
    expect(JSON.stringify(answered(stalls, { tallies: ask.tallies }))).not.toContain('deviations');
  });

  it('of shares counts the digits of per cent', () => {
    const shares: Table = {
      length: 2,
      columns: [scalarColumn('Full', 'number', [0.1, 0.2], { percent: true, decimals: 3 })],
    };
    const bench = new OpenBench(shares, noRecipe, 'L');
    const tally = Tally.parse({ kind: 'ledger', measures: [{ kind: 'mean', column: 'Full' }] });
    const page = bench.show({
      ...newBench(shares, 1),
      tray: [{ id: 'ledger', tally, view: newView(tally), note: '' }],
      open: 'ledger',
      formats: { Full: { ...plainFormat, style: 'percent', deviation: 2 } },
    });
    // √0.005 = 7.1 of a hundred.
    expect(page.foot[2].cells).toContain('15.0 % ± 7.1 %');
  });
});

describe('what does not fit', () => {
  it('more bands than can be: the bench opens with its records and the reason, and HTTP is told it', () => {
    const bands = { by: 'width', width: 0.01 };
    const spec = {
      kind: 'ledger',
      groups: [{ column: 'taken', bands }],
      measures: [{ kind: 'sum', column: 'taken' }],
    };
    const page = new OpenBench(stalls, noRecipe, 'Stalls').show(benchOn(spec));
    expect(page.foot[2].records).toBe(5);
    expect(page.ledgerFaults.map(({ path }) => path)).toEqual(['tally.groups[0]']);
    expect(page.ledgerFaults[0].message).toMatch(/^Bands of 0.01/);
    expect(() => answered(stalls, { tallies: [spec] })).toThrow(/tallies\[0\]: Bands of/);
    const lists = { few: { tally: spec } };
    expect(() => answered(stalls, { lists, tallies: [{ kind: 'ledger' }] })).toThrow(
      /lists\.few\.tally: Bands of/,
    );
  });

  it('a linked list may look at another list, in its conditions too', () => {
    const open: Table = { length: 1, columns: [textColumn('Name', ['North'])] };
    const condition = {
      kind: 'leaf',
      column: 'Stall',
      test: { test: 'listed', list: 'open', column: 'Name' },
    };
    const result = answered(
      stalls,
      {
        lists: {
          open: { file: 'open.csv' },
          mine: {
            tally: { kind: 'conditional', rows: [{ name: 'open', condition }], columns: [{}] },
          },
        },
        joins: [],
        tallies: [{ kind: 'ledger' }],
        also: [
          { of: 'mine', tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'c1' }] }] },
        ],
      },
      { open },
    );
    expect(result.also[0].tallies[0].tables[0].rows[0].cells.at(-1)).toBe(3);
  });

  it('a list that is named like the main one is the one that is meant', () => {
    const named: Table = {
      length: 2,
      columns: [textColumn('Stall', ['North', 'South']), scalarColumn('Rent', 'number', [7, 11])],
    };
    const keys: Table = { length: 2, columns: [textColumn('Stall', ['North', 'South'])] };
    // The main list is called Sailings here, and so is one of the others.
    const result = answered(
      stalls,
      {
        lists: { Sailings: { file: 'a' }, keys: { file: 'b' } },
        tallies: [{ kind: 'ledger' }],
        also: [
          {
            of: 'keys',
            joins: [{ list: 'Sailings', on: [{ column: 'Stall' }], bring: [{ column: 'Rent' }] }],
            tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'Rent' }] }],
          },
        ],
      },
      { Sailings: named, keys },
    );
    expect(result.also[0].tallies[0].tables[0].rows[0].cells.at(-1)).toBe(18);
  });

  it('one tally of a report is refused, not the report', async () => {
    const good = benchOn({
      kind: 'ledger',
      groups: [{ column: 'Stall' }],
      measures: [{ kind: 'sum', column: 'taken' }],
    });
    const bad = Tally.parse({
      kind: 'frequency',
      key: { column: 'taken', bands: { by: 'width', width: 0.01 } },
    });
    const doc: Bench = {
      ...good,
      formats: { taken: { ...plainFormat, style: 'currency', decimals: 2 } },
      report: { ...good.report, title: 'June', intro: 'All stalls.' },
      tray: [
        { ...good.tray[0], name: 'By stall', note: 'South opened late.' },
        { id: 'bad', tally: bad, view: newView(bad), note: '' },
      ],
    };
    const bench = opened(doc);
    const text = async (form: OutForm, values: Values = 'shown'): Promise<string> => {
      const { parts } = bench.ask('asked', { tallies: ['ledger', 'bad'], values, report: true });
      const { bytes } = await resultFile(fromParts(parts), form, Dialect.parse({ values }));
      return new TextDecoder().decode(bytes);
    };
    for (const form of ['md', 'html', 'csv'] as const) {
      const written = await text(form);
      for (const part of [
        'June',
        'All stalls.',
        'By stall',
        'South opened late.',
        '1,235.00',
        'Take wider ones',
      ])
        expect([form, written.includes(part), part]).toEqual([form, true, part]);
    }
    for (const part of ['June', 'South opened late.', 'Take wider ones', '-1235'])
      expect(await text('csv', 'full')).toContain(part);
  });

  it('a text that a cell of a workbook cannot hold is never cut', async () => {
    const long: Table = { length: 1, columns: [textColumn('Note', ['x'.repeat(32_768)])] };
    const records = { name: 'Notes', table: long, notes: [] };
    await expect(tableFile(records, 'xlsx')).rejects.toThrow(WriteRefused);
    await expect(tableFile(records, 'ods')).rejects.toThrow(
      /Row 1 of “Notes” has 32,768 characters in “Note”/,
    );
  });
});

describe('a bench made of an ask that names columns as people do', () => {
  it('has measures under their columns, running totals and formats', () => {
    const ask = readAsk({
      tallies: [
        {
          kind: 'ledger',
          groups: [{ column: 'Stall' }],
          measures: [
            { kind: 'sum', column: 'Taken' },
            { kind: 'running', column: 'taken' },
          ],
        },
      ],
      formats: { 'Taken:sum': { style: 'currency', decimals: 1 } },
    });
    const doc = benchOf(ask, 1);
    const down = { ...doc, tray: [{ ...doc.tray[0], view: { ...doc.tray[0].view, showDown: 2 } }] };
    const bench = new OpenBench(stalls, noRecipe, 'Stalls');
    const page = bench.show(down);
    const taken = page.heads.findIndex(
      ({ column, figure }) => column === 'taken' && figure === 'm1',
    );
    expect(taken).toBeGreaterThanOrEqual(0);
    expect(page.foot[2].cells[taken]).toBe('−£761.0');
    expect(bench.lines(0, 3)[2].cells[taken + 1]).toBe('271');
  });
});
