import type { Page } from './browser';

/** The ledger as it stands on the page: each line's label and cells. */
export interface SeenLine {
  readonly label: string;
  readonly cells: string[];
  readonly kind: string;
}

const SEEN = `return [...document.querySelectorAll('[data-line]')].map((row) => ({
  kind: ['group', 'total', 'record'].find((k) => row.classList.contains(k)),
  label: row.querySelector('[role=rowheader]').textContent.replace(/\\s+/g, ' ').replace(/[▾▸]/g, '').trim(),
  cells: [...row.querySelectorAll('[role=gridcell]')].map((c) => c.textContent.trim()),
}))`;

export const seenLines = (page: Page): Promise<SeenLine[]> => page.run<SeenLine[]>(SEEN);

/** Heads of the ledger's columns: name, and measure with unit. */
export const seenHeads = (page: Page): Promise<string[]> =>
  page.run<string[]>(
    `return [...document.querySelectorAll('[data-test=head]')].map((h) => h.querySelector('.name').textContent + '|' + h.querySelector('.unit').textContent.trim())`,
  );

export const seenFoot = (page: Page, line: 'all' | 'narrowed' | 'counted'): Promise<string[]> =>
  page.run<string[]>(
    `return [...document.querySelectorAll('[data-test=foot-${line}] > div')].map((c) => c.textContent.trim())`,
  );

/** Opens a bench and waits for its first line or footing. */
export async function openBench(page: Page, where: string): Promise<void> {
  await page.go(where);
  await page.find('foot-counted');
}

export async function showDown(page: Page, level: string): Promise<void> {
  await page.press(level, '.levels');
  await page.until(`level ${level}`, async () =>
    page.run<boolean>(
      `return [...document.querySelectorAll('[data-test=level]')].some((b) => b.textContent.trim() === arguments[0] && b.dataset.state === 'checked')`,
      level,
    ),
  );
}

/** The number that stands in a cell, without what is said beside it of the records it leaves out. */
export const number = (text: string): number =>
  Number(
    text
      .replace(/\s*([\d,]+ of [\d,]+|◦)(, a sum of .*)?$/s, '')
      .replaceAll(',', '')
      .replace('−', '-'),
  );
