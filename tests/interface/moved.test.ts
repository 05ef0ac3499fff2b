import { describe, expect, it } from 'vitest';
import { sailingsInSql } from '../support/sql';
import { seriousFaults } from './support/axe';
import { By, Key } from './support/browser';
import { number } from './support/ledger';
import { journey } from './support/journey';
import { beginTally, figuresCame, openTally, openTray, seenTable } from './support/tally';

const { page } = journey();

const SAILINGS = '/benches/6';
const db = sailingsInSql();
const one = (query: string): Record<string, number> =>
  db.prepare(query).get() as Record<string, number>;

/** Opens a marked word of the sentence and takes a choice of its menu by its words. */
async function choose(word: string, choice: string): Promise<void> {
  await page.press(word, '[data-test="sentence"]');
  await page.until(`the choice “${choice}”`, async () => {
    for (const option of await page.all('.pop [role="option"]')) {
      if (!(await option.getText()).startsWith(choice)) continue;
      await option.click();
      return true;
    }
    return null;
  });
  await figuresCame(page);
}

/** The figure of a cell, whatever is said beside it. */
const figure = (cell: string): number => number(cell.replace(/ ?rests on one record$/, ''));

const rowOf = async (label: string, table = 'main'): Promise<string[]> => {
  const row = (await seenTable(page, table)).find(([first]) => first === label);
  if (!row) throw new Error(`no row ${label}`);
  return row;
};

describe('what moved it', () => {
  it('says which record the rise of fares rests on, sets it aside, and comes back', async () => {
    await openTray(page, SAILINGS);
    await beginTally(page, 'contributions');
    const years =
      one(`select sum(fares * (sailed_on like '2024%')) a, sum(fares * (sailed_on like '2025%')) b,
      max(fares * (sailed_on like '2025%')) far from s`);
    const change = await rowOf('Change');
    expect(figure(change[3])).toBeCloseTo(years.b - years.a, 2);
    expect(change[3]).toContain('rests on one record');
    expect(await page.text('warnings')).toContain('The change: Rests on record 11,206');

    // The figure opens to what it rests on, and that is set aside from there.
    const [cell] = await page.driver.findElements(
      By.xpath('//table[@data-test="figures-main"]//tr[td[contains(., "Change")]]/td[4]'),
    );
    await cell.click();
    expect(await page.text('rests')).toContain('without it');
    await page.click('rests-aside');
    await page.until('the change without it', async () => {
      const now = figure((await rowOf('Change'))[3]);
      return Math.abs(now - (years.b - years.a - years.far)) < 0.01;
    });
    expect((await rowOf('Change'))[3]).not.toContain('rests on one record');
    await page.click('undo');
    await page.until(
      'the change as it was',
      async () => Math.abs(figure((await rowOf('Change'))[3]) - (years.b - years.a)) < 0.01,
    );
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('between two groups, chosen from their names', async () => {
    await page.press('or two groups…', '[data-test="sentence"]');
    await page.press('or two groups…', '.pop');
    await figuresCame(page);
    expect(await page.text('refused')).toContain('No counted record is in a group “”');
    await choose('a group…', 'Nessness');
    await choose('a group…', 'Skerry Bank');
    await page.find('figures-main');
    const want = one(
      `select sum(fares * ((route = 'Skerry Bank') - (route = 'Nessness'))) d from s`,
    );
    expect(figure((await rowOf('Change'))[3])).toBeCloseTo(want.d, 2);
  });
});

describe('the line', () => {
  it('finds the record far off, opens it, and predicts', async () => {
    await beginTally(page, 'line');
    const [far] = await seenTable(page, 'far');
    expect(far[0]).toBe('11,206');
    expect(await page.text('sentence')).toContain('The line of Fares taken on Boarded');
    await page.press('and predict at…', '[data-test="sentence"]');
    await page.until('the field', () =>
      page.run<boolean>(`return document.activeElement?.matches('.pop input') ?? false`),
    );
    await page.type('100', Key.ENTER);
    await page.find('figures-predictions');
    await figuresCame(page);
    const fit =
      one(`with m as (select avg(boarded) mx, avg(fares) my from s where boarded is not null and fares is not null)
      select my + (100 - mx) * (select sum((boarded - mx) * (fares - my)) / sum((boarded - mx) * (boarded - mx))
        from s where boarded is not null and fares is not null) p from m`);
    const [predicted] = await seenTable(page, 'predictions');
    expect(number(predicted[1])).toBeCloseTo(fit.p, 1);
    expect(await seriousFaults(page)).toEqual([]);
  });
});

describe('series by groups', () => {
  it('gives each route a line and its own periods, by the keyboard', async () => {
    await openTally(page, 'periods-1');
    // The empty place for a key, reached without a pointer.
    await page.run(
      `[...document.querySelectorAll('[data-test="sentence"] button')].find((b) => b.textContent.includes('for each')).focus()`,
    );
    await page.type(Key.ENTER);
    await page.until('the menu', async () => (await page.all('.pop [role="option"]')).length > 0);
    await page.type('Route', Key.ARROW_DOWN, Key.ENTER);
    await page.find('figures-groups');
    await figuresCame(page);
    expect(await page.text('sentence')).toContain('for each Route');
    const want = one(
      "select sum(fares) f, count(*) n from s where route = 'Nessness' and sailed_on like '2025%'",
    );
    const rows = await seenTable(page, 'groups');
    const ness = rows.findIndex(([label]) => label === 'Nessness');
    const year = rows.slice(ness).find(([label]) => label === '2025');
    expect([number(year?.[1] ?? ''), number(year?.[2] ?? '')]).toEqual([want.n, want.f]);
    const names = await page.run<string[]>(
      `return [...document.querySelectorAll('figure svg.chart text')].map((t) => t.textContent)`,
    );
    for (const route of ['Holm and Inner Isles', 'Nessness', 'Outer Freight', 'Skerry Bank'])
      expect(names).toContain(route);
    expect(await seriousFaults(page)).toEqual([]);
  });

  it('carries each route on, and says how far their sum lies from the forecast of the sum', async () => {
    await openTally(page, 'forecast-1');
    await choose('for each…', 'Route');
    await page.find('figures-sums');
    await figuresCame(page);
    const sums = await seenTable(page, 'sums');
    expect(sums.length).toBe(12);
    for (const [, groups, whole, difference] of sums)
      expect(Math.abs(number(groups) - number(whole) - number(difference))).toBeLessThanOrEqual(1);
    expect(await page.text('warnings')).toMatch(/add up to [\d.]+ % (more|less) than the forecast/);
  });
});
