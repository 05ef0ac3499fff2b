import { beforeAll, describe, expect, it } from 'vitest';
import { Key } from './support/browser';
import { accept, choose, madeFile, untilRead } from './support/intake';
import { journey } from './support/journey';
import { seenTable } from './support/tally';

const { page } = journey();

/** Monthly takings of many kiosks: enough series that forecasting each takes seconds. */
const KIOSKS = 900;
const rows = Array.from({ length: KIOSKS }, (_, k) =>
  Array.from({ length: 48 }, (_, m) => {
    const month = String((m % 12) + 1).padStart(2, '0');
    return `K${k},${2020 + Math.floor(m / 12)}-${month}-15,${100 + ((k * 37 + m * 11) % 89)}.50`;
  }),
).flat();

beforeAll(async () => {
  await choose(page, madeFile('takings.csv', `Kiosk,Day,Takings\n${rows.join('\n')}\n`));
  await untilRead(page);
  await accept(page);
  await page.find('foot-counted');
});

async function wish(words: string): Promise<void> {
  await page.chord(Key.CONTROL, 'k');
  await (await page.find('finder')).sendKeys(words);
  await page.until('the forecast first', async () => {
    const [first] = await page.all('[role=dialog] [role=option][aria-selected=true]');
    return first !== undefined && (await first.getText()).includes('for each Kiosk');
  });
  await page.type(Key.ENTER);
}

describe('work that takes long', () => {
  it('shows how far it is, is stopped and undone by the keys', async () => {
    await wish('Takings for each Kiosk, next 12 months');
    const bar = async (): Promise<number> =>
      Number(
        await page.run<string | null>(
          `return document.querySelector('[data-test=working] [role=progressbar]')?.getAttribute('aria-valuenow') ?? null`,
        ),
      );
    const first = await page.until('a share', async () => (await bar()) || null);
    await page.until('a larger one', async () => (await bar()) > first);
    await page.run(`document.querySelector('[data-test=working] button').focus()`);
    await page.type(Key.ENTER);
    expect(await page.untilText('stopped', 'Stopped')).toContain('before there were figures');
    await page.run(
      `[...document.querySelectorAll('[data-test=stopped] button')].find((b) => b.textContent.startsWith('Undo: ')).focus()`,
    );
    await page.type(Key.ENTER);
    await page.find('foot-counted');
    expect(await page.all('[data-test=stopped]')).toEqual([]);
  });

  it('the report is stopped while it is made, and made anew; so is a file', async () => {
    await wish('Takings for each Kiosk, next 12 months');
    await page.find('working');
    await page.press('Stop', '[data-test=working]');
    await page.untilText('stopped', 'Stopped');
    await page.click('report-open');
    await page.untilText('errand', 'Making the report, 1 of 2 tallies');
    await page.press('Stop', '[data-test=errand]');
    expect(await page.untilText('report-stopped', 'Stopped')).toContain('before it was made');
    await page.press('Make the report', '[data-test=report-stopped]');
    await page.untilText('errand', 'Making the report');
    expect(await page.all('[data-test=report-stopped]')).toHaveLength(0);
    await page.press('Stop', '[data-test=errand]');
    await page.find('report-stopped');

    await page.press('Hand over');
    await page.choose('out-form', 'json');
    await page.click('save-report');
    await page.untilText('errand', 'Writing the report');
    await page.run(
      `[...document.querySelectorAll('[data-test=errand] button')].find((b) => b.textContent === 'Stop').click()`,
    );
    await page.untilText('notice', 'Stopped. Nothing was handed over.');
    expect(await page.all('[data-test=errand]')).toHaveLength(0);
    await page.type(Key.ESCAPE);
    await page.chord(Key.CONTROL, 'z');
    await (await page.all('[data-tally="ledger"]'))[0].click();
    await page.find('foot-counted');
  });

  it('after a stop, the same is computed in one act', async () => {
    await wish('Takings for each Kiosk, next 12 months');
    await page.find('working');
    await page.press('Stop', '[data-test=working]');
    await page.untilText('stopped', 'Stopped');
    await page.press('Compute', '[data-test=stopped]');
    await page.find('working');
    await page.until(
      'the figures of each kiosk',
      async () => (await seenTable(page, 'groups')).length > 0,
      45_000,
    );
    expect(await page.all('[data-test=working], [data-test=stopped]')).toEqual([]);
  });
});
