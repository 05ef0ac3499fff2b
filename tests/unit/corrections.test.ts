import { describe, expect, it } from 'vitest';
import { countsInWords } from '$lib/core/ask/countsInWords';
import { correctCells, takeBackCorrection } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import { Replies } from '$lib/engine/replies';
import { gatherReport } from '$lib/engine/report';
import { correctionWords, stillHolds } from '$lib/core/read/correct';
import { setAsideWords } from '$lib/core/selection/setAsideWords';
import { examine } from '$lib/core/read/examine';
import { OpenBench } from '../support/bench';
import { csvOf } from '../support/handedOver';
import { readText } from '../support/demo';

/** Turns of a kiln; one cell cannot be read, one is blank. */
const KILNS = Array.from({ length: 12 }, (_, k) => `K${k % 3},${k + 1}`).join('\n');
const { recipe, reading } = readText(`Kiln,Hours\nK9,3 hh\nK8,\n${KILNS}\n`, (read) => ({
  ...read,
  columns: read.columns.map((c) => (c.id === 'hours' ? { ...c, type: 'number' as const } : c)),
}));
const { table } = reading;
const open = (): OpenBench => new OpenBench(table, recipe, 'Kilns');
const put = { record: 1, column: 'hours', text: '3', was: '3 hh' };
const doc = correctCells(newBench(table, 1), [put]);

describe('a cell put right by hand', () => {
  it('is said at the ladder, in the report and in what is written, with what stood there', async () => {
    const words = 'record 1, Hours: “3 hh” is “3”';
    const bench = open();
    const counts = Replies.resolve.parse(bench.engine.now('resolve', { doc }));
    expect(counts.corrections).toEqual([{ record: 1, column: 'hours', words }]);
    const facts = { list: 'Kilns', read: '', made: '' };
    const report = await gatherReport(
      (kind, args) => bench.engine.now(kind, args),
      counts,
      doc,
      facts,
    );
    expect(report.scope).toContain(`1 cell is corrected by hand: ${words}.`);
    bench.show(doc);
    const { parts } = bench.ask('asked', { tallies: ['ledger'], values: 'full', report: false });
    expect(parts.length).toBeGreaterThan(0);
    expect(csvOf(bench, 'full')).toContain('81');
    const without = Replies.resolve.parse(
      bench.engine.now('resolve', { doc: takeBackCorrection(doc, 1, 'hours') }),
    );
    expect(without.corrections).toEqual([]);
  });

  it('stands in the lines of what counts behind the count', () => {
    const counts = { all: 14, rungs: [], narrowed: 14, setAside: 0, counted: 14 };
    const list = { name: 'Kilns', records: 14, columns: [] };
    const said = { list, counts: { ...counts, aside: [], corrections: ['one', 'two'] } };
    expect(countsInWords({ ...said, prepared: [], tallies: [] }).slice(1)).toEqual([
      '14 records counted',
      '2 cells corrected by hand',
      'one',
      'two',
    ]);
  });

  it('is applied only where the cell still holds what it was made on', () => {
    const resolved = (was: string, record = 1) =>
      Replies.resolve.parse(
        open().engine.now('resolve', {
          doc: correctCells(newBench(table, 1), [{ ...put, record, was }]),
        }),
      );
    expect(resolved('3 hh').faults).toEqual([]);
    const { faults, corrections } = resolved('4 hh');
    expect(corrections).toEqual([]);
    expect(faults.map(({ path, message }) => [path, message])).toEqual([
      [
        'corrections[0].was',
        'Record 1 no longer holds “4 hh” in Hours: the correction was made on another text.',
      ],
    ]);
    // A blank by another word, and a number in another writing, are what they were.
    expect(resolved('', 2).corrections.map(({ words }) => words)).toEqual([
      'record 2, Hours: blank is “3”',
    ]);
    expect(resolved('1.0', 3).faults).toEqual([]);
    expect(resolved('2', 3).faults).toHaveLength(1);
  });

  it('says a blank as one, and needs a recipe to know another writing', () => {
    const names = new Map([['hours', 'Hours']]);
    expect(correctionWords({ ...put, was: '', text: '' }, names)).toBe(
      'record 1, Hours: blank is blank',
    );
    const [, hours] = table.columns;
    expect(stillHolds(hours, undefined, { record: 3, was: '1' })).toBe(true);
    expect(stillHolds(hours, undefined, { record: 3, was: '1.0' })).toBe(false);
    expect(examine(recipe, reading).doubts.some(({ kind }) => kind === 'unread')).toBe(true);
  });
});

describe('what was done by hand, in words', () => {
  it('a correction with its reason, and what was set aside by its records and values', () => {
    const names = new Map([['h', 'Hours']]);
    const correction = {
      record: 1204,
      column: 'h',
      was: '3 min min',
      text: '3 min',
      why: 'typed twice',
    };
    expect(correctionWords(correction, names)).toBe(
      'record 1,204, Hours: “3 min min” is “3 min” (typed twice)',
    );
    const aside = { records: [9, 3, 7, 8], values: [{ column: 'h', value: null }] };
    expect(setAsideWords(aside, names)).toEqual([
      'records 3 and 7 to 9',
      'all where Hours is blank',
    ]);
    const many = Array.from({ length: 30 }, (_, k) => 2 * k + 1);
    expect(setAsideWords({ records: many, values: [] }, names)[0]).toMatch(/, 23 and 18 more$/);
  });

  it('several cells that say the same are put right in one go, and all alike ones are found', () => {
    const { reading, recipe } = readText(
      'k,h\na,x\nb,2\nc,x\nd,x\ne,4\nf,5\ng,6\nh,7\ni,8\nj,9\nk,1\nl,1\nm,1\nn,1\no,1\np,1\nq,1\nr,1\ns,1\nt,1\nu,1\n',
    );
    const bench = new OpenBench(reading.table, recipe, 'Jobs');
    bench.show(newBench(reading.table, 1));
    expect(bench.ask('alikeCells', { record: 2, column: 'h' })).toEqual({
      records: [1, 3, 4],
      more: false,
    });
    expect(bench.ask('alikeCells', { record: 12, column: 'h' }).records).toHaveLength(11);
    expect(bench.ask('alikeCells', { record: 0, column: 'k' }).records).toEqual([1]);
    const doc = correctCells(
      newBench(reading.table, 1),
      [1, 3, 4].map((record) => ({ record, column: 'h', text: '3', was: 'x' })),
    );
    expect(bench.show(doc).corrections).toHaveLength(3);
    // What was put right stands as 3 now, and is none of the cells that say 3 in the file.
    const three = reading.table.columns[1].id;
    expect(bench.ask('alikeCells', { record: 0, column: three }).records).toEqual([]);
  });
});
