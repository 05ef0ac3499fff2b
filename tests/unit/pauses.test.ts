import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { compareText } from '$lib/core/table/collate';
import { textColumn, type ScalarColumn } from '$lib/core/table/column';
import { Tally } from '$lib/core/tally/spec/specs';
import { openEngine } from '$lib/engine/openEngine';
import type { ArgsOf, Do, ReplyOf } from '$lib/engine/protocol';
import { noRecipe } from '../support/smallList';

/** A list in which every record has a text of its own: what is done for each text is much work. */
const LENGTH = 60_000;
const ticket = textColumn(
  'Ticket',
  Array.from({ length: LENGTH }, (_, k) => `T-${((k * 7919) % LENGTH).toString(36)}`),
);
const fares: ScalarColumn = {
  id: 'fares',
  name: 'Fares',
  unit: '£',
  type: 'number',
  values: Float64Array.from({ length: LENGTH }, (_, k) => ((k * 7919) % 10_007) / 100),
  unread: new Map(),
  decimals: 2,
  percent: false,
  grain: 'day',
};
const table = { length: LENGTH, columns: [{ ...ticket, id: 'ticket' }, fares] };

const specs = [
  {
    kind: 'ledger',
    sort: [{ column: 'ticket', descending: false, blanks: 'last' }],
    measures: [{ kind: 'sum', column: 'fares' }],
  },
  { kind: 'ledger', groups: [{ column: 'ticket' }], measures: [{ kind: 'sum', column: 'fares' }] },
  { kind: 'ranking', groups: [{ column: 'ticket' }], by: { kind: 'sum', column: 'fares' } },
].map((spec) => Tally.parse(spec));

/** The same list as it was read before: each record with a fare of its own, some of them others now. */
const older = {
  length: LENGTH,
  columns: [
    table.columns[0],
    { ...fares, values: fares.values.map((fare, k) => (k % 100 === 0 ? fare + 1 : fare)) },
  ],
};

