import { describe, expect, it } from 'vitest';
import type { Row, TableHead } from '$lib/engine/protocol';
import { cellText, levelLabel, markWords, marksOf, rowMark } from '$lib/ui/tally/cells';
import { tableColumn } from '../support/tableColumn';

const head: TableHead = {
  name: 'main',
  caption: '',
  labels: 4,
  length: 3,
  levels: 2,
  drawnWhole: false,
  columns: ['period', 'from', 'to', 'route', 'm1'].map((key) => tableColumn(key)),
  across: { from: 0, of: 1 },
};
const row = (more: Partial<Row>): Row => ({
  place: 0,
  kind: 'group',
  level: 2,
  keys: [],
  cells: ['2025', '2025-01-01', '2025-12-31', 'Holm', 'none'],
  figures: ['2025', '2025-01-01', '2025-12-31', 'Holm', null],
  marks: [],
  open: null,
  ...more,
});

describe('cells of a figure table', () => {
  it('a row in levels is called by the label of its own level; spans are no labels', () => {
    expect(levelLabel(head, row({}))).toBe('Holm');
    expect(levelLabel(head, row({ level: 1 }))).toBe('2025');
    // One without a label of its level: by the last that it has.
    expect(levelLabel(head, row({ cells: ['All', '', '', '', '7'] }))).toBe('All');
    expect(levelLabel(head, row({ cells: ['', '', '', '', '7'] }))).toBe('');
  });

  it('a total of what does not add up is empty, a group without a figure says none', () => {
    expect(cellText(head, row({}), 4)).toBe('none');
    expect(cellText(head, row({ kind: 'total' }), 4)).toBe('');
    expect(cellText(head, row({ kind: 'others' }), 4)).toBe('');
    // A whole whose parts fold under it is a group above them.
    expect(cellText(head, row({ kind: 'total', open: true }), 4)).toBe('none');
    expect(cellText(head, row({ kind: 'total', figures: ['', '', '', '', 0] }), 4)).toBe('none');
    expect(cellText(head, row({ kind: 'total', figures: [null, '', '', '', 0] }), 0)).toBe('2025');
  });

  it('marks are of a figure or of the row, and are said in a word or two', () => {
    const marked = row({
      marks: [
        { kind: 'forecast', words: 'ahead' },
        { kind: 'heldOut', words: 'held out to choose by' },
        { kind: 'rests', column: 4, words: 'rests on record 9' },
        { kind: 'few', column: 3, words: '2 records' },
        { kind: 'gaps', column: 4, words: '29 of 31 have a value', short: '29 of 31' },
      ],
    });
    expect(marksOf(marked, 4).map(({ words }) => words)).toEqual([
      'rests on record 9',
      '29 of 31 have a value',
    ]);
    expect(marksOf(marked, 0)).toEqual([]);
    expect(rowMark(marked)?.kind).toBe('heldOut');
    expect(rowMark(row({ marks: [{ kind: 'forecast', words: 'ahead' }] }))).toBeUndefined();
    expect(marked.marks.slice(1).map(markWords)).toEqual([
      'held out for testing',
      'rests on one record',
      'few',
      '29 of 31',
    ]);
  });
});
