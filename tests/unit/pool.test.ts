import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ReadingPool } from '$lib/server/thread/pool';
import type { ThreadTask } from '$lib/server/thread/tasks';

/** A thread that does what the number of its list says. */
const SCRIPT = `
const { parentPort } = require('node:worker_threads');
const kept = [];
parentPort.on('message', ({ id, task }) => {
  if (task.listId === 2) for (;;);
  if (task.listId === 3) for (let k = 0; ; k++) kept.push(Array.from({ length: 1000 }, () => k));
  if (task.listId === 4) { kept.push(new Uint8Array(1500 * 1024 * 1024).fill(1)); for (;;); }
  if (task.listId === 5) process.exit(3);
  parentPort.postMessage({ id, result: { ok: true, value: task.reading } });
});`;

const QUICK = 1;
const ENDLESS = 2;
const HEAP = 3;
const COLUMNS = 4;
const DIES = 5;
const task = (listId: number, reading = 0): ThreadTask => ({
  task: 'move',
  database: '',
  limitBytes: 0,
  listId,
  reading,
});

let folder: string;
let script: string;
let pool: ReadingPool;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-pool-'));
  script = path.join(folder, 'thread.cjs');
  writeFileSync(script, SCRIPT);
  pool = new ReadingPool(script, { threads: 2, taskMs: 500, memoryMb: 2000 });
});
afterEach(async () => {
  await pool.stop();
  rmSync(folder, { recursive: true });
});

describe('the threads that answer asks', () => {
  it('one that never ends holds up no other, and is ended from outside', async () => {
    const endless = pool.perform(task(ENDLESS)).then(
      () => 'answered',
      (error) => String(error),
    );
    const order: string[] = [];
    void endless.then(() => order.push('endless'));
    for (let k = 0; k < 20; k++) expect(await pool.perform(task(QUICK, k))).toBe(k);
    order.push('others');
    expect(await endless).toContain('took longer than');
    expect(order).toEqual(['others', 'endless']);
  });

  it('more than there are threads wait, and each gets its own answer', async () => {
    const asked = Array.from({ length: 50 }, (_, k) => pool.perform(task(QUICK, k)));
    expect(await Promise.all(asked)).toEqual(Array.from({ length: 50 }, (_, k) => k));
  });

  it.each([
    ['values', HEAP],
    ['columns', COLUMNS],
  ])(
    'one that takes too much memory in %s is ended, and the next is answered',
    async (_, which) => {
      pool = new ReadingPool(script, { threads: 2, taskMs: 20_000, memoryMb: 200 });
      await expect(pool.perform(task(which))).rejects.toThrow('more memory than the server allows');
      expect(await pool.perform(task(QUICK, 7))).toBe(7);
    },
  );

  it('one that dies is told, and the next is answered', async () => {
    await expect(pool.perform(task(DIES))).rejects.toThrow('was interrupted');
    expect(await pool.perform(task(QUICK, 8))).toBe(8);
  });

  it('both held up, those that wait are answered once they are free again', async () => {
    const ends = [pool.perform(task(ENDLESS)), pool.perform(task(ENDLESS))].map((asked) =>
      asked.catch((error) => String(error)),
    );
    expect(await pool.perform(task(QUICK, 9))).toBe(9);
    for (const end of ends) expect(await end).toContain('took longer');
  });
});
