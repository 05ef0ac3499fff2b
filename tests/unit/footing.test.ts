import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import type { Answer, AnswerTable } from '$lib/core/tally/answer/answer';
import { checkFooting } from '$lib/core/tally/trust/checkFooting';
import { answeredOn } from '../support/ask';
import { ledger, small } from '../support/smallList';

const sum = [{ kind: 'sum', column: 'Sum' }];
const kinds: [string, object, string][] = [
  ['a ledger', ledger(), 'm1'],
  [
    'a cross-tab',
    {
      kind: 'crosstab',
      down: [{ column: 'Region' }],
      across: [{ column: 'Depot' }],
      measures: sum,
    },
    'all.m1',
  ],
  ['bands', { kind: 'frequency', key: { column: 'Depot' }, measures: sum }, 'm1'],
  ['periods', { kind: 'periods', column: 'Day', levels: ['year', 'month'], measures: sum }, 'm1'],
  ['a ranking', { kind: 'ranking', groups: [{ column: 'Depot' }], by: sum[0], top: 2 }, 'm1'],
  [
    'conditional figures',
    {
      kind: 'conditional',
      rows: [{ name: 'much', condition: { kind: 'expression', expression: 'Sum > 8' } }],
      everythingElse: true,
      columns: [{ measure: sum[0] }],
    },
    'c1',
  ],
];

/** The answer with one figure made wrong by so much. */
const spoilt = (answer: Answer, row: number, key: string, by: number): Answer => {
  const [main, ...others] = answer.tables;
  const at = main.columns.findIndex((c) => c.key === key);
  const wrong: AnswerTable = {
    ...main,
    number: (n, c) => main.number(n, c) + (n === row && c === at ? by : 0),
  };
  return { ...answer, tables: [wrong, ...others] };
};

describe('a table that does not foot says where', () => {
  it.each(kinds)('%s', (_, tally, key) => {
    const { answers } = answeredOn(small, { tallies: [tally] });
    const [{ answer, input }] = answers;
    const right = finish(checkFooting(input, answer));
    expect(right).toMatchObject({ foots: true, failure: null });
    expect(right.compared).toBeGreaterThan(0);
    const row = answer.tables[0].length - 1;
    const found = finish(checkFooting(input, spoilt(answer, row, key, 3)));
    expect(found.foots).toBe(false);
    expect(Math.abs(found.failure?.difference ?? 0)).toBe(3);
    expect(found.failure?.table).toBe('main');
    expect(found.words).toMatch(/^Does not foot: the parts of .* come to 3 (more|less) than it\.$/);
  });

  it('compares counts too, and a mean by computing it anew', () => {
    const { answers } = answeredOn(small, {
      tallies: [ledger({ measures: [{ kind: 'mean', column: 'Sum' }] })],
    });
    const [{ answer, input }] = answers;
    expect(finish(checkFooting(input, spoilt(answer, 1, 'records', 1))).failure).toMatchObject({
      title: 'Records',
      difference: 1,
    });
    const [main] = answer.tables;
    const wrong: AnswerTable = {
      ...main,
      row: (n) => {
        const row = main.row(n);
        return n === 0 ? { ...row, cells: [...row.cells.slice(0, -1), 99] } : row;
      },
    };
    expect(finish(checkFooting(input, { ...answer, tables: [wrong] })).failure).toMatchObject({
      row: 0,
    });
  });

  it('says nothing of footing where nothing was compared', () => {
    const { answers } = answeredOn(small, { tallies: [{ kind: 'percentile', column: 'Sum' }] });
    const [{ answer, input }] = answers;
    expect(finish(checkFooting(input, answer))).toMatchObject({
      compared: 0,
      words: 'Nothing here adds up, so nothing was compared.',
    });
  });
});
