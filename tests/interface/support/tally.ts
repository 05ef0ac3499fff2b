import type { Page } from './browser';

/** A figure table as it stands on the page, without its head. */
export const seenTable = (page: Page, name = 'main'): Promise<string[][]> =>
  page.run<string[][]>(
    `return [...document.querySelectorAll('[data-test="figures-' + arguments[0] + '"] tbody tr[aria-rowindex]')].map((row) =>
       [...row.querySelectorAll('td')].map((cell) => cell.textContent.replace(/[▾▸]/g, '').replace(/\\s+/g, ' ').trim()))`,
    name,
  );

/** Begins a tally with the first answer of its kind. */
export async function beginTally(page: Page, kind: string): Promise<void> {
  await page.click('new-tally');
  await page.click(`question-${kind}`);
  await page.find('figures-main');
  await figuresCame(page);
}

/** Opens a tally of the tray, and waits for its figures. */
export async function openTally(page: Page, id: string): Promise<void> {
  await page.click(`tally-${id}`);
  await page.find('figures-main');
  await figuresCame(page);
}

/** Waits until nothing is being computed any more. */
export const figuresCame = (page: Page): Promise<boolean> =>
  page.until('the figures', () =>
    page.run<boolean>(
      `return document.querySelector('[data-test="tally"]') !== null && document.querySelector('[data-test="tally"].dimmed') === null`,
    ),
  );

/** Opens a bench, whatever tally of it is open, and waits for What counts. */
export async function openTray(page: Page, where: string): Promise<void> {
  await page.go(where);
  await page.find('new-tally');
  await page.until('the figures', () =>
    page.run<boolean>(
      `return document.querySelector('[data-test="foot-counted"], [data-test^="figures-"]') !== null`,
    ),
  );
}
