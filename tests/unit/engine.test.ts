import { Stopped, Superseded } from '$lib/core/errors';
import { describe, expect, it } from 'vitest';
import { StepCache } from '$lib/core/task/cache';
import { Scheduler, type LongWork } from '$lib/engine/scheduler';
import { finish, partOf, type Task } from '$lib/core/task/task';
import { USUAL_DIALECT } from '$lib/core/write/dialect';
import { delimitedLine, gridOf, toDelimited, toHtml } from '$lib/core/write/grid';
import { freshness } from '$lib/ui/shelf/freshness';
import { fileNameFor } from '$lib/ui/handover/clipboard';
import { OtherLists } from '$lib/worker/otherLists';

function* counting(n: number, log: string[], name: string): Generator<undefined, string, void> {
  for (let k = 0; k < n; k++) {
    log.push(name);
    yield undefined;
  }
  return name;
}

describe('the scheduler', () => {
  const make = (): Scheduler => {
    let clock = 0;
    // Every look at the clock takes 4 ms: a slice holds two or three steps.
    return new Scheduler(
      ['high', 'low'],
      () => Promise.resolve(),
      () => (clock += 4),
    );
  };

  it('does what ranks higher first', async () => {
    const log: string[] = [];
    const scheduler = make();
    const low = scheduler.post('low', counting(9, log, 'low'));
    await Promise.resolve();
    await Promise.resolve();
    const high = scheduler.post('high', counting(4, log, 'high'));
    expect(await high).toBe('high');
    expect(log.filter((x) => x === 'low').length).toBeLessThan(9);
    expect(await low).toBe('low');
  });

  it('a newer request takes the place of an older one', async () => {
    const log: string[] = [];
    const scheduler = make();
    const older = scheduler.post('high', counting(50, log, 'older'));
    const newer = scheduler.post('high', counting(2, log, 'newer'));
    await expect(older).rejects.toBeInstanceOf(Superseded);
    expect(await newer).toBe('newer');
    expect(log.filter((x) => x === 'older').length).toBeLessThan(50);
  });

  it('is in its turn by when it came, not by how long it waited for what it needs', async () => {
    const scheduler = make();
    let olderReady: (steps: Task<string>) => void = () => undefined;
    const older = scheduler.postWhen(
      'high',
      new Promise<Task<string>>((done) => (olderReady = done)),
    );
    const newer = scheduler.postWhen('high', Promise.resolve(counting(2, [], 'newer')));
    expect(await newer).toBe('newer');
    olderReady(counting(2, [], 'older'));
    await expect(older).rejects.toBeInstanceOf(Superseded);
  });

  it('what waits gives way to what waits for nothing, and a stop ends both', async () => {
    const scheduler = make();
    let ready: (steps: Task<string>) => void = () => undefined;
    const older = scheduler.postWhen('high', new Promise<Task<string>>((done) => (ready = done)));
    const newer = scheduler.post('high', counting(2, [], 'newer'));
    ready(counting(2, [], 'older'));
    await expect(older).rejects.toBeInstanceOf(Superseded);
    expect(await newer).toBe('newer');

    const waiting = scheduler.postWhen('high', new Promise<Task<string>>((done) => (ready = done)));
    scheduler.stop();
    ready(counting(2, [], 'waiting'));
    await expect(waiting).rejects.toBeInstanceOf(Stopped);
  });

  it('passes a fault on and goes on with the rest', async () => {
    const scheduler = make();
    const bad = scheduler.post(
      'high',
      (function* (): Generator<undefined, never, void> {
        yield undefined;
        throw new Error('broken');
      })(),
    );
    const good = scheduler.post('low', counting(1, [], 'good'));
    await expect(bad).rejects.toThrow('broken');
    expect(await good).toBe('good');
  });
});

describe('other lists that benches name', () => {
  it('are those named last, whichever were fetched last; the same while the same are named', async () => {
    const came = new Map<number, (table: null) => void>();
    const others = new OtherLists(({ list }) => new Promise((done) => came.set(list ?? 0, done)));
    const named = (list: number) => ({ kiosks: { table: 'Kiosks', list } });
    const older = others.of(named(1));
    const newer = others.of(named(2));
    expect(others.of(named(2))).toBe(newer);
    came.get(2)?.(null);
    await newer;
    came.get(1)?.(null);
    await older;
    expect(others.of(named(2))).toBe(newer);
    expect(await others.of(named(2))).toBe(await newer);
  });
});

