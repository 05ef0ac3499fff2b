import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { By, type Page } from './browser';

const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-made-'));

/** A file of the test's own. */
export function madeFile(name: string, content: string | Uint8Array): string {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  return file;
}

/** Takes away what an intake before left to go on with. */
async function clearDesk(page: Page): Promise<void> {
  await page.go('/keys');
  await page.driver.executeAsyncScript(
    `const done = arguments[0];
     const open = indexedDB.open('tally-loft-desk');
     open.onupgradeneeded = () => open.result.createObjectStore('intakes');
     open.onsuccess = () => {
       const tx = open.result.transaction('intakes', 'readwrite');
       tx.objectStore('intakes').clear();
       tx.oncomplete = () => { open.result.close(); done(); };
     };`,
  );
}

/** Chooses a file on the intake page. @param adds to add it to the list that is there */
export async function choose(page: Page, file: string, list?: number, adds = false): Promise<void> {
  await clearDesk(page);
  await page.go(list === undefined ? '/intake' : `/intake?list=${list}${adds ? '&add' : ''}`);
  await (await page.find('file')).sendKeys(file);
}

/** Waits until the whole file was read; gives what the state line says. */
export const untilRead = (page: Page): Promise<string> => page.untilText('state', /record(s)?, /);

export const doubtTexts = (page: Page): Promise<string[]> =>
  page.run<string[]>(
    `return [...document.querySelectorAll('[data-test=doubts] summary')].map((s) => s.firstChild.textContent.trim())`,
  );

export const previewRow = (page: Page, n: number): Promise<string[]> =>
  page.run<string[]>(
    `return [...document.querySelectorAll('[data-test=preview] tbody tr')][arguments[0]] ? [...[...document.querySelectorAll('[data-test=preview] tbody tr')][arguments[0]].cells].slice(1).map((c) => c.textContent.trim()) : []`,
    n,
  );

/** Accepts the newer reading of a list that is there. */
export async function acceptReading(page: Page): Promise<void> {
  await page.run('document.activeElement?.blur()');
  await page.until(
    'that it can be accepted',
    async () => (await page.all('[data-test=accept]:not([disabled])')).length === 1,
  );
  await page.click('accept');
  await page.untilText('accepted', 'new reading was accepted');
}

/** Accepts by the keys; waits for the bench and gives its number. */
export async function accept(page: Page): Promise<number> {
  await page.run('document.activeElement?.blur()');
  await page.until(
    'that it can be accepted',
    async () => (await page.all('[data-test=accept]:not([disabled])')).length === 1,
  );
  await (await page.find('accept')).click();
  return page.until('the bench', async () => {
    const found = /\/benches\/(\d+)$/.exec(await page.driver.getCurrentUrl());
    return found ? Number(found[1]) : null;
  });
}

export const shelfNames = async (page: Page): Promise<string[]> => {
  await page.go('/');
  const names: string[] = [];
  for (const a of await page.driver.findElements(By.css('[data-test=list] th a')))
    names.push(await a.getText());
  return names;
};
