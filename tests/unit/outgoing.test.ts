import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { fromParts } from '$lib/core/ask/resultParts';
import { askOf } from '$lib/core/bench/askOf';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { BadArrow } from '$lib/core/errors';
import { finish } from '$lib/core/task/task';
import { tableOfChunks } from '$lib/core/table/arrowRead';
import { partsHandedOver } from '$lib/core/table/bytes';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { openEngine } from '$lib/engine/openEngine';
import { noRecipe } from '../support/smallList';

/** More groups than one part of an answer holds, blanks, and a cell that could not be read. */
const LENGTH = 7000;
const table: Table = {
  length: LENGTH,
  columns: [
    textColumn(
      'Ticket',
      Array.from({ length: LENGTH }, (_, k) => (k === 5 ? null : `T-${(k * 31) % 700}`)),
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: LENGTH }, (_, k) => (k % 97 === 0 ? null : (k % 1000) / 4)),
      { unit: '£', decimals: 2, unread: new Map([[97, 'n/a']]) },
    ),
    scalarColumn(
      'Day',
      'date',
      Array.from({ length: LENGTH }, (_, k) => 20_000 + (k % 400)),
      { grain: 'month' },
    ),
    scalarColumn(
      'Late',
      'yesno',
      Array.from({ length: LENGTH }, (_, k) => k % 2),
    ),
    ...Array.from({ length: 8 }, (_, c) =>
      scalarColumn(
        `Count ${c}`,
        'number',
        Array.from({ length: LENGTH }, (_, k) => k + c),
      ),
    ),
  ],
};
const specs = [
  {
    kind: 'ledger',
    groups: [{ column: 'Ticket' }],
    sort: [{ column: 'Fares', descending: true, blanks: 'last' }],
    measures: [{ kind: 'mean', column: 'Fares' }],
  },
  { kind: 'percentile', column: 'Fares', percentiles: [50, 90] },
].map((spec) => Tally.parse(spec));

const start = newBench(table, 1);
const bench = (change: Partial<Bench> = {}): Bench => ({
  ...start,
  tray: specs.map((tally, k) => ({ id: `t${k}`, tally, view: newView(tally), note: '' })),
  open: 't0',
  ...change,
});
const opened = () =>
  openEngine({ name: 'Tickets', table, recipe: noRecipe, others: new Map<string, Table>() });

describe('tallies on their way to a file', () => {
  it('are, once put together, what the ask of the bench comes to', () => {
    const engine = opened();
    const { token } = engine.now('resolve', { doc: bench() });
    const { parts } = engine.now('asked', {
      token,
      tallies: ['t0', 't1'],
      values: 'full',
      report: false,
    });
    // All but the rows, three stretches of 702 rows, and one of the other tally.
    expect(parts.length).toBeGreaterThan(4);
    const list = { name: 'Tickets', table, others: new Map<string, Table>() };
    const { result } = finish(answerAsk(list, askOf(bench())));
    expect(fromParts(parts)).toEqual(JSON.parse(JSON.stringify(result)));
    const [first] = fromParts(
      engine.now('asked', { token, tallies: ['t1'], values: 'full', report: false }).parts,
    ).tallies;
    expect(first.kind).toBe('percentile');
  });

  it('are refused where a part is missing', () => {
    const engine = opened();
    const { token } = engine.now('resolve', { doc: bench() });
    const { parts } = engine.now('asked', {
      token,
      tallies: ['t0'],
      values: 'full',
      report: false,
    });
    expect(() => fromParts(parts.slice(1))).toThrow();
    expect(() => fromParts([parts[0], parts[1].subarray(0, 20)])).toThrow(SyntaxError);
    const stranger = new TextEncoder().encode('{"tally":0,"table":0,"rows":[{"cells":[{}]}]}');
    expect(() => fromParts([parts[0], stranger])).toThrow();
  });
});

