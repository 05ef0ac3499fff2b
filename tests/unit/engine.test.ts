import { Superseded } from '$lib/core/errors';
import { describe, expect, it } from 'vitest';
import { StepCache } from '$lib/core/steps/cache';
import { Scheduler } from '$lib/engine/scheduler';
import { delimitedLine, toDelimited, toHtml } from '$lib/core/write/grid';
import { freshness } from '$lib/ui/shelf/freshness';
import { fileNameFor } from '$lib/ui/handover/clipboard';

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
        ',',
        guarded,
      ),
    ).toBe('"a,b","say ""x""","two\nlines",plain," x "');
    expect(
      delimitedLine([cell('=1+1'), cell('-3', false), cell('@x'), cell('\tx')], ',', guarded),
    ).toBe("'=1+1,-3,'@x,'\tx");
    expect(guarded.count).toBe(3);
  });

  it('escapes markup in the HTML table', () => {
    const { text } = toHtml({ heads: ['<b>'], rows: [[cell('<script>"x"&')]] }, '');
    expect(text).toContain('&lt;script&gt;&quot;x&quot;&amp;');
    expect(text).not.toContain('<script>');
    expect(toDelimited({ heads: ['=h'], rows: [] }, '\t')).toEqual({ text: "'=h\r\n", guarded: 1 });
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
