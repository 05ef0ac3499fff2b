import { describe, expect, it } from 'vitest';
import { demoPath } from '../support/demo';
import { contrastFaults, seriousFaults } from './support/axe';
import { Key } from './support/browser';
import { choose, untilRead } from './support/intake';
import { openBench, showDown } from './support/ledger';
import { journey } from './support/journey';

const { page } = journey();

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
    const faults = theme === 'light' ? seriousFaults(page) : contrastFaults(page);
    expect(await faults).toEqual([]);
  });
});
