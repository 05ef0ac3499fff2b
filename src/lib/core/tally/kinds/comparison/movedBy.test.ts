import { describe, expect, it } from 'vitest';
import type { Measure } from '../../../measure/measure';
import { finish } from '../../../task/task';
import { scalarColumn, textColumn } from '../../../table/column';
import type { Table } from '../../../table/table';
import { recordsMoved, type MovedBy } from './movedBy';
import type { Mover } from './movers';

const reading = (fares: readonly (number | null)[]): Table => ({
  length: fares.length,
  columns: [
    textColumn(
      'Ticket',
      fares.map((_, k) => `T${k}`),
    ),
    scalarColumn('Fares', 'number', fares),
  ],
});
const older = reading([10, 20, 30, 5, null]);
const newer = reading([10, 28, 27, 100, 4]);

/** Records that stand in the figure of both readings unless said otherwise. */
const both = (record: number): Mover => ({ now: record, then: record, isIn: true, wasIn: true });
const movers: Mover[] = [
  both(1),
  both(2),
  { now: 3, then: -1, isIn: true, wasIn: false },
  { now: -1, then: 3, isIn: false, wasIn: true },
  both(4),
];
const of = (measure: Measure | undefined, some = movers): MovedBy => ({
  before: 0,
  after: 0,
  difference: 0,
  measure,
  newer,
  older,
  here: true,
  match: ['Ticket'],
  movers: some,
});

describe('records that moved a figure', () => {
  it('by what each adds, those that moved it most first', () => {
    const found = finish(recordsMoved(of({ kind: 'sum', column: 'Fares' })));
    expect(found.map(({ before, after, by }) => [before, after, by])).toEqual([
      [null, 100, 100],
      [20, 28, 8],
      [5, null, -5],
      [null, 4, 4],
      [30, 27, -3],
    ]);
  });

  it('where the figure does not add up, by how far the value moved', () => {
    const found = finish(recordsMoved(of({ kind: 'mean', column: 'Fares' })));
    expect(found.map(({ before, after, by }) => [before, after, by])).toEqual([
      [null, 100, null],
      [20, 28, null],
      [5, null, null],
      [null, 4, null],
      [30, 27, null],
    ]);
  });

  it('a count is moved by one for each that came or went, in the order they stand', () => {
    const found = finish(recordsMoved(of({ kind: 'records' })));
    expect(found.map(({ now, then, by }) => [now, then, by])).toEqual([
      [3, -1, 1],
      [-1, 3, -1],
      [1, 1, 0],
      [2, 2, 0],
      [4, 4, 0],
    ]);
  });

  it('very many are weighed with pauses, and none is lost', () => {
    const many = Array.from({ length: 50_000 }, (_, k) => both(k % 5));
    const steps = recordsMoved(of({ kind: 'sum', column: 'Fares' }, many));
    let pauses = 0;
    let step = steps.next();
    for (; !step.done; step = steps.next()) pauses++;
    expect(pauses).toBeGreaterThan(20);
    const sizes = step.value.map(({ by }) => Math.abs(by ?? 0));
    expect(sizes).toHaveLength(50_000);
    expect(sizes).toEqual(sizes.toSorted((a, b) => b - a));
  });
});
