import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import {
  addRung,
  correctCells,
  setAsideRecords,
  setGroups,
  setMeasures,
  setShowDown,
} from '$lib/core/bench/edits';
import { recipeOfMade } from '$lib/core/bench/madeList';
import { newBench } from '$lib/core/bench/newBench';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { csvOf, recordsCsvOf } from '../support/handedOver';
import { OpenBench } from '../support/bench';

/** Eight sailings with a blank route, an unread delay and negative fares. */
const table: Table = {
  length: 8,
  columns: [
    textColumn('Route', ['Holm', 'Ness', 'Holm', null, 'Ness', 'Holm', 'Ness', 'holm']),
    textColumn('Vessel', ['Auk', 'Auk', 'Tern', 'Tern', 'Auk', 'Auk', 'Tern', 'Auk']),
    scalarColumn('Fares', 'number', [10.5, 20, 30.25, 40, -5, 60, 70, 80], {
      unit: '£',
      decimals: 2,
    }),
    scalarColumn('Delay', 'number', [1, null, 3, 4, null, 6, 7, 8], {
      unit: 'min',
      unread: new Map([[1, 'n/a']]),
    }),
    scalarColumn('Cancelled', 'yesno', [0, 0, 1, 0, null, 1, 0, 0]),
  ],
};
const key = (column: string) => ({
  column,
  loose: false,
  order: { by: 'label' as const, descending: false },
});
const grouped = setMeasures(setGroups(newBench(table, 1), [key('Route'), key('Vessel')]), [
  { kind: 'sum', column: 'Fares' },
]);
const open = (): OpenBench => new OpenBench(table, recipeOfMade(table), 'Sailings');
const shown = (doc: Bench): OpenBench => {
  const bench = open();
  bench.show(doc);
  return bench;
};

