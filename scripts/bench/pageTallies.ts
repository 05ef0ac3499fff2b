import type { Page } from '../../tests/interface/support/browser';
import { figuresCame, openTally, openTray } from '../../tests/interface/support/tally';
import type { TestServer } from '../../tests/interface/support/server';
import type { Result } from './meter';

const LATE = {
  kind: 'leaf',
  column: 'delay',
  test: { test: 'compare', op: 'ge', value: 10 },
} as const;
const FARES = { kind: 'sum', column: 'fares_taken' } as const;
const MONTHS = { column: 'sailed_on', period: 'month', measure: FARES } as const;

/** Tallies of the real page with how long a switch of a step may take until each is drawn anew. */
const TALLIES: readonly (readonly [name: string, ms: number, tally: object])[] = [
  [
    'a cross-tab',
    120,
    {
      kind: 'crosstab',
      down: [{ column: 'route' }],
      across: [{ column: 'weather' }],
      measures: [FARES],
    },
  ],
  [
    'conditional figures',
    120,
    {
      kind: 'conditional',
      rows: [{ name: 'late', condition: LATE }],
      columns: [{ measure: FARES }],
    },
  ],
  [
    'a ranking of groups',
    120,
    { kind: 'ranking', groups: [{ column: 'vessel' }], by: FARES, top: 5 },
  ],
  [
    'period by period',
    120,
    { kind: 'periods', column: 'sailed_on', levels: ['year', 'month'], measures: [FARES] },
  ],
  ['growth', 120, { kind: 'growth', series: { ...MONTHS, period: 'year' } }],
  ['frequency by value', 200, { kind: 'frequency', key: { column: 'delay' } }],
  ['spread', 200, { kind: 'spread', columns: ['delay'], key: { column: 'route' } }],
  ['percentiles', 200, { kind: 'percentile', column: 'delay' }],
  ['a forecast by month', 200, { kind: 'forecast', series: MONTHS, gaps: 'zero' }],
  [
    'bands',
    200,
    {
      kind: 'frequency',
      key: { column: 'delay', bands: { by: 'edges', edges: [0, 1, 5, 10, 20, 40, 90] } },
    },
  ],
];

/** Clicks a switch and gives the milliseconds until What counts and the open tally are drawn anew. */
const SWITCH = `
  const done = arguments[arguments.length - 1];
  const at = () => document.querySelector('[data-test=counted]').textContent + document.querySelector('[data-test=figures-main]').textContent;
  const before = at();
  const start = performance.now();
  const look = () => (at() !== before || performance.now() - start > 5000 ? requestAnimationFrame(() => done(performance.now() - start)) : requestAnimationFrame(look));
  document.querySelector('[role=switch]').click();
  requestAnimationFrame(look);`;

/** Moves an edge by the keys for a second; gives the longest gap between two frames and the frames. */
const DRAG = `
  const done = arguments[arguments.length - 1];
  const edge = () => document.querySelectorAll('[data-test=edge]')[3];
  let last = performance.now(), n = 0; const gaps = [];
  const step = (now) => {
    gaps.push(now - last); last = now;
    edge().dispatchEvent(new KeyboardEvent('keydown', { key: n % 10 < 5 ? 'ArrowRight' : 'ArrowLeft', bubbles: true }));
    if (++n < 60) requestAnimationFrame(step); else done(gaps.slice(2).sort((a, b) => a - b));
  };
  requestAnimationFrame((now) => { last = now; requestAnimationFrame(step); });`;

/** The tallies of the page on 1,000,000 records. @param bench whose first tally is the ledger, with two steps */
export async function benchPageTallies(
  server: TestServer,
  page: Page,
  bench: string,
): Promise<Result[]> {
  const results: Result[] = [];
  const address = `${server.address}/api/benches/${bench}`;
  const { doc, revision } = (await (await fetch(address)).json()) as {
    revision: number;
    doc: { tray: unknown[]; open: string };
  };
  const view = { showDown: 13, turned: [], totals: 'below', columns: [], fixed: 0 };
  TALLIES.forEach(([name, , tally], k) =>
    doc.tray.push({ id: `t${k}`, name, tally, view, note: '' }),
  );
  const put = await fetch(address, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ follows: revision, doc }),
  });
  if (!put.ok) throw new Error(await put.text());
  await openTray(page, `/benches/${bench}`);
  await page.driver.sleep(4000);
  for (const [k, [name, limit]] of TALLIES.entries()) {
    await openTally(page, `t${k}`);
    await page.driver.sleep(2500);
    const times: number[] = [];
    for (let pass = 0; pass < 7; pass++) {
      times.push(await page.driver.executeAsyncScript<number>(SWITCH));
      await page.driver.sleep(1500);
      await figuresCame(page);
    }
    const middle = times.sort((a, b) => a - b)[3];
    results.push({
      work: `switching a step with ${name} open, to its repaint (median of 7)`,
      bar: `within ${limit} ms`,
      measured: `${Math.round(middle)} ms`,
      holds: middle <= limit,
    });
  }
  const gaps = await page.driver.executeAsyncScript<number[]>(DRAG);
  const gap = gaps[Math.floor(gaps.length / 2)];
  results.push({
    work: 'a frame while an edge is dragged (median of 58)',
    bar: 'within 33 ms',
    measured: `${Math.round(gap)} ms; longest ${Math.round(gaps[gaps.length - 1])} ms`,
    holds: gap <= 33,
  });
  await page.driver.sleep(2000);
  const begun = Date.now();
  await page.click('new-tally');
  await page.until('all first answers', async () =>
    page.run<boolean>(
      `return document.querySelectorAll('[data-test=chooser] svg').length >= 11 && !document.querySelector('[data-test=chooser]').textContent.includes('computing…')`,
    ),
  );
  const took = Date.now() - begun;
  results.push({
    work: 'the first answers of all questions',
    bar: 'within 2,500 ms',
    measured: `${took} ms`,
    holds: took <= 2500,
  });
  return results;
}
