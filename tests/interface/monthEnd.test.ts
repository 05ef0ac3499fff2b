import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { By, Key } from './support/browser';
import { accept, acceptReading, choose, doubtTexts, madeFile, untilRead } from './support/intake';
import { journey } from './support/journey';
import { figuresCame, seenTable } from './support/tally';

const { server, page } = journey();
const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-month-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const ROUTES = ['Holm', 'Ness', 'Skerry'];
/** Crossings of a month, each with a ticket of its own: fares of 10, 20 and 30 by route. */
const crossings = (month: number, days: number): string[] =>
  Array.from({ length: days }, (_, d) =>
    ROUTES.map(
      (route, r) =>
        `T${month}${String(d).padStart(2, '0')}${r},2025-${String(month).padStart(2, '0')}-${String(d + 1).padStart(2, '0')},${route},${(r + 1) * 10}.50`,
    ),
  ).flat();
const HEAD = 'Ticket,Day,Route,Fares';
const march = crossings(3, 30);
// A slip of the pen: one fare of Holm was typed without its point, and one of Ness is no number.
march[0] = march[0].replace('10.50', '1050000');
march[4] = march[4].replace('20.50', 'lost');
/** 29 of 30 fares that are right: the absurd one set aside. */
const HOLM_IN_MARCH = '304.50';
const april = [...march, ...crossings(4, 20)];
/** 49 of them, with April's. */
const HOLM_IN_APRIL = '514.50';

/** What the browser prints. */
async function printed(): Promise<string> {
  const file = path.join(folder, 'report.pdf');
  writeFileSync(file, await page.print());
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
}
async function report(): Promise<string> {
  await page.click('report-open');
  await page.untilText('pages', /^\d+ pages?$/);
  return page.until('the pages', () =>
    page.run<string>(
      `return [...document.querySelectorAll('[data-test=page]')].map((p) => p.innerText).join('\\n')`,
    ),
  );
}
const holm = async (): Promise<string[]> =>
  page.until('Holm', async () => (await seenTable(page)).find((row) => row.includes('Holm')));

describe('a month’s end, from the file to the paper', () => {
  it('is read and checked, the slip found behind its figure and set aside', async () => {
    await choose(page, madeFile('crossings.csv', `${HEAD}\n${march.join('\n')}\n`));
    await untilRead(page);
    expect((await doubtTexts(page)).join('\n')).toMatch(/not read|unread|cannot be read/i);
    await accept(page);
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('rank Route by Fares');
    await page.until('the ranking first', async () => {
      const [first] = await page.all('[role=dialog] [role=option][aria-selected=true]');
      return first !== undefined && (await first.getText()).includes('Each Route ranked by');
    });
    await page.type(Key.ENTER);
    await figuresCame(page);
    expect((await holm()).join(' ')).toContain('1,050,304.50');
    const cell = await page.until('its figure', async () => {
      for (const found of await page.all('[data-test=figures-main] tbody td'))
        if ((await found.getText()).startsWith('1,050,304.50')) return found;
      return null;
    });
    await cell.click();
    await page.untilText('behind', '1,050,000');
    await page.press('Set it aside');
    await page.until('the figure without it', async () =>
      (await holm()).join(' ').includes(HOLM_IN_MARCH),
    );
  });

  it('agrees with the books, and goes out on paper', async () => {
    await (await page.find('known')).sendKeys(HOLM_IN_MARCH, Key.ENTER);
    await (await page.find('known-source')).sendKeys('the books', Key.ENTER);
    await page.untilText('known-open', '1 agrees');
    const pages = await report();
    expect(pages).toContain(HOLM_IN_MARCH);
    expect(pages).toContain('set aside by hand');
    const paper = await printed();
    expect(paper).toContain(HOLM_IN_MARCH);
    expect(paper).not.toContain('1,050,304.50');
    await page.untilText('save-state', /^saved$/);
  });

  it('next month’s file is read by the recipe; what moved is told, and the same report goes out', async () => {
    const Shelf = z.object({ lists: z.array(z.looseObject({ id: z.int(), name: z.string() })) });
    const { lists } = Shelf.parse(await (await fetch(`${server.address}/api/lists`)).json());
    const list = lists.find(({ name }) => name === 'crossings')?.id;
    await choose(page, madeFile('crossings.csv', `${HEAD}\n${april.join('\n')}\n`), list);
    await untilRead(page);
    await acceptReading(page);
    await page.click('see-moved');
    await page.find('figures-main');
    const told = await page.untilText('warnings', 'The records explain every difference');
    expect(told).toContain('60 records came, 0 went, 0 changed');
    // The slip is still set aside, whatever its number; the books of March no longer agree.
    expect(await page.driver.findElement(By.css('nav')).then((rail) => rail.getText())).toContain(
      'Set aside by hand',
    );
    await page.untilText('known-open', '1 of 1 differs');
    const pages = await report();
    expect(pages).toContain(HOLM_IN_APRIL);
    const paper = await printed();
    expect(paper).toContain(HOLM_IN_APRIL);
    expect(paper).toContain(HOLM_IN_MARCH);
  });
});