describe('work that takes long', () => {
  function* telling(...shares: (number | undefined)[]): Generator<number | undefined, void, void> {
    for (const share of shares) yield share;
  }
  const each = (n: number, of: (k: number) => number | undefined) =>
    Array.from({ length: n }, (_, k) => of(k));

  it('is told of once it has taken 400 ms, with the largest share it told; the rest never', async () => {
    const told: LongWork[] = [];
    let clock = 0;
    const scheduler = new Scheduler(
      ['high'],
      () => Promise.resolve(),
      () => (clock += 10),
      (work) => told.push(work),
    );
    // A step takes 10 ms: 39 are not long, 60 are, and shares that fall back are no step back.
    await scheduler.post('high', telling(...each(39, (k) => k / 39)));
    expect(told).toEqual([]);
    await scheduler.post('high', telling(...each(60, (k) => (k % 2 ? undefined : 1 / (k + 2)))));
    expect(told.length).toBeGreaterThan(5);
    expect(new Set(told.map(({ share }) => share))).toEqual(new Set([0.5]));
    await scheduler.post('high', telling(...each(60, () => undefined)));
    expect(told.at(-1)).toEqual({ lane: 'high', share: null });
  });

  it('is given up where it is stopped, and what is asked next is done', async () => {
    const log: string[] = [];
    const scheduler = new Scheduler(
      [],
      () => Promise.resolve(),
      () => log.length * 10,
    );
    const [one, two] = ['one', 'two'].map((name) => scheduler.post(name, counting(50, log, name)));
    const refused = Promise.all([
      expect(one).rejects.toBeInstanceOf(Stopped),
      expect(two).rejects.toBeInstanceOf(Stopped),
    ]);
    await Promise.resolve();
    await Promise.resolve();
    scheduler.stop();
    await refused;
    const done = log.length;
    expect(done).toBeLessThan(50);
    expect(await scheduler.post('one', counting(3, log, 'next'))).toBe('next');
    expect(log.slice(done)).toEqual(['next', 'next', 'next']);
  });

  it('a part of longer work tells shares of the whole, and comes to what it came to', () => {
    function* half(): Generator<number | undefined, string, void> {
      yield* [0, undefined, 0.5, 1];
      return 'made';
    }
    const steps = partOf(half(), 0.5, 0.75);
    const told: (number | undefined)[] = [];
    for (;;) {
      const next = steps.next();
      if (next.done) {
        expect(next.value).toBe('made');
        break;
      }
      told.push(next.value);
    }
    expect(told).toEqual([0.5, undefined, 0.625, 0.75]);
  });
});

describe('kept steps', () => {
  it('drop the longest unused', () => {
    const cache = new StepCache<number>(2);
    cache.set('a', 1);
    cache.set('b', 2);
    cache.get('a');
    cache.set('c', 3);
    expect([cache.get('a'), cache.get('b'), cache.get('c')]).toEqual([1, undefined, 3]);
  });
});

describe('what is handed over', () => {
  const cell = (text: string, free = true) => ({ text, free });
  it('quotes as RFC 4180 has it, and keeps text from starting a formula', () => {
    const guarded = { count: 0 };
    expect(
      delimitedLine(
        [cell('a,b'), cell('say "x"'), cell('two\nlines'), cell('plain'), cell(' x ')],
        USUAL_DIALECT,
        guarded,
      ),
    ).toBe('"a,b","say ""x""","two\nlines",plain," x "');
    expect(
      delimitedLine(
        [cell('=1+1'), cell('-3', false), cell('@x'), cell('\tx')],
        USUAL_DIALECT,
        guarded,
      ),
    ).toBe("'=1+1,-3,'@x,'\tx");
    expect(guarded.count).toBe(3);
  });

  it('escapes markup in the HTML table', () => {
    const { text } = finish(toHtml(gridOf(['<b>'], [[cell('<script>"x"&')]]), ''));
    expect(text).toContain('&lt;script&gt;&quot;x&quot;&amp;');
    expect(text).not.toContain('<script>');
    expect(finish(toDelimited(gridOf(['=h'], []), USUAL_DIALECT))).toEqual({
      text: "'=h\r\n",
      guarded: 1,
    });
  });

  it('names files safely', () => {
    expect(fileNameFor('Sailings 2023–26', 'ledger')).toBe('Sailings-2023-26-ledger.csv');
    expect(fileNameFor('../../<x>', 'records')).toBe('x-records.csv');
    expect(fileNameFor('…', 'ledger')).toBe('list-ledger.csv');
  });

  it('says how fresh a list is', () => {
    const now = '2026-11-23T12:00:00Z';
    expect(freshness('2026-11-23T08:00:00Z', now)).toContain('today');
    expect(freshness('2026-11-22T23:00:00Z', now)).toBe('yesterday');
    expect(freshness('2026-11-18T08:00:00Z', now)).toBe('5 days ago');
    expect(freshness('2025-01-02T08:00:00Z', now)).toBe('2 Jan 2025');
  });
});
