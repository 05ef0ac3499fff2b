import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Cursor } from '$lib/ui/ledger/cursor.svelte';

const KEYS = [
  'ArrowDown',
  'ArrowUp',
  'ArrowRight',
  'ArrowLeft',
  'PageDown',
  'PageUp',
  'Home',
  'End',
] as const;

describe('the cursor of the ledger', () => {
  it('a key leads to the next place, a page further or to the ends', () => {
    const cursor = new Cursor();
    cursor.put({ line: 10, column: 2 });
    const to = (key: string) => cursor.after(key, 100, 5, 20);
    expect(to('ArrowDown')).toEqual({ line: 11, column: 2 });
    expect(to('ArrowUp')).toEqual({ line: 9, column: 2 });
    expect(to('ArrowRight')).toEqual({ line: 10, column: 3 });
    expect(to('ArrowLeft')).toEqual({ line: 10, column: 1 });
    expect(to('PageDown')).toEqual({ line: 30, column: 2 });
    expect(to('PageUp')).toEqual({ line: 0, column: 2 });
    expect(to('Home')).toEqual({ line: 0, column: 2 });
    expect(to('End')).toEqual({ line: 99, column: 2 });
    expect(to('Enter')).toBeNull();
    expect(to('toString')).toBeNull();
  });

  it('never leaves the lines and columns there are; −1 is the column of groups', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...KEYS), { maxLength: 60 }),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 0, max: 4 }),
        (keys, lines, columns) => {
          const cursor = new Cursor();
          for (const key of keys) {
            const to = cursor.after(key, lines, columns, 7);
            if (!to) throw new Error(`${key} leads nowhere`);
            cursor.put(to);
            expect(to.line).toBeGreaterThanOrEqual(0);
            expect(to.line).toBeLessThan(lines);
            expect(to.column).toBeGreaterThanOrEqual(-1);
            expect(to.column).toBeLessThan(Math.max(columns, 0));
          }
        },
      ),
    );
  });

  it('chooses the lines from where it began to where it is, whichever comes first', () => {
    const cursor = new Cursor();
    cursor.put({ line: 5, column: 0 });
    expect(cursor.range).toBeNull();
    cursor.put({ line: 8, column: 0 }, true);
    expect(cursor.range).toEqual({ from: 5, to: 8 });
    cursor.put({ line: 2, column: 1 }, true);
    expect(cursor.range).toEqual({ from: 2, to: 5 });
    cursor.put({ line: 3, column: 1 });
    expect(cursor.range).toBeNull();
    cursor.put({ line: 4, column: 1 }, true);
    cursor.letGo();
    expect(cursor.range).toBeNull();
    expect(cursor.active).toEqual({ line: 4, column: 1 });
  });
});
