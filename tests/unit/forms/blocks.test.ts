import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOf, blockWords } from '$lib/core/read/decode/blocks';
import type { CellGrid, GridCell } from '$lib/core/read/decode/cellGrid';
import { joinHeadLines } from '$lib/core/read/decode/headLines';

const cell = (v: string | number | null): GridCell =>
  v === null
    ? { kind: 'blank', text: '' }
    : typeof v === 'number'
      ? { kind: 'number', text: String(v) }
      : { kind: 'text', text: v };
const gridOf = (rows: readonly (readonly (string | number | null)[])[]): GridCell[][] =>
  rows.map((row) => row.map(cell));
/** Blocks as `top-bottom, left-right`, from 1. */
const found = (rows: Parameters<typeof gridOf>[0]): string[] =>
  blocksOf(gridOf(rows)).map((b) => `${b.top + 1}-${b.bottom}, ${b.left + 1}-${b.right}`);

describe('the tables of a sheet', () => {
  it('one is one, with its title, its empty line and its note', () => {
    expect(
      found([
        ['Keld Sound Ferries'],
        [],
        ['Route', 'Fares'],
        ['Holm', 10],
        [null, null],
        ['Ness', 3],
        [],
        ['Provisional figures.'],
      ]),
    ).toEqual(['1-8, 1-2']);
    expect(found([[], [null]])).toEqual([]);
  });

  it('two side by side, of other lengths', () => {
    const rows = [
      ['Route', 'Fares', null, 'Port', 'Piers'],
      ['Holm', 10, null, 'Holm', 3],
      ['Ness', 3, null, null, null],
    ];
    expect(found(rows)).toEqual(['1-3, 1-2', '1-2, 4-5']);
    expect(blockWords(gridOf(rows), blocksOf(gridOf(rows))[1])).toBe(
      'rows 1 to 2, columns 4 to 5: Port, Piers',
    );
    // Under one title across the top they are two all the same.
    expect(found([['All of them'], ...rows])).toEqual(['2-4, 1-2', '2-3, 4-5']);
  });

  it('an empty column within a table parts nothing', () => {
    expect(
      found([
        ['Route', 'Vessel', null, 'Jan', 'Feb'],
        ['Holm', 'Auk', null, 1, 2],
        ['Ness', 'Tern', null, 3, 4],
      ]),
    ).toEqual(['1-3, 1-5']);
  });

  it('two below one another, where the lower has heads of its own', () => {
    const upper = [
      ['Route', 'Fares'],
      ['Holm', 10],
    ];
    expect(found([...upper, [], ['Port', 'Piers'], ['Ness', 2]])).toEqual(['1-2, 1-2', '4-5, 1-2']);
    // Records go on behind an empty line, and behind the same heads again.
    expect(found([...upper, [], ['Ness', 3], ['Skerry', 4]])).toEqual(['1-5, 1-2']);
    expect(found([...upper, [], ...upper])).toEqual(['1-5, 1-2']);
  });

  it('lose no cell and take none twice, whatever stands on the sheet', () => {
    const value = fc.option(fc.oneof(fc.constantFrom('a', 'b'), fc.integer({ min: 0, max: 9 })), {
      nil: null,
      freq: 2,
    });
    const sheet = fc.array(fc.array(value, { maxLength: 9 }), { maxLength: 14 });
    fc.assert(
      fc.property(sheet, (rows) => {
        const grid: CellGrid = gridOf(rows);
        const taken = new Map<string, number>();
        for (const { top, bottom, left, right } of blocksOf(grid))
          for (let r = top; r < bottom; r++)
            for (let c = left; c < right; c++)
              taken.set(`${r} ${c}`, (taken.get(`${r} ${c}`) ?? 0) + 1);
        expect([...taken.values()].every((times) => times === 1)).toBe(true);
        rows.forEach((row, r) =>
          row.forEach((v, c) => {
            if (v !== null && blocksOf(grid).length === 1)
              expect(taken.has(`${r} ${c}`)).toBe(true);
          }),
        );
      }),
      { numRuns: 400 },
    );
  });
});

describe('heads over two lines', () => {
  const merged = (r: number, from: number, to: number) => ({ s: { r, c: from }, e: { r, c: to } });

  it('are read as one, those over both lines once', () => {
    const rows = gridOf([
      ['Fares by month'],
      ['Route', 2024, null, 2025, null],
      ['Route', 'Jan', 'Feb', 'Jan', 'Feb'],
      ['Holm', 1, 2, 3, 4],
    ]);
    const { doubts, merged: heads } = joinHeadLines(rows, [merged(1, 1, 2), merged(1, 3, 4)]);
    expect(heads).toBe(2);
    expect(rows).toHaveLength(3);
    expect(rows[1].map(({ text }) => text)).toEqual([
      'Route',
      '2024 Jan',
      '2024 Feb',
      '2025 Jan',
      '2025 Feb',
    ]);
    expect(doubts.map(({ kind, words }) => [kind, words])).toEqual([
      ['headLines', 'Heads stand over two lines; they are read as one: “2024 Jan”.'],
    ]);
  });

  it('a title over the whole table is none, nor is what stands over figures', () => {
    for (const rows of [
      [
        ['All fares', null],
        ['Route', 'Fares'],
        ['Holm', 1],
      ],
      [
        ['Route', 'Fares', null],
        ['Holm', 1, 2],
        ['Ness', 3, 4],
      ],
    ]) {
      const grid = gridOf(rows);
      const across = rows[0][0] === 'All fares' ? merged(0, 0, 1) : merged(0, 1, 2);
      expect(joinHeadLines(grid, [across])).toEqual({ doubts: [], merged: 0 });
      expect(grid).toEqual(gridOf(rows));
    }
  });
});
