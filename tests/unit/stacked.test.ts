import { describe, expect, it } from 'vitest';
import { setAsideRecords } from '$lib/core/bench/edits';
import { moveBench } from '$lib/core/bench/move';
import { newBench } from '$lib/core/bench/newBench';
import { finish } from '$lib/core/task/task';
import { notOwn } from '$lib/core/bench/ownCells';

import { OpenBench } from '../support/bench';
import { stackedBench } from '../support/stackedBench';
import { readText } from '../support/demo';

const { recipe, reading } = readText('day,A,B\n2025-01-01,1,2\n2025-01-02,3,\n2025-01-03,5,6\n');
const { table } = reading;
const stack = (dropBlanks = false) => ({
  do: 'stack' as const,
  columns: ['a', 'b'],
  name: 'Kiosk',
  value: 'Sold',
  dropBlanks,
});

describe('a bench of stacked records', () => {
  it('has a record for each record and column, grouped, summed, and footing', () => {
    const doc = stackedBench(newBench(table, 1), stack(), true);
    const overview = new OpenBench(table, recipe, 'Kiosks').show(doc);
    expect(overview.faults).toEqual([]);
    expect(overview.all.records).toBe(6);
    expect(overview.columns.map((c) => c.name)).toEqual(['day', 'Kiosk', 'Sold']);
    expect(overview.counted.lead).toBe('17');
    expect(overview.footing).toMatchObject({ foots: true });
    const without = stackedBench(newBench(table, 1), stack(true), true);
    expect(new OpenBench(table, recipe, 'Kiosks').show(without).all.records).toBe(5);
  });

  it('what is set aside in it is found again in another reading, among its own records', () => {
    // Record 4 is B of the second day, record 5 A of the third.
    const doc = setAsideRecords(stackedBench(newBench(table, 1), stack(), true), [4, 5]);
    const later = readText('day,A,B\n2025-01-03,5,6\n2025-01-01,1,2\n').reading.table;
    const moved = finish(moveBench(doc, table, later, 2));
    expect(moved.doc.ladder.setAside.records).toEqual([1]);
    expect(moved.lost).toBe(1);
  });

  it('says where its cells are put right, and so do made columns', () => {
    const doc = newBench(table, 1);
    expect(notOwn(doc, 'a')).toBe('');
    expect(notOwn(stackedBench(doc, stack(), true), 'Sold')).toContain('stacked from the list');
    const made = { ...doc, computed: [{ name: 'x', unit: '', expression: 'a + b' }] };
    expect(notOwn(made, 'x')).toContain('This column is made');
  });

  it('corrections of the list come along, and those after do not touch other records', () => {
    const corrections = [{ record: 2, column: 'b', text: '9', was: '' }];
    const doc = stackedBench({ ...newBench(table, 1), corrections }, stack(), true);
    const bench = new OpenBench(table, recipe, 'Kiosks');
    expect(bench.show(doc).counted.lead).toBe('26');
    const cells = bench.ask('recordCells', { record: 1 });
    expect(cells.map((c) => c.state)).not.toContain('corrected');
  });
});
