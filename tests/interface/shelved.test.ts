import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { allFaults } from './support/axe';
import { Key } from './support/browser';
import { choose, madeFile, untilRead } from './support/intake';
import { number, openBench, seenFoot, seenLines } from './support/ledger';
import { journey } from './support/journey';
import { openTally, openTray } from './support/tally';

const { server, page } = journey();

const KIOSKS = '/benches/4';
const KIOSK_LIST = 4;
const SAILINGS = '/benches/6';
const FILE = readFileSync('demo/kiosks.csv', 'utf8').trim().split(/\r?\n/);

/** What the cells of a file of kiosks come to. */
const totalOf = (lines: readonly string[]): number =>
  lines
    .slice(1)
    .flatMap((line) => line.split(',').slice(1))
    .reduce((sum, cell) => sum + (/^\d+$/.test(cell) ? Number(cell) : 0), 0);

async function write(test: string, text: string): Promise<void> {
  await (await page.find(test)).sendKeys(Key.chord(Key.CONTROL, 'a'), text);
}
/** Waits for the bench of a list just made; gives its address. */
async function madeBench(): Promise<string> {
  const before = await page.driver.getCurrentUrl();
  await page.click('shelve');
  const address = await page.until('the new bench', async () => {
    const now = await page.driver.getCurrentUrl();
    return now !== before && /\/benches\/\d+$/.exec(now) ? new URL(now).pathname : null;
  });
  await page.until('its ledger', async () => (await seenLines(page)).length > 0);
  return address;
}
const grand = async (): Promise<number> => number((await seenFoot(page, 'counted')).at(-1) ?? '');