describe('the engine pauses', () => {
  const start = newBench(table, 1);
  const doc: Bench = {
    ...start,
    tray: specs.map((tally, k) => ({ id: `t${k}`, tally, view: newView(tally), note: '' })),
    open: 't0',
  };
  const engine = openEngine({ name: 'Tickets', table, recipe: noRecipe, others: new Map() });

  function driven<K extends Do>(kind: K, args: ArgsOf<K>): { reply: ReplyOf<K>; pauses: number } {
    const steps = engine.answer(kind, args);
    for (let pauses = 0; ; pauses++) {
      const step = steps.next();
      if (step.done) return { reply: step.value, pauses };
    }
  }
  const { token } = driven('resolve', { doc }).reply;

  it('while texts are put in order, and not again once they are', () => {
    expect(driven('facts', { token, column: 'ticket' }).pauses).toBeGreaterThan(60);
    expect(driven('ledger', { token, tally: 't0' }).pauses).toBeGreaterThan(10);
  });

  it('while texts that look the same are looked for', () => {
    const first = driven('values', { token, column: 'ticket', search: 't-1', limit: 5 });
    expect(first.pauses).toBeGreaterThan(20);
    // Equally common ones: the first of the list that hold it, put in order.
    const holding = ticket.dictionary.filter((text) => text.startsWith('T-1')).slice(0, 5);
    expect(first.reply.items.map(({ text }) => text)).toEqual(holding.toSorted(compareText));
  });

  it('while what is shown becomes text, and is made ready for a file', () => {
    const copied = driven('copy', { token, tally: 't1', values: 'shown' });
    expect(copied.pauses).toBeGreaterThan(40);
    expect(copied.reply.rows).toBe(LENGTH + 1);
    const lines = copied.reply.text.split('\r\n');
    expect(lines).toHaveLength(LENGTH + 3);
    expect(lines.slice(0, 2)).toEqual(['Ticket\tRecords\tsum of Fares (£)', 'T-0\t1\t0.00']);
    const asked = { token, tallies: ['t1'], values: 'shown', report: false } as const;
    expect(driven('asked', asked).pauses).toBeGreaterThan(250);
  });

  it('while the rows of many groups are put in order for the eye', () => {
    const view = { down: 99, turned: [], sort: { column: 'ticket', descending: true } };
    driven('answer', { token, tally: 't2' });
    const rows = driven('rows', {
      token,
      tally: 't2',
      table: 'main',
      across: 0,
      from: 0,
      count: 3,
      view,
    });
    expect(rows.pauses).toBeGreaterThan(10);
  });

  it('while records and what tallies come to are made ready for a file', () => {
    expect(driven('countedRecords', { token }).pauses).toBeGreaterThan(12);
    // A part for each stretch of rows, and the rows themselves.
    expect(
      driven('asked', { token, tallies: ['t1'], values: 'full', report: false }).pauses,
    ).toBeGreaterThan(250);
  });

  it('while what would explain a difference is looked for', () => {
    const place = { tally: 't0', table: 'main', row: [], column: 'm1' };
    driven('behind', { place, token });
    // Twice the fare of a record too little: its sign may be turned.
    const total = fares.values.reduce((sum, fare) => sum + fare, 0);
    const { reply, pauses } = driven('check', { place, token, known: total - 2 * 99.99 });
    expect(reply.explanations.map(({ words }) => words).join()).toContain('A sign may be turned');
    // The totals inside the list, four looks for single records, one for a pair, one for blanks.
    expect(pauses).toBeGreaterThan(30);
  });

  it('while records are set aside by what they hold, in texts and in numbers', () => {
    const before = driven('resolve', { doc }).pauses;
    const values = [
      { column: 'ticket', value: 'T-1' },
      { column: 'fares', value: '0.01' },
    ];
    const setAside = { ...doc.ladder.setAside, values };
    const { reply, pauses } = driven('resolve', {
      doc: { ...doc, ladder: { ...doc.ladder, setAside } },
    });
    const held = fares.values.filter((fare, k) => fare === 0.01 || ticket.codes[k] === 1);
    expect(reply.setAside.records).toBe(held.length);
    expect(pauses).toBeGreaterThanOrEqual(before + 8);
  });

  it('while expressions that a tally or a sort names are computed', () => {
    const measure = (column: string) => ({ kind: 'sum', column });
    const tallied = (column: string) =>
      driven('resolve', {
        doc: {
          ...doc,
          tray: [
            {
              ...doc.tray[0],
              tally: Tally.parse({ kind: 'ledger', measures: [measure(column)] }),
            },
          ],
        },
      }).reply.token;
    const plain = driven('answer', { token: tallied('fares'), tally: 't0' });
    const computed = driven('answer', { token: tallied('expression: fares * 2 + 1'), tally: 't0' });
    expect(computed.pauses).toBeGreaterThan(plain.pauses);
    // Those that were computed stay at hand.
    const again = driven('answer', { token: tallied('expression: fares * 2 + 1'), tally: 't0' });
    expect(again.pauses).toBeLessThan(computed.pauses);
  });

  it('while two readings are matched and what moved a figure is traced', () => {
    const others = new Map([['before', older]]);
    const own = openEngine({ name: 'Tickets', table, recipe: noRecipe, others });
    const tally = Tally.parse({
      kind: 'comparison',
      with: 'before',
      match: ['ticket'],
      tally: { kind: 'ledger', measures: [{ kind: 'sum', column: 'fares' }] },
    });
    const stood = own.now('resolve', {
      doc: { ...doc, tray: [{ ...doc.tray[0], tally, view: newView(tally) }] },
    });
    const steps = own.answer('answer', { token: stood.token, tally: 't0' });
    let pauses = 0;
    for (let step = steps.next(); !step.done; step = steps.next()) pauses++;
    expect(pauses).toBeGreaterThan(60);
    const view = { down: 99, turned: [] };
    const place = {
      token: stood.token,
      tally: 't0',
      table: 'main',
      across: 0,
      from: 0,
      count: 1,
      view,
    };
    const [{ figures }] = own.now('rows', place).rows;
    // One pound less in every hundredth record.
    expect(figures[4]).toBeCloseTo(-600, 6);
  });
});
