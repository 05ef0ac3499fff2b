import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherRows, MOST_AT_ONCE } from '$lib/engine/gatherRows';
import type { Row } from '$lib/engine/protocol';

const row = (place: number): Row => ({
  place,
  kind: 'group',
  level: 0,
  keys: [],
  cells: [],
  figures: [],
  marks: [],
  open: null,
});

/** A table of so many rows of which an answer brings no more than `most`. */
function answering(length: number, most: number) {
  const asked: [number, number][] = [];
  const ask = (from: number, count: number) => {
    asked.push([from, count]);
    const to = Math.min(length, from + Math.min(count, most));
    const rows = Array.from({ length: Math.max(0, to - from) }, (_, k) => row(from + k));
    return { length, rows, whole: null };
  };
  return { ask, asked };
}

describe('rows in several answers', () => {
  it('come each once, in order, and as many as are needed at least', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.nat(500),
        fc.integer({ min: 1, max: 80 }),
        fc.nat(600),
        fc.nat(400),
        fc.nat(400),
        async (length, most, from, count, wanted) => {
          const least = Math.min(count, wanted);
          const { ask, asked } = answering(length, most);
          const came = await gatherRows(ask, from, count, least);
          expect(came.length).toBe(length);
          expect(came.rows.map(({ place }) => place)).toEqual(came.rows.map((_, k) => from + k));
          expect(came.rows.length).toBeLessThanOrEqual(count);
          expect(came.rows.length).toBeGreaterThanOrEqual(
            Math.max(0, Math.min(least, length - from)),
          );
          // None is asked for once enough are there.
          expect((asked.length - 1) * Math.min(most, Math.max(1, count))).toBeLessThanOrEqual(
            Math.max(least, 0),
          );
        },
      ),
    );
  });

  it('no answer is asked for more than it may bring', async () => {
    const { ask, asked } = answering(9000, Infinity);
    const came = await gatherRows(ask, 0, 7000);
    expect(came.rows).toHaveLength(7000);
    expect(asked.map(([, count]) => count)).toEqual([
      MOST_AT_ONCE,
      MOST_AT_ONCE,
      MOST_AT_ONCE,
      1000,
    ]);
  });

  it('an engine that brings nothing more is not asked for ever', async () => {
    const ask = (from: number) => ({ length: 10, rows: from === 0 ? [row(0)] : [], whole: null });
    expect((await gatherRows(ask, 0, 10)).rows).toHaveLength(1);
  });
});
