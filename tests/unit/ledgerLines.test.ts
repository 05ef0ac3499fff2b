import { describe, expect, it } from 'vitest';
import type { Line } from '$lib/engine/protocol';
import { LedgerLines } from '$lib/ui/bench/ledgerLines.svelte';

const line = (n: number): Line => ({
  kind: 'record',
  level: 0,
  label: `line ${n}`,
  keys: [],
  count: 1,
  aside: 0,
  open: false,
  totals: false,
  record: n,
  cells: [],
  states: '',
  gaps: [],
});

/** Lines of figures that can become newer, with requests that are answered when the test says so. */
function answeredOn(total: number) {
  const now = { token: 1, tally: 'ledger', total };
  const asked: { token: number; from: number; count: number; answer: () => Promise<void> }[] = [];
  const faults: unknown[] = [];
  const lines = new LedgerLines(
    (token, { from, count }) =>
      new Promise((resolve) => {
        const some = Array.from({ length: Math.min(count, now.total - from) }, (_, k) =>
          line(from + k),
        );
        asked.push({
          token,
          from,
          count,
          answer: async () => {
            resolve(some);
            await new Promise((done) => setTimeout(done));
          },
        });
      }),
    () => now,
    (error) => faults.push(error),
  );
  return { now, asked, faults, lines };
}

describe('lines of the open ledger around those in view', () => {
  it('are asked for with some on each side, and not again while they are at hand', async () => {
    const { lines, asked } = answeredOn(1000);
    const looked = lines.look(100, 20);
    expect(asked.map(({ from, count }) => [from, count])).toEqual([[86, 48]]);
    await asked[0].answer();
    await looked;
    expect(lines.at(86)?.record).toBe(86);
    expect(lines.at(133)?.record).toBe(133);
    expect(lines.at(134)).toBeUndefined();
    await lines.look(110, 20);
    expect(asked).toHaveLength(1);
  });

  it('are asked for once at a time: scrolling on only moves where the next request looks', async () => {
    const { lines, asked } = answeredOn(1000);
    const looked = lines.look(100, 20);
    void lines.look(300, 20);
    void lines.look(500, 20);
    expect(asked).toHaveLength(1);
    await asked[0].answer();
    expect(asked.map(({ from }) => from)).toEqual([86, 486]);
    await asked[1].answer();
    await looked;
    expect(lines.at(500)?.record).toBe(500);
    expect(asked).toHaveLength(2);
  });

  it('of older figures never stand beside newer ones', async () => {
    const { lines, asked, now } = answeredOn(1000);
    const looked = lines.look(100, 20);
    now.token = 2;
    await asked[0].answer();
    expect(lines.at(100)).toBeUndefined();
    expect(asked.map(({ token }) => token)).toEqual([1, 2]);
    await asked[1].answer();
    await looked;
    expect(lines.at(100)?.record).toBe(100);
  });

  it('end where the ledger ends, however far down one looked before', async () => {
    const { lines, asked, now } = answeredOn(1000);
    const looked = lines.look(900, 20);
    await asked[0].answer();
    await looked;
    now.total = 5;
    now.token = 2;
    const drawn = lines.draw(2, 'ledger', 5);
    expect(asked[1].from).toBe(4);
    await asked[1].answer();
    await drawn;
    expect(lines.at(4)?.record).toBe(4);
    // Nothing lies beyond the end, so nothing is asked for it.
    await lines.look(10, 20);
    expect(asked).toHaveLength(2);
  });

  it('that are heavy come in several answers, and none of them twice', async () => {
    const asked: [number, number][] = [];
    const lines = new LedgerLines(
      (_, { from, count }) => {
        asked.push([from, count]);
        return Promise.resolve(
          Array.from({ length: Math.min(7, count, 40 - from) }, (__, k) => line(from + k)),
        );
      },
      () => ({ token: 1, tally: 'ledger', total: 40 }),
      (error) => {
        throw error;
      },
    );
    await lines.look(0, 12);
    expect(lines.lines.map(({ record }) => record)).toEqual(
      Array.from({ length: 40 }, (_, k) => k),
    );
    expect(asked).toEqual([
      [0, 40],
      [7, 33],
      [14, 26],
      [21, 19],
      [28, 12],
      [35, 5],
    ]);
  });

  it('that cannot be had are told once, and asked for again at the next look', async () => {
    const faults: unknown[] = [];
    let times = 0;
    const lines = new LedgerLines(
      () => {
        times++;
        return times === 1 ? Promise.reject(new Error('gone')) : Promise.resolve([line(0)]);
      },
      () => ({ token: 1, tally: 'ledger', total: 1 }),
      (error) => faults.push(error),
    );
    await lines.look(0, 1);
    expect(faults).toEqual([new Error('gone')]);
    await lines.look(0, 1);
    expect(lines.at(0)?.record).toBe(0);
    expect(faults).toHaveLength(1);
  });
});
