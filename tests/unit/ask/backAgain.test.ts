import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import { upgraded } from '$lib/core/ask/upgrade';
import { VERSION } from '$lib/core/ask/version';
import type { AskResult } from '$lib/core/ask/result';
import type { Condition } from '$lib/core/selection/condition';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { resultsAsDelimited } from '$lib/core/write/resultDelimited';
import { finish } from '$lib/core/task/task';
import { answered, behind, answeredOn } from '../../support/ask';
import { readText } from '../../support/demo';

/** With blanks, the word “blank”, and equal values. */
const list: Table = {
  length: 8,
  columns: [
    textColumn('Note', ['blank', null, 'x', 'y', 'blank', null, 'x', 'z']),
    scalarColumn('Year', 'number', [2022, 2022, 2023, NaN, 2023, 2024, 2024, 2024]),
    scalarColumn('Sum', 'number', [1, 2, 4, 8, 16, 32, 64, NaN]),
  ],
};

const KINDS = [
  { kind: 'ledger', groups: [{ column: 'Note' }, { column: 'Year' }], records: true },
  {
    kind: 'crosstab',
    down: [{ column: 'Note' }],
    across: [{ column: 'Year' }],
    measures: [{ kind: 'sum', column: 'Sum' }],
    few: 3,
  },
  { kind: 'ranking', groups: [{ column: 'Note' }], by: { kind: 'records' }, top: 1 },
  // Among the others of this one are the records without a note.
  {
    kind: 'ranking',
    groups: [{ column: 'Note' }],
    by: { kind: 'sum', column: 'Sum' },
    top: 1,
  },
  { kind: 'ranking', groups: [{ column: 'Year' }], by: { kind: 'records' }, top: 2 },
  { kind: 'ranking', by: { kind: 'sum', column: 'Sum' }, top: 3 },
  { kind: 'frequency', key: { column: 'Note' } },
  { kind: 'frequency', key: { column: 'Sum', bands: { by: 'width', width: 10 } } },
  {
    kind: 'conditional',
    rows: [{ name: 'much', condition: { kind: 'expression', expression: 'Sum > 5' } }],
    columns: [{}],
    everythingElse: true,
  },
  {
    kind: 'nested',
    inner: { kind: 'ledger', groups: [{ column: 'Note' }] },
    outer: { kind: 'ledger', groups: [{ column: 'Records' }] },
  },
];

const countedBy = (condition: Condition): number =>
  answered(list, { ladder: { rungs: [{ condition }] }, tallies: [{ kind: 'ledger' }] }).counts
    .counted;

describe('an answer put back', () => {
  it.each(KINDS.map((tally): [string, object] => [JSON.stringify(tally), tally]))(
    'each row of %s narrows, as a rung, to the very records it stands on',
    (_, tally) => {
      const { input, result } = answeredOn(list, { tallies: [tally] });
      const [answer] = result.tallies;
      const { columns, rows, labels } = answer.tables[0];
      const column = columns.findIndex((c, k) => k >= labels && !c.where && !c.reach);
      let tried = 0;
      rows.forEach((row, n) => {
        if (!row.where) return;
        const { records } = behind(input, answer, { table: 0, row: n, column });
        expect([row.cells, countedBy(row.where)]).toEqual([row.cells, records.length]);
        // The tally's own count of them is made another way; one over results counts groups.
        const own = columns.findIndex((c) => c.key === 'records' || c.key === 'count');
        if (own >= 0 && answer.kind !== 'nested')
          expect([row.cells, row.cells[own]]).toEqual([row.cells, records.length]);
        tried++;
      });
      expect(tried).toBeGreaterThan(0);
    },
  );

  it('records of a ranking are numbered from 1', () => {
    const [{ tables }] = answered(list, { tallies: [KINDS[5]] }).tallies;
    const [first] = tables[0].rows;
    expect(first.cells[1]).toBe(7);
    expect(first.where).toEqual({ kind: 'records', not: false, records: [7] });
  });

  it('goes without what was left out', () => {
    const of = (leaveOut: string[]): AskResult => answered(list, { leaveOut, tallies: [KINDS[1]] });
    const text = JSON.stringify(of([]));
    expect(text).toContain('"where"');
    expect(text).toContain('"marks"');
    const lean = JSON.stringify(of(['where', 'marks']));
    expect(lean).not.toContain('"where"');
    expect(lean).not.toContain('"marks"');
    expect(JSON.stringify(of(['marks']))).toContain('"where"');
  });
});

