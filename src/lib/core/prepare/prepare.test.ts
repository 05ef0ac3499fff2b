import { Circle, PrepareRefused } from '../errors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullCell } from '../table/cell';
import { isMissing, scalarColumn, textColumn, type Column } from '../table/column';
import type { Table } from '../table/table';
import { finish } from '../task/task';
import * as joining from './join';
import { likeRun } from './likeRun';
import { inOrder, preparations } from './order';
import * as reshaping from './reshape';
import * as across from './rowMeasure';

const joinColumns = (...given: Parameters<typeof joining.joinColumns>) =>
  finish(joining.joinColumns(...given));
const acrossColumn = (...given: Parameters<typeof across.acrossColumn>) =>
  finish(across.acrossColumn(...given));
const stack = (...given: Parameters<typeof reshaping.stack>) => finish(reshaping.stack(...given));
const unstack = (...given: Parameters<typeof reshaping.unstack>) =>
  finish(reshaping.unstack(...given));

const cells = (column: Column): (string | null)[] =>
  Array.from(
    { length: column.type === 'text' ? column.codes.length : column.values.length },
    (_, i) => (isMissing(column, i) ? null : fullCell(column, i)),
  );
const facts = { id: 'x', name: 'x', unit: '' };

describe('measures across columns', () => {
  const table: Table = {
    length: 3,
    columns: [
      scalarColumn('a', 'number', [1, null, 5]),
      scalarColumn('b', 'number', [4, null, 5]),
      scalarColumn('c', 'number', [null, null, 2], { unread: new Map([[0, 'x']]) }),
    ],
  };
  const across = (measure: Parameters<typeof acrossColumn>[1]['measure']) =>
    cells(acrossColumn(table, { measure, columns: ['a', 'b', 'c'] }, facts));

  it.each([
    ['sum', ['5', '0', '12']],
    ['mean', ['2.5', null, '4']],
    ['median', ['2.5', null, '5']],
    ['min', ['1', null, '2']],
    ['max', ['4', null, '5']],
    ['range', ['3', null, '3']],
    ['second', ['1', null, '5']],
    ['lead', ['3', null, '0']],
    ['values', ['2', '0', '3']],
    ['blanks', ['1', '3', '0']],
    ['product', ['4', null, '50']],
    ['distinct', ['2', '0', '2']],
    ['sd', [String(Math.sqrt(4.5)), null, String(Math.sqrt(3))]],
    ['highestColumn', ['b', null, 'a']],
    ['lowestColumn', ['a', null, 'c']],
  ] as const)('%s', (measure, want) => expect(across(measure)).toEqual(want));
});

describe('the second highest of a record', () => {
  it('is the second of its values in order, whatever order they stand in, and the lead is over it', () => {
    const row = fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 2, maxLength: 6 });
    fc.assert(
      fc.property(row, (values) => {
        const columns = values.map((value, k) => scalarColumn(`c${k}`, 'number', [value]));
        const of = (measure: 'second' | 'lead') =>
          cells(
            acrossColumn(
              { length: 1, columns },
              { measure, columns: columns.map(({ id }) => id) },
              facts,
            ),
          )[0];
        const [first, second] = values.toSorted((a, b) => b - a);
        expect([of('second'), of('lead')]).toEqual([String(second), String(first - second)]);
      }),
    );
  });
});

describe('one thing spread over many columns', () => {
  const column = (id: string, type = 'number', unit = '', name = id) => ({ id, name, type, unit });
  const run = (columns: ReturnType<typeof column>[]): string => likeRun(columns).join('');
  it('is the longest run of numbers of one unit', () => {
    const four = [...'abcd'].map((id) => column(id));
    expect(run([column('day', 'date'), ...four])).toBe('abcd');
    expect(run(four.slice(1))).toBe('');
    expect(run([...four, column('x', 'text'), ...[...'efghi'].map((id) => column(id))])).toBe(
      'efghi',
    );
    expect(run([...four, ...[...'efgh'].map((id) => column(id, 'number', '£'))])).toBe('abcd');
    expect(run([])).toBe('');
  });

  it('never begins with the year', () => {
    const four = [...'abcd'].map((id) => column(id));
    expect(run([column('y', 'number', '', 'Fiscal year'), ...four])).toBe('abcd');
    expect(run([column('y', 'number', '', 'Yearling'), ...four])).toBe('yabcd');
  });
});

