import { describe, expect, it } from 'vitest';
import { finish } from '../../task/task';
import { scalarColumn, textColumn } from '../../table/column';
import { skipped } from './arithmetic';

describe('records without a value in a column', () => {
  it('of text are blank, wherever they stand', () => {
    const column = textColumn('Vessel', [null, 'Tern', null, 'Auk', null]);
    expect(finish(skipped(column, Int32Array.of(0, 1, 2, 3, 4)))).toEqual({ blanks: 3, unread: 0 });
    expect(finish(skipped(column, Int32Array.of(1, 3)))).toEqual({ blanks: 0, unread: 0 });
  });

  it('of numbers are blank, or unread where their text was no number', () => {
    const column = scalarColumn('Delay', 'number', [null, 4, null, 0], {
      unread: new Map([[2, 'late']]),
    });
    expect(finish(skipped(column, Int32Array.of(0, 1, 2, 3)))).toEqual({ blanks: 1, unread: 1 });
    expect(finish(skipped(column, Int32Array.of(2)))).toEqual({ blanks: 0, unread: 1 });
  });
});