describe('the expression for a column', () => {
  const twice = 'expression: Sum * 2';
  const total = (ask: object): unknown =>
    answered(list, {
      ...ask,
      tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'Sum' }] }],
    }).tallies[0].tables[0].rows[0].cells.at(-1);

  it('in a condition of one column', () => {
    const condition = {
      kind: 'leaf',
      column: twice,
      test: { test: 'compare', op: 'gt', value: 40 },
    };
    expect(total({ ladder: { rungs: [{ condition }] } })).toBe(96);
  });

  it('where values are set aside', () => {
    const values = [{ column: twice, value: '8' }];
    expect(total({ ladder: { setAside: { values } } })).toBe(123);
  });

  it('in an order', () => {
    const { rows } = answered(list, {
      sort: [{ column: 'expression: -Sum' }],
      tallies: [{ kind: 'ledger', records: true }],
    }).tallies[0].tables[1];
    expect(rows.map((r) => r.cells[0])).toEqual([7, 6, 5, 4, 3, 2, 1, 8]);
  });

  it('in what is stacked, and in the list whose values are asked for', () => {
    expect(
      answered(list, {
        reshape: [{ do: 'stack', columns: ['Sum', twice] }],
        tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'Value' }] }],
      }).tallies[0].tables[0].rows[0].cells.at(-1),
    ).toBe(127 * 3);
    const other: Table = { length: 1, columns: [textColumn('Name', ['X'])] };
    const condition = {
      kind: 'leaf',
      column: 'Note',
      test: { test: 'listed', list: 'names', column: 'expression: LOWER(Name)', exact: true },
    };
    const result = answered(
      list,
      {
        lists: { names: {} },
        ladder: { rungs: [{ condition }] },
        tallies: [{ kind: 'ledger' }],
      },
      { names: other },
    );
    expect(result.counts.counted).toBe(2);
  });
});

describe('a cell put right', () => {
  const { recipe, reading } = readText('Route,Fares taken\nHolm,5\nNess,6\n');
  const total = (column: string): unknown => {
    const ask = readAsk({
      corrections: [{ record: 2, column, text: '9', was: '6' }],
      tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'Fares taken' }] }],
    });
    const list = { name: 'l', table: reading.table, recipe, others: new Map() };
    return finish(answerAsk(list, ask)).result.tallies[0].tables[0].rows[0].cells[1];
  };

  it('is found by the name of its column as by its id, whatever the case', () => {
    expect(['fares_taken', 'Fares taken', ' fares TAKEN'].map(total)).toEqual([14, 14, 14]);
  });

  it('is refused where its column is an expression', () => {
    expect(() => total('expression: "Fares taken"')).toThrow(/corrections\[0\]\.column: An expr/);
  });
});

