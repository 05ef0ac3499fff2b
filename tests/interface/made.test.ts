import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { sailingsInSql } from '../support/sql';
import { allFaults } from './support/axe';
import { By, Key } from './support/browser';
import { choose, untilRead } from './support/intake';
import { number, openBench, seenFoot, seenHeads, seenLines, showDown } from './support/ledger';
import { journey } from './support/journey';

const { page } = journey();

const SAILINGS = '/benches/6';
const KIOSKS = '/benches/4';

/** Writes in the place of what a field holds. */
async function write(test: string, text: string): Promise<void> {
  const field = await page.find(test);
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text);
}
const untilNotice = (part: string): Promise<string> => page.untilText('notice', part);

describe('made columns', () => {
  it('worked out by keys alone: completed, its fault mended, kept, averaged, undone', async () => {
    await openBench(page, SAILINGS);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    await (await page.all('[data-line]'))[0].click();
    await page.type('c');
    await page.find('made-panel');
    await page.until('the editor', async () =>
      page.run<boolean>(`return document.activeElement.classList.contains('cm-content')`),
    );
    await page.type('"Fares');
    await page.until(
      'what completes it',
      async () => (await page.all('.cm-tooltip-autocomplete li')).length === 1,
    );
    // A list that has just come up takes no key yet, so that none is taken unseen.
    await page.driver.sleep(400);
    await page.type(Key.ENTER);
    await page.until('the name completed', async () =>
      page.run<boolean>(
        `return document.querySelector('.cm-content').textContent === '"Fares taken"'`,
      ),
    );
    await page.type(' / NULLIF(boarde, 0)');
    expect(await page.untilText('made-fault', 'Character 24')).toContain('no column “boarde”');
    await page.chord(Key.ALT, Key.ENTER);
    const outcome = await page.untilText('made-outcome', 'From');
    const sql = sailingsInSql();
    const got = sql
      .prepare(
        `select count(fares / nullif(boarded, 0)) n, sum(boarded = 0) zero,
         sum(boarded is null or fares is null) blank from s`,
      )
      .get() as { n: number; zero: number; blank: number };
    expect(outcome).toContain(`in ${got.n.toLocaleString('en')} records`);
    expect(outcome).toContain(`${got.zero} where it has no value`);
    await write('made-name', 'Fare a head');
    await write('made-unit', '£');
    await (await page.find('made-name')).sendKeys(Key.ENTER);
    await untilNotice('Make the column Fare a head');

    // What can be asked of it stands in its panel.
    await page.untilText('column-panel', 'Fare a head');
    await page.press('mean', '[data-test=column-panel]');
    await page.until('its head', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('Fare a head|mean, £')),
    );
    const mean = sql
      .prepare('select avg(fares / nullif(boarded, 0)) m from s')
      .pluck()
      .get() as number;
    const foot = await seenFoot(page, 'counted');
    expect(number(foot.at(-1) ?? '')).toBeCloseTo(mean, 2);
    expect(await page.text('made-0')).toContain('Fare a head');
    await page.click('undo');
    await page.click('undo');
    await page.until(
      'no made column',
      async () => (await page.all('[data-test=made-0]')).length === 0,
    );
    await page.click('redo');
    await page.click('redo');
    await page.untilText('made-0', 'Fare a head');
  });

  it('its panel goes with it when its making is undone, and the page stays whole', async () => {
    await page.click('made-0');
    await page.find('made-panel');
    await page.click('undo');
    await page.find('made-panel');
    await page.click('undo');
    await page.until(
      'no panel',
      async () =>
        (await page.all('[data-test=made-panel]')).length === 0 &&
        (await page.all('[data-test=made-0]')).length === 0,
    );
    await page.click('redo');
    await page.click('redo');
    await page.until('its head', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('Fare a head|mean')),
    );
  });

  it('is changed and renamed where it stands, and says where it is used before it goes', async () => {
    await page.click('made-0');
    await page.find('made-panel');
    await write('made-name', 'Fare for each');
    await page.until('that it can be kept', async () => (await page.find('made-keep')).isEnabled());
    await page.click('made-keep');
    await page.until('the new name', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('Fare for each|')),
    );
    await page.click('made-0');
    await page.click('made-out');
    expect(await page.untilText('made-uses', 'Used by')).toContain('the tally');
    await page.press('Take it out all the same');
    await page.untilText('notice', 'Take out the column');
    await page.click('undo');
    await page.until('it is back', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('Fare for each|')),
    );
  });

  it('outlives a reload, on the bench’s own document', async () => {
    await page.untilText('save-state', /^saved$/);
    await openBench(page, SAILINGS);
    await page.untilText('made-0', 'Fare for each');
    await page.click('made-0');
    await page.find('made-panel');
    expect(await allFaults(page)).toEqual([]);
  });

  it('from another list: keys proposed, the match as a count, and a figure by both lists', async () => {
    await openBench(page, SAILINGS);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    await page.click('new-made');
    await page.press('other list');
    await page.choose('join-list', 'Vessels');
    expect(await page.untilText('join-meets', 'find')).toContain('17,631 of 17,631 records');
    await page.click('bring-passengers');
    await page.until('that it can be kept', async () => (await page.find('join-keep')).isEnabled());
    await page.click('join-keep');
    await page.untilText('column-panel', 'Passengers');
    await page.untilText('join-0', 'from Vessels');

    // The share of the seats taken, from both.
    await page.click('new-made');
    await page.find('made-expression');
    await page.type('100 * Boarded / NULLIF(Passengers, 0)');
    await page.untilText('made-outcome', 'Number, in');
    await write('made-name', 'Seats taken');
    await (await page.find('made-name')).sendKeys(Key.ENTER);
    await page.untilText('column-panel', 'Seats taken');
    await page.press('mean', '[data-test=column-panel]');
    await page.until('its head', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('Seats taken|mean')),
    );
    const sql = sailingsInSql();
    sql.exec('create table v (vessel text, seats real)');
    for (const line of readFileSync('demo/vessels.csv', 'utf8').trim().split(/\r?\n/).slice(1)) {
      const [vessel, , seats] = line.split(',');
      sql.prepare('insert into v values (?, ?)').run(vessel, Number(seats));
    }
    const mean = sql
      .prepare('select avg(100.0 * boarded / nullif(seats, 0)) from s join v using (vessel)')
      .pluck()
      .get() as number;
    expect(number((await seenFoot(page, 'counted')).at(-1) ?? '')).toBeCloseTo(mean, 1);
    // The server computes the same of the saved bench, the other list at hand.
    await page.untilText('save-state', /^saved$/);
    const served = await page.run<{ faults: unknown[]; heads: { name: string }[] }>(
      `return fetch('/api/benches/6/ledger').then((r) => r.json())`,
    );
    expect(served.faults).toEqual([]);
    expect(served.heads.map((h) => h.name)).toContain('Seats taken');
    // Without the list's columns what rests on them says so; undone, all is back.
    await page.click('join-0');
    await page.click('join-out');
    await page.press('Take them out all the same');
    await page.untilText('made-1', 'at fault');
    await page.click('undo');
    await page.until('all is back', async () => !(await page.text('made-1')).includes('at fault'));
  });

  it('a brought column is renamed where it stands, and is told when its list was read anew', async () => {
    await openBench(page, SAILINGS);
    const seats = async (): Promise<string | undefined> =>
      (await seenHeads(page)).find((head) => head.startsWith('Seats taken|mean'));
    await page.until('the ledger', async () => (await seats()) !== undefined);
    await page.click('join-0');
    await page.find('bring-passengers');
    const name = await page.driver.findElement(By.css('[aria-label="Name of Passengers here"]'));
    await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Plätze "neu" 渡し');
    await page.until('that it can be kept', async () => (await page.find('join-keep')).isEnabled());
    await page.click('join-keep');
    await page.untilText('column-panel', 'Plätze "neu" 渡し');
    await page.untilText('join-0', 'Plätze "neu" 渡し');
    // What rests on it finds it as before.
    expect(await page.text('made-1')).not.toContain('at fault');
    expect(await seats()).toBeDefined();
    await page.untilText('save-state', /^saved$/);

    await choose(page, path.resolve('demo/vessels.csv'), 5);
    await untilRead(page);
    await page.run('document.activeElement?.blur()');
    await page.until(
      'that it can be accepted',
      async () => (await page.all('[data-test=accept]:not([disabled])')).length === 1,
    );
    await page.click('accept');
    await page.untilText('accepted', 'new reading was accepted');
    await openBench(page, SAILINGS);
    await page.untilText('read-anew', 'Vessels was read anew on');
    expect(await page.text('read-anew')).toContain('Plätze "neu" 渡し follows it.');
    // It is told until it is taken note of, and is then known for good.
    await openBench(page, SAILINGS);
    await page.untilText('read-anew', 'Vessels was read anew on');
    await page.press('Good');
    await page.until(
      'that it goes',
      async () => (await page.all('[data-test=read-anew]')).length === 0,
    );
    await page.untilText('save-state', /^saved$/);
    await openBench(page, SAILINGS);
    await page.until('the ledger', async () => (await seats()) !== undefined);
    expect(await page.all('[data-test=read-anew]')).toEqual([]);
  });

  it('a step by the values of another list’s column is made, kept, and counted', async () => {
    await openBench(page, SAILINGS);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    await page.click('narrow');
    const step = await page.find('step');
    const [column, test] = await step.findElements({ css: '.one-of' });
    await column.sendKeys('Vessel');
    await test.sendKeys('is one of the values of');
    await page.choose('listed-list', 'Vessels');
    await page.untilText('preview', 'keeps 17,631');
    await page.choose('listed-column', 'home_route');
    await page.untilText('preview', 'keeps 0');
    await page.choose('listed-column', 'vessel');
    await page.untilText('preview', 'keeps 17,631');
    await page.press('Narrow');
    await page.until(
      'the step',
      async () =>
        (await page.all('[data-test=rung]')).length > 0 ||
        (await page.text('counted')).includes('17,631'),
    );
    await page.untilText('save-state', /^saved$/);
    await openBench(page, SAILINGS);
    await page.untilText('counted', '17,631');
  });

  it('across columns: the total of each day over the kiosks, and the best kiosk', async () => {
    await openBench(page, KIOSKS);
    await page.click('new-made');
    await page.press('across');
    const outcome = await page.untilText('made-outcome', 'Number, in');
    expect(outcome).toContain('365 records');
    await write('made-name', 'All kiosks');
    await (await page.find('made-name')).sendKeys(Key.ENTER);
    await untilNotice('Make the column All kiosks');
    const lines = readFileSync('demo/kiosks.csv', 'utf8').trim().split(/\r?\n/).slice(1);
    const total = (line: string): number =>
      line
        .split(',')
        .slice(1)
        .reduce((sum, cell) => sum + Number(cell || 0), 0);
    await showDown(page, 'Records').catch(() => undefined);
    await page.until('its head', async () =>
      (await seenHeads(page)).some((head) => head.startsWith('All kiosks')),
    );
    const at = (await seenHeads(page)).findIndex((head) => head.startsWith('All kiosks'));
    const [first] = await seenLines(page);
    expect(number(first.cells[at])).toBe(total(lines[0]));
  });
});