describe('joins', () => {
  const table: Table = {
    length: 4,
    columns: [textColumn('k', ['A', ' a', null, 'z']), scalarColumn('n', 'number', [1, 1, 1, 2])],
  };
  const other: Table = {
    length: 2,
    columns: [
      textColumn('key', ['a', 'b']),
      scalarColumn('m', 'number', [1, 1]),
      scalarColumn('v', 'number', [null, 5], { unread: new Map([[0, '14 mins']]) }),
      textColumn('t', ['tide', null]),
    ],
  };
  const on = [{ column: 'k', with: 'key' }];

  it('never adds or drops a record; case and outer spaces as chosen', () => {
    const loose = joinColumns(
      table,
      other,
      { list: 'o', on, bring: [{ column: 't' }], loose: true },
      String,
    );
    expect([cells(loose.columns[0]), loose.unmatched]).toEqual([['tide', 'tide', null, null], 2]);
    const exact = joinColumns(
      table,
      other,
      { list: 'o', on, bring: [{ column: 't' }], loose: false },
      String,
    );
    expect(exact.unmatched).toBe(4);
  });

  it('by several keys, and what is unread there is unread here', () => {
    const { columns, unmatched } = joinColumns(
      table,
      other,
      { list: 'o', on: [...on, { column: 'n', with: 'm' }], bring: [{ column: 'v' }], loose: true },
      String,
    );
    const [v] = columns;
    expect([unmatched, v.type !== 'text' && [...v.unread]]).toEqual([
      2,
      [
        [0, '14 mins'],
        [1, '14 mins'],
      ],
    ]);
  });

  it('refuses a measure of text', () => {
    const repeated: Table = {
      length: 2,
      columns: [textColumn('key', ['a', 'a']), textColumn('t', ['x', 'y'])],
    };
    expect(() =>
      joinColumns(
        table,
        repeated,
        { list: 'o', on, bring: [{ column: 't', repeated: 'sum' }], loose: true },
        String,
      ),
    ).toThrow(PrepareRefused);
  });
});

describe('stacking and back', () => {
  it('unstacking a stack gives the table again', () => {
    const value = fc.option(fc.integer({ min: 0, max: 9 }), { nil: null });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(value, value, value), { minLength: 1, maxLength: 12 }),
        (rows) => {
          const table: Table = {
            length: rows.length,
            columns: [
              scalarColumn(
                'id',
                'number',
                rows.map((_, i) => i),
              ),
              ...['a', 'b', 'c'].map((name, k) =>
                scalarColumn(
                  name,
                  'number',
                  rows.map((r) => r[k]),
                ),
              ),
            ],
          };
          const stacked = stack(table, {
            do: 'stack',
            columns: ['a', 'b', 'c'],
            name: 'which',
            value: 'v',
            dropBlanks: false,
          });
          expect(stacked.length).toBe(rows.length * 3);
          const back = unstack(stacked, { do: 'unstack', name: 'which', value: 'v' });
          expect(back.columns.map((c) => [c.name, cells(c)])).toEqual(
            table.columns.map((c) => [c.name, cells(c)]),
          );
        },
      ),
    );
  });

  it('blanks can be dropped; types must agree; two values in one place need a choice', () => {
    const table: Table = {
      length: 2,
      columns: [
        scalarColumn('a', 'number', [1, null]),
        textColumn('t', ['x', 'x']),
        scalarColumn('b', 'number', [2, 3]),
      ],
    };
    expect(
      stack(table, { do: 'stack', columns: ['a', 'b'], name: 'n', value: 'v', dropBlanks: true })
        .length,
    ).toBe(3);
    expect(() =>
      stack(table, { do: 'stack', columns: ['a', 't'], name: 'n', value: 'v', dropBlanks: false }),
    ).toThrow(/different types/);
    const twice: Table = {
      length: 2,
      columns: [textColumn('n', ['k', 'k']), scalarColumn('v', 'number', [1, 2])],
    };
    expect(() => unstack(twice, { do: 'unstack', name: 'n', value: 'v' })).toThrow(
      /Records 1 and 2/,
    );
    expect(
      cells(unstack(twice, { do: 'unstack', name: 'n', value: 'v', repeated: 'sum' }).columns[0]),
    ).toEqual(['3']);
  });
});

describe('the order of preparations', () => {
  const computed = (name: string, expression: string) => ({ name, unit: '', expression });

  it('each finds what it needs, joined columns too', () => {
    const all = preparations(
      [computed('c', 'b + joined'), computed('b', 'a * 2'), computed('key', 'UPPER(t)')],
      [{ list: 'o', on: [{ column: 'KEY' }], bring: [{ column: 'joined' }], loose: true }],
    );
    const made = inOrder(all, ['a', 't']).map((p) => p.makes[0]);
    expect(made.indexOf('key')).toBeLessThan(made.indexOf('joined'));
    expect(made.indexOf('joined')).toBeLessThan(made.indexOf('c'));
    expect(made.indexOf('b')).toBeLessThan(made.indexOf('c'));
  });

  it('a circle is named, a column that is its own maker too', () => {
    expect(() => inOrder(preparations([computed('a', 'b'), computed('b', 'a')], []), [])).toThrow(
      '“a” → “b” → “a”',
    );
    expect(() => inOrder(preparations([computed('a', 'a + 1')], []), [])).toThrow(Circle);
  });
});
