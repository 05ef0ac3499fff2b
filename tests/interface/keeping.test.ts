import { createServer } from 'node:net';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { journey } from './support/journey';
import { openBench, showDown } from './support/ledger';

const SAILINGS = 6;
const Stored = z.object({
  revision: z.int(),
  doc: z.looseObject({
    tray: z.array(z.looseObject({ view: z.looseObject({ showDown: z.int().optional() }) })),
  }),
});

/** A port that nobody listens on, so that a server started again has the same address. */
const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const at = probe.address();
      probe.close(() => resolve(typeof at === 'object' && at ? at.port : 0));
    });
  });

const { server, page } = journey({ TALLY_LOFT_PORT: String(await freePort()) });

const stored = async (): Promise<z.infer<typeof Stored>> =>
  Stored.parse(await (await fetch(`${server.address}/api/benches/${SAILINGS}`)).json());
/** Down to which level the ledger of the stored bench is shown. */
const shownDown = async (): Promise<number | undefined> =>
  (await stored()).doc.tray[0].view.showDown;
const saved = (): Promise<string> => page.untilText('save-state', /^saved$/);

describe('a link to an earlier state', () => {
  it('says so, keeps what is changed apart, and goes to the newest', async () => {
    await openBench(page, `/benches/${SAILINGS}`);
    await showDown(page, 'Route');
    await saved();
    const { revision } = await stored();
    const kept = await fetch(`${server.address}/api/benches/${SAILINGS}/states`, {
      method: 'POST',
    });
    expect(kept.status).toBe(201);
    await showDown(page, 'Grand total');
    await saved();
    await openBench(page, `/benches/${SAILINGS}?state=${revision}`);
    expect(await page.text('earlier')).toContain(
      `(revision ${revision}; the newest is ${revision + 1})`,
    );
    await showDown(page, 'Vessel');
    await page.untilText('save-state', 'an earlier state');
    await page.click('to-newest');
    await page.find('leave');
    expect(await page.text('leave')).toBe('Leave');
    await page.click('leave');
    await page.until('the newest', () =>
      page.run<boolean>(
        `return !location.search && !document.querySelector('[data-test=earlier]')`,
      ),
    );
    // Longer than a bench rests before it is saved: nothing was.
    await new Promise((resolve) => setTimeout(resolve, 1200));
    expect(await stored()).toMatchObject({ revision: revision + 1 });
    expect(await shownDown()).toBe(0);
  });

  it('can be made the newest, and undone', async () => {
    const { revision } = await stored();
    await openBench(page, `/benches/${SAILINGS}?state=${revision - 1}`);
    await page.click('make-newest');
    await page.until('the bench itself', () => page.run<boolean>(`return !location.search`));
    expect(await shownDown()).toBe(1);
    expect((await stored()).revision).toBe(revision + 1);
    await page.click('undo');
    await saved();
    expect(await shownDown()).toBe(0);
    expect(await page.all('[data-test=earlier]')).toHaveLength(0);
    // What was the newest is still a state of the bench.
    const before = await fetch(`${server.address}/api/benches/${SAILINGS}/states/${revision}`);
    expect(before.status).toBe(200);
  });
});

