import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from './browser';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Finding {
  readonly id: string;
  readonly impact: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

const found = (page: Page, options: object): Promise<Finding[]> =>
  inPage(page).then(() =>
    page.driver.executeAsyncScript<Finding[]>(
      `const done = arguments[arguments.length - 1];
       axe.run(document, arguments[0]).then((r) => done(r.violations));`,
      options,
    ),
  );

/** Half a megabyte, brought to a page once. */
async function inPage(page: Page): Promise<void> {
  if (!(await page.run<boolean>('return Boolean(window.axe)'))) await page.run(axe);
}

/** A line for each element concerned, of the first three of each fault. */
const told = (findings: readonly Finding[]): string[] =>
  findings.flatMap((f) =>
    f.nodes
      .slice(0, 3)
      .map((n) => `${f.id}: ${n.html.slice(0, 160)} — ${n.failureSummary.slice(0, 200)}`),
  );

/** Serious and critical faults by WCAG 2.2 AA in the page as it stands. */
export const seriousFaults = async (page: Page): Promise<string[]> =>
  told(
    (
      await found(page, {
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
        resultTypes: ['violations'],
      })
    ).filter((f) => f.impact === 'serious' || f.impact === 'critical'),
  );

/** The same of contrast alone: all else is as it was found in the other theme. */
export const contrastFaults = async (page: Page): Promise<string[]> =>
  told(await found(page, { runOnly: { type: 'rule', values: ['color-contrast'] } }));

/** Whatever axe finds in the page as it stands, also what is good practice only. */
export const allFaults = async (page: Page): Promise<string[]> =>
  told(await found(page, { resultTypes: ['violations'] }));
