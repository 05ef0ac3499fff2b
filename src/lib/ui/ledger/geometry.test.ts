import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clippedColumns, scrollFor, scrollHeight, sidewaysFor, windowAt } from './geometry';

describe('the ledger’s scrolling', () => {
  it.each([100, 10_000, 1_000_000, 50_000_000])(
    'reaches the first and the last of %i lines',
    (lines) => {
      const view = 520;
      const height = scrollHeight(lines);
      expect(windowAt(lines, 0, view).first).toBe(0);
      const last = windowAt(lines, Math.max(0, height - view), view);
      expect(last.first + view / 26).toBeGreaterThanOrEqual(lines - 1);
      for (const line of [0, Math.floor(lines / 3), lines - 1]) {
        const at = windowAt(lines, scrollFor(lines, line, view, 0), view).first;
        expect(Math.abs(at - Math.min(line, lines - 1))).toBeLessThanOrEqual(21);
      }
    },
  );
});

describe('a column brought into view', () => {
  it('stands whole between the fixed columns and the edge, moved no more than needed', () => {
    fc.assert(
      fc.property(
        fc.nat(2000),
        fc.integer({ min: 0, max: 1500 }),
        fc.integer({ min: 40, max: 300 }),
        (scrollLeft, before, width) => {
          const [view, fixed] = [700, 250];
          const column = { left: fixed + before, width };
          const to = sidewaysFor(scrollLeft, view, fixed, column);
          expect(column.left - to).toBeGreaterThanOrEqual(fixed);
          expect(column.left + width - to).toBeLessThanOrEqual(view);
          const seen =
            column.left - scrollLeft >= fixed && column.left + width - scrollLeft <= view;
          if (seen) expect(to).toBe(scrollLeft);
        },
      ),
    );
  });

  it('shows from its left where it is wider than the room', () => {
    expect(sidewaysFor(0, 500, 250, { left: 600, width: 400 })).toBe(350);
  });
});

describe('columns that need clipping', () => {
  const heads = [
    { width: 120, right: false },
    { width: 120, right: true },
  ];
  const line = (cells: string[], states = '  '): { cells: string[]; states: string } => ({
    cells,
    states,
  });

  it('are those with a text that may be wider', () => {
    expect(clippedColumns(heads, [line(['calm', '1,234.50'])], [])).toEqual([false, false]);
    expect(clippedColumns(heads, [line(['Nessness', '12,345,678.50'])], [])).toEqual([true, true]);
    // An unread cell is text, in a column of figures too.
    expect(clippedColumns(heads, [line(['', 'about 14'], ' u')], [])).toEqual([false, true]);
  });

  it('stay so while the heads are the same', () => {
    expect(clippedColumns(heads, [line(['', ''])], [true, false])).toEqual([true, false]);
    expect(clippedColumns(heads, [], [])).toEqual([false, false]);
  });
});
