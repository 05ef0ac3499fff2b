// Takes the README's pictures of the demo at 1280x800. Run: npm run pictures
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { By, Key, Page } from '../../tests/interface/support/browser';
import { choose, untilRead } from '../../tests/interface/support/intake';
import { openBench, showDown } from '../../tests/interface/support/ledger';
import { beginTally, openTally, openTray } from '../../tests/interface/support/tally';
import { TestServer } from '../../tests/interface/support/server';

const folder = path.join(process.cwd(), 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const server = new TestServer();
await server.start();
const page = await Page.open(server.address);

/** Tallies of the demo's tray that have a picture, and its name. */
const TALLIES = [
  ['frequency-1', 'falls'],
  ['conditional-1', 'conditions'],
  ['ranking-1', 'ranking'],
  ['periods-1', 'periods'],
  ['forecast-1', 'forecast'],
] as const;

/** Takes a choice of the open menu by its words. */
async function chooseIn(words: string): Promise<void> {
  await page.until(`the choice ${words}`, async () => {
    for (const option of await page.all('.pop [role="option"]'))
      if ((await option.getText()).startsWith(words)) {
        await option.click();
        return true;
      }
    return null;
  });
}

async function picture(name: string): Promise<void> {
  await page.driver.sleep(700);
  writeFileSync(path.join(folder, `${name}.png`), await page.driver.takeScreenshot(), 'base64');
}

try {
  await page.go('/keys');
  await page.run(`localStorage.setItem('tally-loft-theme', 'light')`);
  await page.go('/');
  await picture('shelf');

  await choose(page, path.join(process.cwd(), 'demo/sailings.csv'));
  await untilRead(page);
  await page.driver.findElement(By.xpath("//summary[contains(., 'Delay')]")).click();
  await picture('intake');

  await openBench(page, '/benches/6');
  await picture('ledger-folded');

  await page.click('new-tally');
  await page.until(
    'all first answers',
    async () => (await page.all('[data-test=chooser] svg')).length >= 11,
  );
  await page.driver.sleep(1500);
  await picture('chooser');
  await page.type(Key.ESCAPE);
  for (const [id, name] of TALLIES) {
    await openTally(page, id);
    if (name === 'periods') await page.press('years over one another');
    await picture(name);
  }
  await beginTally(page, 'contributions');
  await page.press('Route', '[data-test="sentence"]');
  await chooseIn('Vessel');
  await page.type(Key.ESCAPE);
  await page.untilText('sentence', 'for each Vessel');
  await picture('moved-it');
  await page.go('/benches/4');
  await page.find('new-tally');
  await beginTally(page, 'line');
  await picture('line');
  await openTray(page, '/benches/6');
  await page.click('tally-ledger');
  await page.find('foot-counted');

  await page.click('new-made');
  await page.find('made-expression');
  await page.type('"Fares taken" / NULLIF(Boarded, 0)');
  const made = await page.find('made-name');
  await made.clear();
  await made.sendKeys('Fare a head');
  await page.untilText('made-outcome', 'far off');
  await picture('made-column');
  await page.click('close-side');

  await page.click('narrow');
  await page.choose('condition-column', 'delay');
  await page.choose('condition-test', 'compare-ge-1');
  const value = await page.find('condition-value');
  await value.clear();
  await value.sendKeys('10');
  await page.untilText('preview', 'keeps');
  await page.press('+ join another condition');
  await page.driver.sleep(300);
  await picture('ladder-edited');
  await page.press('Cancel');
  await page.click('narrow');
  await page.choose('condition-column', 'delay');
  await page.choose('condition-test', 'compare-ge-1');
  const again = await page.find('condition-value');
  await again.clear();
  await again.sendKeys('10');
  await page.untilText('preview', 'keeps');
  await page.click('accept-rung');
  await page.find('rung');

  await showDown(page, 'Records');
  await page.driver.sleep(500);
  await (await page.find('ledger')).click();
  await page.type(Key.HOME, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, 'a');
  await page.untilText('notice', 'Set aside');
  await page.type(Key.ESCAPE, Key.HOME);
  await picture('ledger-grouped');

  await showDown(page, 'Vessel');
  await page.driver.sleep(400);
  const figures = await page.all('.row.group [role=gridcell].figure');
  await figures[3].click();
  await page.find('behind');
  await picture('behind');

  await page.type(Key.ESCAPE);
  await page.chord(Key.CONTROL, 'k');
  await (await page.find('finder')).sendKeys('top 3 vessels by fares in 2024 without gale per pot');
  await page.find('first-figures');
  await picture('wish');
  await page.type(Key.ESCAPE);
  await page.chord(Key.CONTROL, 'k');
  await (await page.find('finder')).sendKeys('delay facts', Key.ENTER);
  await page.find('column-panel');
  await picture('column');

  await page.type(Key.ESCAPE);
  await page.click('report-open');
  await page.untilText('pages', /^\d+ pages$/);
  await page.find('page');
  await page.driver.sleep(1500);
  await picture('report');

  await page.type(Key.ESCAPE);
  await page.run(`document.documentElement.dataset.mode = 'dark'`);
  await openTally(page, 'crosstab-1');
  await picture('dark');
} finally {
  await page.close();
  await server.stop();
}
