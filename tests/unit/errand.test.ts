import { describe, expect, it } from 'vitest';
import { Errand, Stopped } from '$lib/ui/bench/errand.svelte';
import { Refused } from '$lib/worker/engineClient';

/** An errand whose end the test decides. */
function begun(errand: Errand, what = 'Writing the file') {
  let finish: (value: string) => void = () => undefined;
  let break_: (error: unknown) => void = () => undefined;
  let tell: (share: number, words?: string) => void = () => undefined;
  let aborted = (): boolean => false;
  const run = errand.run(what, (signal, told) => {
    tell = told;
    aborted = () => signal.aborted;
    return new Promise<string>((resolve, reject) => {
      finish = resolve;
      break_ = reject;
    });
  });
  return {
    run,
    finish: (value: string) => finish(value),
    breaks: (error: unknown) => break_(error),
    tells: (share: number, words?: string) => tell(share, words),
    aborted: () => aborted(),
  };
}

describe('work beside the figures', () => {
  it('is seen while it lasts, with what it tells of itself', async () => {
    const errand = new Errand(() => undefined);
    expect(errand.now).toBeNull();
    const work = begun(errand);
    expect(errand.now).toEqual({ what: 'Writing the file', share: null });
    work.tells(0.25);
    expect(errand.now).toEqual({ what: 'Writing the file', share: 0.25 });
    work.tells(0.5, 'Two of four tallies');
    expect(errand.now).toEqual({ what: 'Two of four tallies', share: 0.5 });
    work.finish('done');
    await expect(work.run).resolves.toBe('done');
    expect(errand.now).toBeNull();
  });

  it('shows what the engine says of its work, unless it counts itself', () => {
    const errand = new Errand(() => undefined);
    errand.heard(0.5);
    expect(errand.now).toBeNull();
    const work = begun(errand);
    errand.heard(0.3);
    expect(errand.now?.share).toBe(0.3);
    errand.heard(null);
    expect(errand.now?.share).toBe(0.3);
    work.tells(0.1);
    errand.heard(0.9);
    expect(errand.now?.share).toBe(0.1);
  });

  it('stopped, the engine gives up, and it ends as stopped whatever comes of it', async () => {
    let cancelled = 0;
    const errand = new Errand(() => cancelled++);
    errand.stop();
    expect(cancelled).toBe(0);
    const work = begun(errand);
    errand.stop();
    expect([cancelled, work.aborted()]).toEqual([1, true]);
    work.breaks(new Error('no reply'));
    await expect(work.run).rejects.toThrow(Stopped);
    expect(errand.now).toBeNull();
    const given = begun(errand);
    given.breaks(new Refused('stopped', 'It was given up.'));
    await expect(given.run).rejects.toThrow('Stopped. Nothing was kept.');
  });

  it('what breaks off by itself says why', async () => {
    const errand = new Errand(() => undefined);
    const work = begun(errand);
    work.breaks(new Error('The disk is full.'));
    await expect(work.run).rejects.toThrow('The disk is full.');
    expect(errand.now).toBeNull();
  });

  it('a newer one takes its place, and is not ended by the end of the older', async () => {
    const errand = new Errand(() => undefined);
    const older = begun(errand, 'The report');
    const newer = begun(errand, 'The file');
    older.tells(0.9);
    expect(errand.now).toEqual({ what: 'The file', share: null });
    older.finish('');
    await older.run;
    expect(errand.now?.what).toBe('The file');
    errand.stop();
    expect([older.aborted(), newer.aborted()]).toEqual([false, true]);
  });
});
