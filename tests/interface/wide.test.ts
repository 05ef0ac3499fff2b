import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { sailingsInSql } from '../support/sql';
import { Key } from './support/browser';
import { journey } from './support/journey';
import { number } from './support/ledger';
import { figuresCame, seenTable } from './support/tally';

const { server, page } = journey();

/** A new bench of the sailings that asks one tally, and its figures on the page. */
async function asking(tally: object): Promise<void> {
  const headers = { 'content-type': 'application/json', origin: server.address };
  const shelf = await (await fetch(`${server.address}/api/lists`)).json();
  const { lists } = z
    .object({ lists: z.array(z.object({ id: z.int(), name: z.string() })) })
    .parse(shelf);
  const sailings = lists.find(({ name }) => name.startsWith('Sailings'))?.id;
  const response = await fetch(`${server.address}/api/lists/${sailings}/benches`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ name: 'Wide', ask: { version: 2, tallies: [tally] } }),
  });
  const { id } = z.object({ id: z.int() }).parse(await response.json());
  await page.go(`/benches/${id}`);
  await page.find('figures-main');
  await figuresCame(page);
}
const columns = (): Promise<string> => page.text('columns-in-view');

describe('a cross-tab of more columns than are looked at together', () => {
  it('shows them in turn, by pointer and by keys, down to the column of the whole', async () => {
    await asking({
      kind: 'crosstab',
      down: [{ column: 'Vessel' }],
      across: [{ column: 'Sailed on', period: 'week' }],
      measures: [
        { kind: 'sum', column: 'Fares taken' },
        { kind: 'sum', column: 'Boarded' },
      ],
      count: true,
    });
    const sql = sailingsInSql();
    const boarded = sql.prepare('select sum(boarded) from s where vessel = ?').pluck();
    expect(await columns()).toContain('Columns of figures 1 to 96 of 555');
    expect((await seenTable(page))[0]).toHaveLength(97);

    await page.click('columns-last');
    await page.until('the last columns', async () => (await columns()).includes('481 to 555'));
    const [first] = await seenTable(page);
    expect(number(first.at(-1) ?? '')).toBe(boarded.get(first[0]));

    await page.click('columns-first');
    await page.until('the first columns', async () => (await columns()).includes('1 to 96'));
    const grid = await page.find('figures-main');
    await grid.sendKeys(...Array.from({ length: 96 }, () => Key.ARROW_RIGHT), Key.ARROW_RIGHT);
    await page.until('the next columns', async () => (await columns()).includes('97 to 192'));
    // The cursor stands on the first figure: its records open.
    await grid.sendKeys(Key.ENTER);
    const behind = await page.text('behind');
    expect(behind).toContain(first[0]);
    await page.run('document.querySelector(\'[data-test="figures-main"]\').focus()');
    await grid.sendKeys(Key.ARROW_LEFT, Key.ARROW_LEFT);
    await page.until('the columns before', async () => (await columns()).includes('1 to 96'));
  });

  it('does not make the page itself wider than its window', async () => {
    const over = await page.run<[number, number]>(
      'const e = document.documentElement; return [e.scrollWidth - e.clientWidth, e.scrollHeight - e.clientHeight]',
    );
    expect(over).toEqual([0, 0]);
  });
});

describe('a series of more periods than the table has at hand', () => {
  it('is drawn to its end, in the order of time, however the table is looked at', async () => {
    await asking({
      kind: 'periods',
      column: 'Sailed on',
      levels: ['day'],
      measures: [{ kind: 'sum', column: 'Fares taken' }],
    });
    const drawn = (): Promise<string> =>
      page.run<string>(`return document.querySelector('svg.chart path[d]').getAttribute('d')`);
    const points = async (): Promise<number> => (await drawn()).split(/[ML]/).length - 1;
    const days = sailingsInSql().prepare('select count(distinct sailed_on) from s').pluck().get();
    expect(await points()).toBe(Number(days));
    const before = await drawn();
    await page.run(
      `document.querySelector('[data-test="figures-main"]').parentElement.scrollTop = 20000`,
    );
    await page.until('rows further down', async () => (await seenTable(page)).length > 0);
    await figuresCame(page);
    expect(await drawn()).toBe(before);
  });
});