describe('what is not yet saved', () => {
  it('is saved before a link is followed', async () => {
    await openBench(page, `/benches/${SAILINGS}`);
    await showDown(page, 'Vessel');
    await page.run(`document.querySelector('a.brand').click()`);
    await page.find('choose-file');
    expect(await shownDown()).toBe(2);
  });

  it('is kept in the browser while the server is down, also when the tab is closed', async () => {
    await openBench(page, `/benches/${SAILINGS}`);
    await server.kill();
    await showDown(page, 'Grand total');
    await page.untilText('save-state', 'not saved');
    expect(await page.run<string>(`return document.body.innerText`)).toContain(
      'Your changes are kept in this browser',
    );
    await page.run(`document.querySelector('a.brand').click()`);
    await page.find('stay');
    await page.click('stay');
    expect(await page.run<string>(`return location.pathname`)).toBe(`/benches/${SAILINGS}`);
    const old = await page.driver.getWindowHandle();
    await page.driver.switchTo().newWindow('tab');
    const fresh = await page.driver.getWindowHandle();
    await page.driver.switchTo().window(old);
    await page.driver.close();
    await page.driver.switchTo().window(fresh);
    await server.start();
    expect(await shownDown()).toBe(2);
    await page.go('/');
    await page.untilText('unsent', 'It is saved now');
    expect(await shownDown()).toBe(0);
    await page.go('/');
    await page.find('choose-file');
    expect(await page.all('[data-test=unsent]')).toHaveLength(0);
  });

  it('of two tabs that crash while the server is away is there afterwards, each by itself', async () => {
    await openBench(page, `/benches/${SAILINGS}`);
    const first = await page.driver.getWindowHandle();
    await page.driver.switchTo().newWindow('tab');
    await openBench(page, `/benches/${SAILINGS}`);
    const second = await page.driver.getWindowHandle();
    const benches = async (): Promise<number[]> => {
      const { lists } = await (await fetch(`${server.address}/api/lists`)).json();
      return lists
        .find((l: { id: number }) => l.id === SAILINGS)
        .benches.map((b: { id: number }) => b.id);
    };
    const before = await benches();
    await server.kill();
    for (const [tab, level] of [
      [first, 'Vessel'],
      [second, 'Route'],
    ] as const) {
      await page.driver.switchTo().window(tab);
      await showDown(page, level);
      await page.untilText('save-state', 'not saved');
    }
    await page.driver.switchTo().newWindow('tab');
    const fresh = await page.driver.getWindowHandle();
    for (const tab of [first, second]) {
      await page.driver.switchTo().window(tab);
      await page.driver.close();
    }
    await page.driver.switchTo().window(fresh);
    await server.start();
    await openBench(page, `/benches/${SAILINGS}`);
    await page.untilText('notice', 'is kept as a bench of its own');
    await saved();
    expect(await shownDown()).toBe(1);
    const [copy] = (await benches()).filter((id) => !before.includes(id));
    const kept = await (await fetch(`${server.address}/api/benches/${copy}`)).json();
    expect(JSON.stringify(kept)).toContain('"showDown":2');
    await fetch(`${server.address}/api/benches/${copy}`, { method: 'DELETE' });
  });

  it('follows its own state whose answer came too late, where the page is left at once', async () => {
    await openBench(page, `/benches/${SAILINGS}`);
    const { revision } = await stored();
    // Saves arrive, and their answers never do.
    await page.run(
      `const send = window.fetch;
       window.fetch = (url, how) => {
         const answer = send(url, how);
         return how?.method === 'PUT' ? new Promise(() => undefined) : answer;
       };`,
    );
    await showDown(page, 'Grand total');
    await page.until('that it arrived', async () => (await stored()).revision === revision + 1);
    await showDown(page, 'Vessel');
    await openBench(page, `/benches/${SAILINGS}`);
    await saved();
    expect(await stored()).toMatchObject({ revision: revision + 2 });
    expect(await shownDown()).toBe(2);
    expect(await page.run<string>(`return document.body.innerText`)).not.toContain(
      'was changed elsewhere',
    );
  });

  it('is put back and saved when the bench itself is opened again', async () => {
    await openBench(page, `/benches/${SAILINGS}`);
    const { revision, doc } = await stored();
    // As a tab leaves it that was closed between a change and its save.
    await page.driver.executeAsyncScript(
      `const done = arguments[2];
       const open = indexedDB.open('tally-loft-unsent');
       open.onsuccess = () => {
         const tx = open.result.transaction('benches', 'readwrite');
         tx.objectStore('benches').put({ bench: ${SAILINGS}, name: 'x', follows: arguments[0], doc: arguments[1], at: '' }, ${SAILINGS});
         tx.oncomplete = () => done();
       };`,
      revision,
      { ...doc, lead: 'boarded' },
    );
    await openBench(page, `/benches/${SAILINGS}`);
    await page.untilText('notice', 'was put back');
    await saved();
    expect((await stored()).doc.lead).toBe('boarded');
    await page.click('undo');
    await saved();
    expect((await stored()).doc.lead).toBe(doc.lead);
  });
});