describe('results for programs', () => {
  it('as delimited text have the values behind labels, and say what a row is', () => {
    const csv = (tally: object): string =>
      resultsAsDelimited(answered(list, { tallies: [tally] })).text;
    expect(csv(KINDS[4]).split('\r\n').slice(0, 5)).toEqual([
      'Place,Year,Records,count of records,Share,Cumulative share,row kind,row level,row label',
      '1,2024,3,3,0.375,0.375,group,0,2024',
      '2,2022,2,2,0.25,0.625,group,0,2022',
      '2,2023,2,2,0.25,0.875,group,0,2023',
      ',,1,1,0.125,,others,0,1 other',
    ]);
  });

  it('keep blank and the text “blank” apart in groups, across, and as columns', () => {
    const { tables } = answered(list, { tallies: [KINDS[0]] }).tallies[0];
    const keys = tables[0].rows.filter((r) => r.level === 1).map((r) => r.keys);
    expect(keys).toEqual(expect.arrayContaining([['blank'], [null]]));
    const across = {
      kind: 'crosstab',
      down: [{ column: 'Year' }],
      across: [{ column: 'Note' }],
      measures: [{ kind: 'records' }],
    };
    const { columns } = answered(list, { tallies: [across] }).tallies[0].tables[0];
    expect(columns.map((c) => c.keys)).toEqual(expect.arrayContaining([['blank'], [null], ['x']]));
    const wide = answered(list, {
      reshape: [{ do: 'unstack', name: 'Note', value: 'Sum', repeated: 'sum' }],
      tallies: [{ kind: 'ledger' }],
    }).list.columns.map((c) => c.name);
    expect(wide).toEqual(expect.arrayContaining(['blank', 'Note blank', 'x']));
  });
});

describe('asks of earlier versions', () => {
  const ask = { ladder: { setAside: { records: [0, 2] } }, tallies: [{ kind: 'ledger' }] };

  it('count records from 0, as they were meant', () => {
    for (const version of [1, 2])
      expect(readAsk({ version, ...ask }).ladder.setAside.records).toEqual([1, 3]);
    for (const version of [3, VERSION])
      expect(() => readAsk({ version, ...ask })).toThrow(/records\[0\]/);
  });

  it('an ask without a version that names records says how they were counted', () => {
    const of = (parts: object) =>
      answered(list, { ...parts, tallies: ask.tallies }).prepared.map((w) => w.code);
    const ladder = { setAside: { records: [1] } };
    expect(of({ ladder })).toEqual(['no-version']);
    expect(of({ ladder, version: VERSION })).toEqual([]);
    expect(of({})).toEqual([]);
  });

  it('hold frozen results whose words were named otherwise, all of them', () => {
    const sums = { kind: 'ledger', groups: [{ column: 'Note' }] };
    const now = answered(list, { tallies: [sums] }).tallies[0];
    const { footing: _, ...result } = JSON.parse(JSON.stringify(now)) as typeof now;
    const then: unknown = JSON.parse(JSON.stringify(result).replaceAll('"words":', '"says":'));
    expect(then).toHaveProperty('says', now.words);
    const ask = (of: unknown) => ({
      lists: { sums: { frozen: { on: '2026-11-01', from: 'Then', result: of } } },
      tallies: [{ kind: 'ledger' }],
    });
    for (const version of [{ version: 3 }, {}])
      expect(readAsk({ ...version, ...ask(then) }).lists).toEqual(readAsk(ask(result)).lists);
    expect(() => readAsk({ version: VERSION, ...ask(then) })).toThrow(/result\.words/);
  });

  it('have what a frozen row stands on turned into a condition', () => {
    const leaf = { kind: 'leaf', column: 'Note', not: false, test: { test: 'blank' } };
    const where = { condition: leaf, except: [{ records: [4] }] };
    expect(upgraded({ version: 2, rows: [{ where }] })).toEqual({
      version: VERSION,
      rows: [
        {
          where: {
            kind: 'all',
            not: false,
            parts: [
              leaf,
              { kind: 'none', not: false, parts: [{ kind: 'records', not: false, records: [5] }] },
            ],
          },
        },
      ],
    });
  });
});

describe('a key that means nothing', () => {
  it.each([
    [
      { kind: 'ranking', by: { kind: 'records' }, topp: 1 },
      /tallies\[0\]\.topp.*Did you mean “top”/,
    ],
    [
      { kind: 'ranking', by: { kind: 'records' }, key: 1 },
      /take one of (?!.*rows)(?!.*bands).*within/,
    ],
  ])('%o is told the keys of its own kind', (tally, words) => {
    expect(() => readAsk({ tallies: [tally] })).toThrow(words);
  });
});