describe('counted records on their way to a file', () => {
  const taken = (doc: Bench): { table: Table; parts: number } => {
    const engine = opened();
    const { token } = engine.now('resolve', { doc });
    const { records, parts } = engine.now('countedRecords', { token });
    return { table: tableOfChunks(parts, records), parts: parts.length };
  };
  /** The cells of all columns at a record. */
  const record = ({ columns }: Table, i: number): unknown[] =>
    columns.map((c) =>
      c.type === 'text'
        ? (c.dictionary[c.codes[i]] ?? null)
        : (c.unread.get(i) ?? (Number.isNaN(c.values[i]) ? null : c.values[i])),
    );

  it('come with every cell, type and unit, in the order of the ledger', () => {
    const { table: out, parts } = taken(bench());
    expect(parts).toBeGreaterThan(2);
    expect(out.length).toBe(LENGTH);
    const facts = (t: Table): unknown[] =>
      t.columns.map((c) => [c.id, c.name, c.type, c.unit, c.type === 'text' ? '' : c.grain]);
    expect(facts(out)).toEqual(facts(table));
    const fares = (i: number): number => Number(record(table, i)[1]);
    const order = Array.from({ length: LENGTH }, (_, i) => i).sort((a, b) => {
      const [x, y] = [fares(a), fares(b)];
      const isMissing = (i: number): number => (i % 97 === 0 ? 1 : 0);
      return isMissing(a) - isMissing(b) || (isMissing(a) ? 0 : y - x) || a - b;
    });
    expect(Array.from({ length: LENGTH }, (_, i) => record(out, i))).toEqual(
      order.map((i) => record(table, i)),
    );
  });

  it('come in the order of the list where there is no ledger, without what does not count', () => {
    const { table: out } = taken(
      bench({
        ladder: { ...start.ladder, setAside: { records: [1, 3], values: [], kept: [] } },
        tray: bench().tray.slice(1),
        open: 't1',
      }),
    );
    expect(out.length).toBe(LENGTH - 2);
    expect([0, 1, 2].map((i) => record(out, i))).toEqual([1, 3, 4].map((i) => record(table, i)));
  });

  it('may be none, with their columns all the same', () => {
    const condition = {
      kind: 'leaf' as const,
      column: 'Fares',
      not: false,
      test: { test: 'compare' as const, op: 'lt' as const, value: 0 },
    };
    const rungs = [{ id: 'r', on: true, condition }];
    const { table: out } = taken(bench({ ladder: { ...start.ladder, rungs } }));
    expect([out.length, out.columns.length]).toEqual([0, table.columns.length]);
  });

  it('are refused where a part is missing', () => {
    const engine = opened();
    const { token } = engine.now('resolve', { doc: bench() });
    const { records, parts } = engine.now('countedRecords', { token });
    expect(() => tableOfChunks(parts.slice(1), records)).toThrow(BadArrow);
    expect(() => tableOfChunks([...parts, parts[0]], records)).toThrow(BadArrow);
  });
});

describe('what a message hands over', () => {
  it('is the memory of its parts, which the engine does not need again', () => {
    const engine = opened();
    const { token } = engine.now('resolve', { doc: bench() });
    const before = engine.now('lines', { token, tally: 't0', from: 0, count: 5 });
    for (const reply of [
      engine.now('countedRecords', { token }),
      engine.now('asked', { token, tallies: ['t0'], values: 'full', report: false }),
    ]) {
      const sizes = reply.parts.map(({ length }) => length);
      const buffers = partsHandedOver(reply);
      expect(buffers.length).toBe(reply.parts.length);
      const sent = structuredClone(reply, { transfer: buffers });
      expect(sent.parts.map(({ length }) => length)).toEqual(sizes);
      expect(reply.parts.every(({ length }) => length === 0)).toBe(true);
    }
    const again = opened();
    const { token: other } = again.now('resolve', { doc: bench() });
    expect(engine.now('lines', { token, tally: 't0', from: 0, count: 5 })).toEqual(before);
    expect(engine.now('facts', { token, column: 'Fares' })).toEqual(
      again.now('facts', { token: other, column: 'Fares' }),
    );
  });

  it('is nothing of what has no parts, or parts of another kind', () => {
    expect(partsHandedOver({ records: 3 })).toEqual([]);
    expect(partsHandedOver({ parts: ['a'] })).toEqual([]);
    expect(partsHandedOver(null)).toEqual([]);
  });

  it('is each memory once, where parts share it', () => {
    const memory = new Uint8Array(16);
    expect(partsHandedOver({ parts: [memory.subarray(0, 8), memory.subarray(8)] })).toEqual([
      memory.buffer,
    ]);
  });
});
