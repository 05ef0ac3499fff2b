import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoPath } from '../support/demo';
import { Key, Page } from './support/browser';
import { choose, untilRead } from './support/intake';
import { openBench, showDown } from './support/ledger';
import { TestServer } from './support/server';

const server = new TestServer();
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
let page: Page;

beforeAll(async () => {
  await server.start();
  page = await Page.open(server.address);
});
afterAll(async () => {
  await page.close();
  await server.stop();
});

interface Finding {
  id: string;
  impact: string;
  nodes: { html: string; failureSummary: string }[];
}

/** Serious and critical faults by WCAG 2.2 AA, with the elements concerned. */
async function faults(): Promise<string[]> {
  const found = await page.driver.executeAsyncScript<Finding[]>(
    `const done = arguments[arguments.length - 1];
     ${axe};
     axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then((r) => done(r.violations));`,
  );
  return found
    .filter((f) => f.impact === 'serious' || f.impact === 'critical')
    .flatMap((f) =>
      f.nodes
        .slice(0, 3)
        .map((n) => `${f.id}: ${n.html.slice(0, 160)} — ${n.failureSummary.slice(0, 200)}`),
    );
}

const wait = (): Promise<void> => page.driver.sleep(400);

const VIEWS: readonly (readonly [string, () => Promise<void>])[] = [
  ['the shelf', () => page.go('/')],
  ['the keys', () => page.go('/keys')],
  ['a list', () => page.go('/lists/6')],
  ['a page that is not there', () => page.go('/nowhere')],
  [
    'intake',
    async () => {
      await choose(page, demoPath('sailings'));
      await untilRead(page);
    },
  ],
  ['the ledger by groups', () => openBench(page, '/benches/6')],
  [
    'the ledger with records and a record’s panel',
    async () => {
      await openBench(page, '/benches/6');
      await showDown(page, 'Records');
      const cell = await page.until(
        'a record',
        async () => (await page.all('.row.record [role=gridcell]'))[0],
      );
      await cell.click();
      await page.find('record-panel');
    },
  ],
  [
    'a column’s panel',
    async () => {
      await openBench(page, '/benches/6');
      await page.click('head');
      await page.find('column-panel');
    },
  ],
  [
    'behind a figure',
    async () => {
      await openBench(page, '/benches/6');
      await (
        await page.until(
          'a figure',
          async () => (await page.all('[data-test=foot-counted] button'))[0],
        )
      ).click();
      await page.find('behind');
    },
  ],
  [
    'a step being made',
    async () => {
      await openBench(page, '/benches/6');
      await page.click('narrow');
      await page.find('preview');
    },
  ],
  [
    'the finder',
    async () => {
      await openBench(page, '/benches/6');
      await page.chord(Key.CONTROL, 'k');
      await page.find('finder');
    },
  ],
];

describe.each(['light', 'dark'])('in the %s theme axe finds no serious fault', (theme) => {
  it.each(VIEWS)('on %s', async (_, open) => {
    await page.go('/keys');
    await page.run(`localStorage.setItem('tally-loft-theme', '${theme}')`);
    await open();
    await wait();
    expect(await faults()).toEqual([]);
  });
});