const Shelf = z.object({
  lists: z.array(
    z.object({
      id: z.int(),
      name: z.string(),
      records: z.int(),
      feeds: z.array(z.string()),
      origin: z.object({ frozen: z.string().nullable(), fault: z.string().nullable() }).nullable(),
    }),
  ),
});
const Readings = z.array(z.object({ id: z.int() }));
const got = async (where: string): Promise<unknown> => (await fetch(server.address + where)).json();
const post = (where: string, body: unknown): Promise<Response> =>
  fetch(server.address + where, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const onShelf = async (name: string) => {
  const { lists } = Shelf.parse(await got('/api/lists'));
  return lists.find((list) => list.name === name);
};

describe('lists made of others', () => {
  let stacked = '';

  it('columns stacked as records, on the shelf', async () => {
    await openBench(page, KIOSKS);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    await page.click('stack');
    await page.find('stack-panel');
    const kiosks = FILE[0].split(',').slice(1);
    await page.untilText('stack-says', `365 records and ${kiosks.length} columns make`);
    // The day is no kiosk: taken too, it is told.
    const [day] = await page.all('[data-test=stack-panel] .columns input');
    await day.click();
    expect(await page.untilText('stack-says', 'cannot stand in one column')).toContain('Day');
    await day.click();
    await page.untilText('stack-says', `365 records and ${kiosks.length} columns make`);
    await write('stack-name', 'Kiosk');
    await write('stack-value', 'Sales');
    await write('list-name', 'Sales by kiosk');
    expect(await allFaults(page)).toEqual([]);
    stacked = await madeBench();
    expect(await grand()).toBe(totalOf(FILE));
    const groups = (await seenLines(page)).map(({ label }) =>
      label.replace(/ ?[\d,]+$/, '').trim(),
    );
    expect(kiosks.every((kiosk) => groups.includes(kiosk))).toBe(true);
  });

  it('unstacked again they are the list that they were', async () => {
    await page.click('unstack');
    await page.choose('unstack-name', 'Kiosk');
    await page.choose('unstack-value', 'Sales');
    await page.untilText('unstack-says', 'Columns for');
    expect(await allFaults(page)).toEqual([]);
    await madeBench();
    expect(await page.text('save-state')).toBeTruthy();
    const sums = (await seenFoot(page, 'all')).slice(-(FILE[0].split(',').length - 1)).map(number);
    expect(sums.reduce((a, b) => a + b, 0)).toBe(totalOf(FILE));
    expect((await onShelf('Sales for each Kiosk'))?.records).toBe(365);
  });

  it('the rows of a tally, frozen as of today', async () => {
    await openTray(page, SAILINGS);
    await openTally(page, 'periods-1');
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('make a list of the rows');
    await page.type(Key.ENTER);
    await page.find('rows-panel');
    await page.untilText('rows-says', 'Columns: Period');
    await page.press('frozen as of today', '[data-test=rows-panel]');
    await madeBench();
    const quarters = await onShelf('Fares by quarter');
    expect(quarters?.records).toBe(14);
    expect(quarters?.origin?.frozen).toMatch(/^\d{4}-\d\d-\d\d$/);
  });

  it('the shelf says what they follow and feed, finds and sorts them', async () => {
    await page.go('/');
    const origins = await Promise.all(
      (await page.all('[data-test=origin]')).map((e) => e.getText()),
    );
    expect(origins.some((words) => words.includes('follows Kiosk sales 2025, Bench 1'))).toBe(true);
    expect(origins.some((words) => /frozen on .+ from Sailings 2023–26, Bench 1/.test(words))).toBe(
      true,
    );
    const names = async (): Promise<string[]> =>
      Promise.all((await page.all('[data-test=list] th a')).map((e) => e.getText()));
    await (await page.find('find-list')).sendKeys('kiosk');
    await page.until('three lists', async () => (await names()).length === 3);
    await page.click('shelf-sort-name');
    expect(await names()).toEqual(['Kiosk sales 2025', 'Sales by kiosk', 'Sales for each Kiosk']);
    expect((await onShelf('Kiosk sales 2025'))?.feeds).toEqual(['Sales by kiosk']);
    expect(await allFaults(page)).toEqual([]);
  });

  it('a list cannot feed the bench that it follows, and that is said', async () => {
    await openBench(page, KIOSKS);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    await page.click('new-made');
    await page.press('other list');
    expect(await page.untilText('join-followers', 'cannot feed it')).toContain('“Sales by kiosk”');
  });

  it('refreshed, its source takes it along, after a power cut too; nothing else can', async () => {
    const longer = [...FILE, ['2026-01-01', ...FILE[1].split(',').slice(1)].join(',')];
    const file = madeFile('kiosks.csv', `${longer.join('\n')}\n`);
    await choose(page, file, KIOSK_LIST);
    await untilRead(page);
    await page.run('document.activeElement?.blur()');
    await page.until(
      'that it can be accepted',
      async () => (await page.all('[data-test=accept]:not([disabled])')).length === 1,
    );
    await page.click('accept');
    await page.untilText('accepted', 'new reading was accepted');
    await server.kill();
    await server.start();
    await page.driver.get(server.address + stacked);
    await page.until('its ledger', async () => (await seenLines(page)).length > 0);
    expect(await grand()).toBe(totalOf(longer));
    expect((await onShelf('Sales by kiosk'))?.records).toBe(366 * 12);
    // It takes no file of its own.
    const list = (await onShelf('Sales by kiosk'))?.id ?? 0;
    const [{ id: reading }] = Readings.parse(await got(`/api/lists/${list}/readings`));
    const { recipe } = z
      .object({ recipe: z.unknown() })
      .parse(await got(`/api/readings/${reading}`));
    const { id } = z
      .object({ id: z.string() })
      .parse(await (await post('/api/intakes', {})).json());
    const given = {
      list,
      name: 'x',
      fileName: 'x.csv',
      records: 0,
      chunks: 1,
      doubts: [],
      setAside: [],
    };
    const refused = await post(`/api/intakes/${id}`, { ...given, recipe });
    expect([refused.status, await refused.text()]).toEqual([
      422,
      expect.stringContaining('made of another and takes no file'),
    ]);
    expect(await page.all('a[href^="/intake?list"]')).toEqual([]);
  });
});
