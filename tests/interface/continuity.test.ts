import { beforeAll, describe, expect, it } from 'vitest';
import { accept, choose, madeFile, untilRead } from './support/intake';
import { openBench, seenFoot, seenLines, showDown } from './support/ledger';
import { journey } from './support/journey';

const { server, page } = journey({ TALLY_LOFT_DEMO: 'no' });
let bench: number;
let list: number;

const FIRST = 'route,boarded,fares\nHolm,10,100\nNess,20,200\nSkerry,30,300\n';

beforeAll(async () => {
  await choose(page, madeFile('days.csv', FIRST));
  await untilRead(page);
  bench = await accept(page);
  await page.find('foot-counted');
  list = (
    (await (await fetch(`${server.address}/api/benches/${bench}`)).json()) as { listId: number }
  ).listId;
});

const saved = (): Promise<string> => page.untilText('save-state', 'saved');

async function setFirstAside(): Promise<void> {
  const at = await page.until(
    'a record',
    async () => (await page.all('[data-line] [role=gridcell]'))[0],
  );
  await at.click();
  await page.click('set-aside');
  await page.untilText('counted', '2');
  await saved();
}

describe('a bench across time and tabs', () => {
  it('a link opens it in the same state, whatever came after', async () => {
    await openBench(page, `/benches/${bench}`);
    await setFirstAside();
    const reply = await fetch(`${server.address}/api/benches/${bench}/states`, { method: 'POST' });
    const { revision } = (await reply.json()) as { revision: number };
    await page.click('undo');
    await page.untilText('counted', '3');
    await saved();
    await openBench(page, `/benches/${bench}?state=${revision}`);
    await page.untilText('counted', '2');
    await openBench(page, `/benches/${bench}`);
    await page.untilText('counted', '3');
  });

  it('a second tab that saves over a newer state is told, and loses nothing', async () => {
    await openBench(page, `/benches/${bench}`);
    const first = await page.driver.getWindowHandle();
    await page.driver.switchTo().newWindow('tab');
    await openBench(page, `/benches/${bench}`);
    await showDown(page, 'Grand total');
    await saved();
    const second = await page.driver.getWindowHandle();
    await page.driver.switchTo().window(first);
    await setFirstAside().catch(() => {});
    await page.untilText('conflict', 'changed elsewhere');
    await page.untilText('counted', '2');
    await page.press('Keep mine');
    await saved();
    await page.driver.switchTo().window(second);
    await page.driver.close();
    await page.driver.switchTo().window(first);
    await openBench(page, `/benches/${bench}`);
    await page.untilText('counted', '2');
    await page.press('Put all back');
    await page.untilText('counted', '3');
    await saved();
  });

  it('goes on when the calculation dies', async () => {
    await openBench(page, `/benches/${bench}`);
    await page.run(
      `const real = Worker.prototype.postMessage; Worker.prototype.postMessage = function (m) { Worker.prototype.postMessage = real; this.dispatchEvent(new ErrorEvent('error', { message: 'killed by the test' })); };`,
    );
    await showDown(page, 'Grand total');
    await page.until(
      'it to start again',
      async () => (await seenFoot(page, 'counted'))[0] === 'Grand total, 3 counted',
    );
    await showDown(page, 'Records');
    await page.until('records again', async () => (await seenLines(page)).length === 3);
    await saved();
  });
});

describe('refresh', () => {
  it('reads a new file by the recipe, carries what was set aside, and can go back', async () => {
    await openBench(page, `/benches/${bench}`);
    await setFirstAside();
    await choose(
      page,
      madeFile('more.csv', 'boarded,route,fares\n40,Outer,400\n10,Holm,100\n21,Ness,210\n'),
      list,
    );
    await untilRead(page);
    await page.click('accept');
    await page.untilText('accepted', 'accepted');
    await openBench(page, `/benches/${bench}`);
    expect((await seenFoot(page, 'all'))[0]).toBe('All 3 records');
    // Holm is now the second record and still set aside.
    const lines = await page.until('three records', async () => {
      const seen = await seenLines(page);
      return seen.length === 3 ? seen : null;
    });
    expect(lines.map((l) => l.label.includes('✕'))).toEqual([false, true, false]);
    await page.go(`/lists/${list}`);
    await page.click('bring-back');
    await page.untilText('accepted', 'Reading 1 is the current one');
    await openBench(page, `/benches/${bench}`);
    const back = await page.until('the first reading', async () => {
      const seen = await seenLines(page);
      return seen.some((l) => l.label.includes('Skerry')) ? seen : null;
    });
    expect(back.map((l) => l.label.includes('✕'))).toEqual([true, false, false]);
  });

  it('asks about a missing, a new and a changed column before anything changes', async () => {
    await choose(
      page,
      madeFile('other.csv', 'route,boarded,crew\nHolm,many,5\nNess,few,6\n'),
      list,
    );
    expect(await untilRead(page)).toContain('3 differences to decide');
    expect(await page.all('[data-test=accept][disabled]')).toHaveLength(1);
    await page.until(
      'the questions',
      async () => (await page.all('.differences fieldset')).length === 3,
    );
    for (const set of await page.all('.differences fieldset')) {
      const radios = await set.findElements({ css: 'input' });
      await radios[(await set.getText()).includes('new.') ? 1 : 0].click();
    }
    await page.until(
      'that it can be accepted',
      async () => (await page.all('[data-test=accept]:not([disabled])')).length === 1,
    );
    const heads = await page.run<string[]>(
      `return [...document.querySelectorAll('[data-test=preview] th button')].map((b) => b.firstChild.textContent)`,
    );
    expect(heads).toEqual(['route', 'boarded', 'fares', 'crew']);
    const { readings } = await readingsOf();
    expect(readings).toBe(2);
  });
});

async function readingsOf(): Promise<{ readings: number }> {
  const reply = (await (
    await fetch(`${server.address}/api/lists/${list}/readings`)
  ).json()) as unknown[];
  return { readings: reply.length };
}
