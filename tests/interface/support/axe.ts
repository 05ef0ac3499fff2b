import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from './browser';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Serious faults by WCAG 2.2 AA that axe finds in the page as it stands, each with what has it. */
export const seriousFaults = (page: Page): Promise<string[]> =>
  page.driver.executeAsyncScript<string[]>(
    `const done = arguments[arguments.length - 1];
     ${axe};
     axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then((r) =>
       done(r.violations.filter((v) => ['serious', 'critical'].includes(v.impact))
         .map((v) => v.id + ': ' + v.nodes.map((n) => n.html.slice(0, 160)).slice(0, 3).join(' | '))));`,
  );