describe('where things stand on the ledger', () => {
  it('lines of groups are found by their keys, those of records by their number', () => {
    const bench = shown(setShowDown(grouped, 3));
    const lines = bench.lines(0, 100);
    const at = (line: number): string => lines[line].cells.join(' ').trim() || lines[line].label;
    const ness = bench.ask('locate', { keys: ['Ness'] }).line;
    expect(lines[ness]).toMatchObject({ kind: 'total', label: 'Ness' });
    const tern = bench.ask('locate', { keys: ['Ness', 'Tern'] }).line;
    expect(lines[tern]).toMatchObject({ kind: 'total', label: 'Tern' });
    // Totals stand under what they are of.
    expect(tern).toBe(ness - 1);
    expect(bench.ask('locate', { keys: [] }).line).toBe(-1);
    expect(() => bench.ask('locate', { keys: ['Skerry'] })).toThrow(/no such group/);
    expect(() => bench.ask('locate', { keys: ['Holm', 'Gannet'] })).toThrow(/no such group/);
    const record = bench.ask('locateRecord', { record: 6 }).line;
    expect(lines[record].kind).toBe('record');
    expect(at(record)).toContain('70');
    // A record that does not stand there has no line.
    const narrowed = shown(
      addRung(setShowDown(grouped, 3), {
        kind: 'leaf',
        column: 'Fares',
        not: false,
        test: { test: 'compare', op: 'lt', value: 50 },
      }),
    );
    expect(narrowed.ask('locateRecord', { record: 6 }).line).toBe(-1);
  });

  it('records on a stretch of lines are theirs alone', () => {
    const bench = shown(setShowDown(grouped, 3));
    const total = bench.lines(0, 100).length;
    const all = bench.ask('recordsOn', { from: 0, to: 1000 }).records;
    expect(all.toSorted((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    const line = bench.ask('locateRecord', { record: 2 }).line;
    expect(bench.ask('recordsOn', { from: line, to: line }).records).toEqual([2]);
    expect(bench.ask('recordsOn', { from: total, to: total + 9 }).records).toEqual([]);
  });

  it('labels of a level come in the order shown, each once', () => {
    const bench = shown(grouped);
    expect(bench.ask('labels', { level: 0 })).toEqual({
      labels: ['holm', 'Holm', 'Ness', 'blank'],
      more: 0,
    });
    expect(bench.ask('labels', { level: 1 })).toEqual({ labels: ['Auk', 'Tern'], more: 0 });
    expect(bench.ask('labels', { level: 2 })).toEqual({ labels: [], more: 0 });
  });

  it('labels of very many groups come as far as one answer may weigh, those put first among them', () => {
    const many = 30_000;
    const tickets = Array.from({ length: many }, (_, k) => `Ticket ${String(k).padStart(6, '0')}`);
    const list: Table = { length: many, columns: [textColumn('Ticket', tickets)] };
    const order = { by: 'hand' as const, labels: [tickets[29_000], tickets[7]] };
    const bench = new OpenBench(list, recipeOfMade(list), 'Tickets');
    bench.show(setGroups(newBench(list, 1), [{ ...key('Ticket'), order }]));
    const found = bench.ask('labels', { level: 0 });
    expect(JSON.stringify(found).length).toBeLessThan(200_000);
    expect(found.labels.slice(0, 3)).toEqual([tickets[29_000], tickets[7], tickets[0]]);
    expect(found.labels.length).toBeGreaterThan(5000);
    expect(found.more).toBe(many - found.labels.length);
  });

  it('labels that look the same are told of, and how many', () => {
    const page = open().show(grouped);
    expect(page.loose).toEqual([{ key: 0, merges: 1 }]);
    const loose = setGroups(grouped, [{ ...key('Route'), loose: true }]);
    expect(open().show(loose).loose).toEqual([]);
  });

  it('heads draw how each column falls, over what counts', () => {
    const heads = shown(setAsideRecords(setGroups(grouped, []), [3])).ask('heads', { from: 0 });
    const yesNo = heads.flatMap((head) =>
      head.kind === 'values' && head.items.some(({ text }) => text === 'yes') ? [head.items] : [],
    );
    expect(yesNo.map((items) => items.map(({ text, count }) => [text, count]))).toEqual([
      [
        ['yes', 1],
        ['no', 5],
      ],
    ]);
    const bins = heads.filter((head) => head.kind === 'bins');
    expect(bins.length).toBe(2);
    for (const head of bins)
      if (head.kind === 'bins')
        expect(head.counts.reduce((sum, n) => sum + n, head.under + head.over)).toBeGreaterThan(4);
  });
});

describe('a step before it is taken', () => {
  const tried = (doc: Bench, at: number, value: number) =>
    shown(doc).ask('try', {
      at,
      condition: {
        kind: 'leaf',
        column: 'Delay',
        not: false,
        test: { test: 'compare', op: 'ge', value },
      },
    });

  it('says what it would keep and take out, and what of that is blank or unread', () => {
    expect(tried(grouped, 0, 4)).toEqual({
      kept: 4,
      removed: 4,
      blank: 1,
      unread: 1,
      words: 'Delay is at least 4',
    });
  });

  it('at its place among those above it alone', () => {
    const narrowed = addRung(grouped, {
      kind: 'leaf',
      column: 'Route',
      not: false,
      test: { test: 'is', values: ['Holm'], exact: true },
    });
    expect(tried(narrowed, 0, 4)).toMatchObject({ kept: 4, removed: 4 });
    expect(tried(narrowed, 1, 4)).toMatchObject({ kept: 1, removed: 2, blank: 0, unread: 0 });
  });
});

describe('what is handed over of a ledger', () => {
  const rowsOf = (text: string, by: string): string[][] =>
    text
      .trimEnd()
      .split(/\r?\n/)
      .map((line) => line.split(by));

  it('is the groups as they are shown, a column for each level, and the grand total', () => {
    const { text, html, rows } = shown(grouped).ask('copy', { values: 'shown' });
    const [head, ...lines] = rowsOf(text, '\t');
    expect(head.slice(0, 2)).toEqual(['Route', 'Vessel']);
    const fares = head.indexOf('sum of Fares (£)');
    const records = head.indexOf('Records');
    expect(lines.map((line) => [line[0], line[1], line[records], line[fares]])).toEqual([
      // Each group’s total stands under it.
      ['holm', 'Auk', '1', '80.00'],
      ['holm', '', '1', '80.00'],
      ['Holm', 'Auk', '2', '70.50'],
      ['Holm', 'Tern', '1', '30.25'],
      ['Holm', '', '3', '100.75'],
      ['Ness', 'Auk', '2', '15.00'],
      ['Ness', 'Tern', '1', '70.00'],
      ['Ness', '', '3', '85.00'],
      ['blank', 'Tern', '1', '40.00'],
      ['blank', '', '1', '40.00'],
      ['Grand total', '', '8', '305.75'],
    ]);
    expect(rows).toBe(11);
    expect(html).toContain('<table');
    expect(html.match(/<tr/g)).toHaveLength(12);
  });

  it('has records without those set aside, with their own cells', () => {
    const doc = setAsideRecords(setShowDown(setGroups(grouped, [key('Route')]), 2), [1]);
    const { text } = shown(doc).ask('copy', { values: 'full' });
    const [head, ...lines] = rowsOf(text, '\t');
    const delay = head.findIndex((name) => name.startsWith('Delay'));
    const ofNess = lines.filter(([route]) => route === 'Ness');
    // Its three records, one unread and one blank, and the group under them.
    expect(ofNess.map((line) => line[delay])).toEqual(['n/a', '', '7', '']);
    expect(lines.filter(([route]) => route === 'Holm')).toHaveLength(3);
  });

  it('writes negative numbers as numbers, and texts that a program would run as texts', () => {
    const text = csvOf(shown(setShowDown(setGroups(grouped, [key('Route')]), 2)), 'shown');
    expect(text).toContain('-5.00');
    expect(text).not.toContain('−');
    const risky: Table = { length: 1, columns: [textColumn('Note', ['=1+1'])] };
    const bench = new OpenBench(risky, recipeOfMade(risky), 'Notes');
    bench.show(newBench(risky, 1));
    const out = recordsCsvOf(bench);
    expect(out.guarded).toBe(1);
    expect(out.text).not.toMatch(/^=1/m);
  });

  it('has every column of the counted records, corrections included', () => {
    const doc = correctCells(setAsideRecords(grouped, [7]), [
      {
        record: 2,
        column: 'Delay',
        text: '25',
        was: 'n/a',
      },
    ]);
    const { text, rows } = recordsCsvOf(shown(doc));
    const [head, ...lines] = rowsOf(text, ',');
    expect(head).toEqual(['Route', 'Vessel', 'Fares (£)', 'Delay (min)', 'Cancelled']);
    expect([rows, lines.length]).toEqual([7, 7]);
    expect(lines[1]).toEqual(['Ness', 'Auk', '20', '25', 'no']);
    expect(lines[4]).toEqual(['Ness', 'Auk', '-5', '', '']);
  });
});

describe('what a column is used by', () => {
  it('is told in words, before it is taken away', () => {
    const uses = shown(grouped).ask('uses', { column: 'Route' });
    expect(uses.length).toBeGreaterThan(0);
    expect(shown(setGroups(grouped, [])).ask('uses', { column: 'Route' })).toEqual([]);
  });
});
