import { describe, expect, it } from 'vitest';
import { Key } from './support/browser';
import { accept, choose, madeFile, untilRead } from './support/intake';
import { journey } from './support/journey';
import { LAYOUT_FAULTS } from './support/layout';
import { REACH_FAULTS } from './support/reach';
import { openBench } from './support/ledger';

const { page } = journey();

/** Small, usual and large windows that an analyst works in. */
const SIZES = [
  [1024, 700],
  [1280, 800],
  [1920, 1080],
] as const;

/** What is cut, covered or too wide, in a window of each size; and what no key reaches. */
async function faultsInAll(sizes: typeof SIZES | [(typeof SIZES)[0]] = SIZES): Promise<string[]> {
  const found: string[] = [];
  for (const [width, height] of sizes) {
    await page.command('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: 1,
      mobile: false,
    });
    await page.driver.sleep(150);
    for (const fault of await page.run<string[]>(LAYOUT_FAULTS)) found.push(`${width}: ${fault}`);
  }
  for (const fault of await page.run<string[]>(REACH_FAULTS)) found.push(fault);
  return found;
}

/** Opens a tally of the open bench and waits for its figures. */
async function open(id: string): Promise<void> {
  await page.click(`tally-${id}`);
  await page.until('its figures', async () => (await page.all('[data-test^=figures-]')).length > 0);
}

const KINDS = [
  'frequency-1',
  'percentile-1',
  'conditional-1',
  'crosstab-1',
  'crosstab-2',
  'ranking-1',
  'periods-1',
  'forecast-1',
] as const;

describe('nothing is cut, covered, wider than the window or out of reach of the keys, in small and large ones', () => {
  it('on the pages beside the bench', async () => {
    for (const path of ['/', '/lists/6', '/intake', '/keys', '/nowhere']) {
      await page.go(path);
      await page.driver.sleep(300);
      expect(await faultsInAll(), path).toEqual([]);
    }
  });

  it('on the demo’s ledger, its tallies, the questions and the report', async () => {
    await openBench(page, '/benches/6');
    expect(await faultsInAll(), 'the ledger').toEqual([]);
    for (const id of KINDS) {
      await open(id);
      expect(await faultsInAll(), id).toEqual([]);
    }
    // Behind a figure, a column, and all of it once more where nothing counts.
    await page.run(`document.querySelector('td.opens')?.click()`);
    await page.find('behind');
    expect(await faultsInAll(), 'behind a figure').toEqual([]);
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('only delay at least 5000');
    await page.until('the step', async () =>
      (await page.text('finder-list')).includes('Narrow to: Delay is at least 5,000'),
    );
    expect(await faultsInAll(), 'the finder').toEqual([]);
    await page.type(Key.ENTER);
    await page.untilText('counted', /^Counted ?0/);
    for (const id of ['ledger', ...KINDS]) {
      await page.click(`tally-${id}`);
      await page.driver.sleep(250);
      // Where little is shown, the smallest window is the one that could cut it.
      expect(await faultsInAll([SIZES[0]]), `${id}, nothing counted`).toEqual([]);
    }
    await page.chord(Key.CONTROL, 'z');
    await page.click('new-tally');
    await page.find('question-ledger');
    expect(await faultsInAll(), 'the questions').toEqual([]);
    await page.click('report-open');
    await page.untilText('pages', 'page');
    expect(await faultsInAll(), 'the report').toEqual([]);
  });

  it('with a file of no record, which makes no list', async () => {
    await choose(page, madeFile('none.csv', 'route,fares\n'));
    await page.until('what is wrong', async () =>
      (await page.run<string>('return document.body.innerText')).includes(
        'The file holds a header and no records below it.',
      ),
    );
    expect(await faultsInAll()).toEqual([]);
  });

  it.each([
    ['one record', 'route,fares\nNessness,12.50\n'],
    ['one column', `route\n${'Nessness\nSkerry Bank\n'.repeat(20)}`],
    [
      '300 columns',
      `${Array.from({ length: 300 }, (_, k) => `measure ${k + 1}`).join()}\n${`${Array.from({ length: 300 }, (_, k) => k * 7).join()}\n`.repeat(30)}`,
    ],
    [
      'names without an end',
      `${'the route as the harbour office writes it '.repeat(3)},${'fares'.repeat(30)}\n${`${'Holm and the Inner Isles by way of Nessness '.repeat(4)},1234567.25\n`.repeat(25)}`,
    ],
  ])('with a list of %s', async (name, text) => {
    await choose(page, madeFile(`${name}.csv`, text));
    await untilRead(page);
    expect(await faultsInAll(), 'intake').toEqual([]);
    await accept(page);
    await page.find('foot-counted');
    expect(await faultsInAll(), 'the ledger').toEqual([]);
    await page.click('new-tally');
    await page.find('question-ledger');
    expect(await faultsInAll(), 'the questions').toEqual([]);
  });
});
