import type { Database } from 'better-sqlite3';
import Papa from 'papaparse';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { sailingsInSql } from '../support/sql';
import { By, Key } from './support/browser';
import { number, openBench, seenFoot, seenHeads, seenLines, showDown } from './support/ledger';
import { journey } from './support/journey';

const { server, page } = journey();
let db: Database;
let first: { doc: unknown };

beforeAll(async () => {
  db = sailingsInSql();
  // The demo's sailings are loaded last.
  first = await (await fetch(`${server.address}/api/benches/6`)).json();
});

/** Every test has a bench of its own, as the demo has it. */
beforeEach(async () => {
  const reply = await fetch(`${server.address}/api/lists/6/benches`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Test', doc: first.doc }),
  });
  const { id } = (await reply.json()) as { id: number };
  await openBench(page, `/benches/${id}`);
});

const one = <T extends Record<string, number | string>>(sql: string): T =>
  db.prepare(sql).get() as T;
const every = <T extends Record<string, number | string>>(sql: string): T[] =>
  db.prepare(sql).all() as T[];

async function narrowByDelay(): Promise<void> {
  await page.click('narrow');
  await page.choose('condition-column', 'delay');
  await page.choose('condition-test', 'compare-ge-1');
  const value = await page.find('condition-value');
  await value.clear();
  await value.sendKeys('10');
  await page.untilText('preview', 'keeps');
  await page.click('accept-rung');
  await page.untilText('rung', 'Delay is at least 10');
}

describe('the ledger of the demo', () => {
  it('shows subtotals and grand totals that SQL gives too', async () => {
    await showDown(page, 'Route');
    const lines = await page.until('four routes', async () => {
      const seen = await seenLines(page);
      return seen.length === 4 ? seen : null;
    });
    const heads = await seenHeads(page);
    const expected = every<{
      route: string;
      n: number;
      boarded: number;
      vehicles: number;
      fares: number;
      delay: number;
    }>(
      'select route, count(*) n, sum(boarded) boarded, sum(vehicles) vehicles, sum(fares) fares, avg(delay) delay from s group by route order by route',
    );
    expect(lines.map((l) => l.label)).toEqual(
      expected.map((e) => `${e.route} ${e.n.toLocaleString('en')}`),
    );
    const column = (name: string): string[] => lines.map((l) => l.cells[heads.indexOf(name)]);
    expect(column('Boarded|sum, people').map(number)).toEqual(expected.map((e) => e.boarded));
    expect(column('Vehicles|sum').map(number)).toEqual(expected.map((e) => e.vehicles));
    expect(column('Fares taken|sum, £').map(number)).toEqual(expected.map((e) => e.fares));
    expect(column('Delay|mean, min')).toEqual(expected.map((e) => e.delay.toFixed(1)));
    const foot = await seenFoot(page, 'counted');
    const total = one<{ n: number; fares: number }>('select count(*) n, sum(fares) fares from s');
    expect(foot[0]).toBe(`Grand total, ${total.n.toLocaleString('en')} counted`);
    expect(number(foot[1 + heads.indexOf('Fares taken|sum, £')])).toBe(total.fares);
    await page.untilTextFor('footing', /4 groups and 9 subgroups foot to the grand total/, 10_000);
  });

  it('shows every group’s name whole, and all columns beside each other', async () => {
    const cut = await page.run<string[]>(
      `return [...document.querySelectorAll('[data-line] .label, [data-line] .cell, [data-test=head] span')]
        .filter((e) => e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).display !== 'inline').map((e) => e.textContent)`,
    );
    expect(cut).toEqual([]);
    expect(
      await page.run<boolean>(
        `const l = document.querySelector('[data-test=ledger]'); return l.scrollWidth <= l.clientWidth`,
      ),
    ).toBe(true);
  });

  it('keeps the cell in view whose panel opens beside the ledger', async () => {
    const at = (await seenHeads(page)).indexOf('Delay|mean, min');
    const figure = (await page.all('.row.group [role=gridcell].figure'))[0];
    const cell = await figure.findElement(By.xpath(`../*[@role='gridcell'][${at + 1}]`));
    await cell.click();
    await page.find('behind');
    await page.until('the figure to be in view', () =>
      page.run<boolean>(
        `const cell = document.querySelector('.cell.active').getBoundingClientRect();
        const ledger = document.querySelector('[data-test=ledger]').getBoundingClientRect();
        return cell.left >= ledger.left && cell.right <= ledger.right + 1`,
      ),
    );
    await page.type(Key.ESCAPE);
  });

  it('narrows, counts every rung as SQL does, and can be undone and redone', async () => {
    await narrowByDelay();
    const { n, fares } = one<{ n: number; fares: number }>(
      'select count(*) n, sum(fares) fares from s where delay >= 10',
    );
    const { blank } = one<{ blank: number }>('select count(*) blank from s where delay is null');
    await page.untilText('counted', n.toLocaleString('en'));
    const rung = await page.text('rung');
    expect(rung).toContain(n.toLocaleString('en'));
    expect(rung).toContain(fares.toLocaleString('en', { minimumFractionDigits: 2 }));
    const [, inBrackets, unread] = /\((\d+) blank, (\d+) unread\)/.exec(rung) ?? [];
    expect(Number(inBrackets) + Number(unread)).toBe(blank);
    await page.click('undo');
    await page.until('no rung', async () => (await page.all('[data-test=rung]')).length === 0);
    await page.driver
      .actions()
      .keyDown(Key.CONTROL)
      .keyDown(Key.SHIFT)
      .sendKeys('z')
      .keyUp(Key.SHIFT)
      .keyUp(Key.CONTROL)
      .perform();
    await page.untilText('rung', 'Delay is at least 10');
  });

  it('switches a step off and on again', async () => {
    await narrowByDelay();
    const all = one<{ n: number }>('select count(*) n from s').n.toLocaleString('en');
    await (await page.driver.findElement(By.css('[data-test=rung] .switch'))).click();
    await page.untilText('counted', all);
    await page.untilText('rung', 'switched off');
    await (await page.driver.findElement(By.css('[data-test=rung] .switch'))).click();
    await page.untilText('rung', '−');
  });

  it('sets a record aside by key, counts without it, and puts it back', async () => {
    await showDown(page, 'Records');
    await page.until('records', async () =>
      (await seenLines(page)).some((l) => l.kind === 'record'),
    );
    await (await page.find('ledger')).click();
    const at = (await seenLines(page)).findIndex((l) => l.kind === 'record');
    await page.type(Key.HOME, ...Array.from({ length: at }, () => Key.ARROW_DOWN), 'a');
    const { n } = one<{ n: number }>('select count(*) n from s');
    await page.untilText('counted', (n - 1).toLocaleString('en'));
    expect((await seenLines(page))[at].label).toContain('✕');
    const record = one<{ fares: number }>(
      "select fares from s where route = 'Holm and Inner Isles' and vessel = 'Fulmar' order by n limit 1",
    );
    const total = one<{ fares: number }>('select sum(fares) fares from s');
    const heads = await seenHeads(page);
    expect(number((await seenFoot(page, 'counted'))[1 + heads.indexOf('Fares taken|sum, £')])).toBe(
      total.fares - record.fares,
    );
    expect(
      number((await seenFoot(page, 'narrowed'))[1 + heads.indexOf('Fares taken|sum, £')]),
    ).toBe(total.fares);
    await page.type('a');
    await page.untilText('counted', n.toLocaleString('en'));
  });

  it('opens a figure to its records, and checks it against a known total', async () => {
    await narrowByDelay();
    await showDown(page, 'Route');
    await page.until('routes', async () => (await seenLines(page)).length === 4);
    const heads = await seenHeads(page);
    const line = (await page.all('[data-line]'))[1];
    const cells = await line.findElements(By.css('[role=gridcell]'));
    await cells[heads.indexOf('Fares taken|sum, £')].click();
    const { n, fares } = one<{ n: number; fares: number }>(
      "select count(*) n, sum(fares) fares from s where delay >= 10 and route = 'Nessness'",
    );
    const behind = await page.untilText('behind', 'Nessness');
    expect(behind).toContain(`${n} records`);
    expect(behind).toContain(fares.toLocaleString('en', { minimumFractionDigits: 2 }));
    const value = one<{ fares: number; n: number }>(
      "select fares, n from s where delay >= 10 and route = 'Nessness' and fares > 0 limit 1",
    );
    await (await page.find('known')).sendKeys(String(fares - value.fares), Key.ENTER);
    await page.untilText('check', 'without');
    await page.click('show-in-ledger');
    await page.until(
      'the figure in the ledger',
      async () => (await page.all('.active')).length === 1,
    );
  });

  it('hands over what is shown, as text and as a table', async () => {
    await showDown(page, 'Route');
    await page.until('routes', async () => (await seenLines(page)).length === 4);
    await page.press('Hand over');
    await page.click('copy');
    await page.untilText('notice', 'Copied 5 lines');
    const rows = Papa.parse<string[]>((await page.clipboard('text/plain')).trim(), {
      delimiter: '\t',
    }).data;
    const fares = rows[0].indexOf('sum of Fares taken (£)');
    const expected = every<{ route: string; fares: number }>(
      'select route, sum(fares) fares from s group by route order by route',
    );
    expect(rows.slice(1, 5).map((r) => [r[0], number(r[fares])])).toEqual(
      expected.map((e) => [e.route, e.fares]),
    );
    expect(rows[5][0]).toBe('Grand total');
    const html = await page.clipboard('text/html');
    expect(html).toContain('<table');
    expect(html).toContain('Holm and Inner Isles');
  });

  it('saves the counted records as a file that SQL agrees with', async () => {
    await narrowByDelay();
    await page.press('Hand over');
    await page.click('save-records');
    const rows = Papa.parse<string[]>((await page.saved('-records.csv')).trim()).data;
    const { n, fares } = one<{ n: number; fares: number }>(
      'select count(*) n, sum(fares) fares from s where delay >= 10',
    );
    expect(rows).toHaveLength(n + 1);
    const at = rows[0].indexOf('Fares taken (£)');
    const sum = rows.slice(1).reduce((s, r) => s + number(r[at]), 0);
    expect(sum).toBeCloseTo(fares, 6);
  });

  it('groups by a quarter through the sentence', async () => {
    await (await page.driver.findElement(By.css('button[aria-label="Group 1: Route"]'))).click();
    await page.press('Take this group out', '.pop');
    await page.until('one group', async () =>
      (await page.text('sentence')).includes('grouped by Vessel'),
    );
    await (await page.driver.findElement(By.css('button[aria-label$="add a group"]'))).click();
    await page.press('Sailed on\ndate', '.pop');
    await page.until('two groups', async () =>
      (await page.text('sentence')).includes('Sailed on by month'),
    );
    await (
      await page.driver.findElement(By.css('button[aria-label="Group 2: Sailed on by month"]'))
    ).click();
    await page.choose('group-period', 'quarter');
    await page.untilText('sentence', 'by quarter');
    await page.type(Key.ESCAPE);
    const { n } = one<{ n: number }>(
      "select count(*) n from s where vessel = 'Arctic Tern' and sailed_on between '2023-01-01' and '2023-03-31'",
    );
    await page.until('the first quarter', async () =>
      (await seenLines(page)).some((l) => l.label.startsWith(`Jan–Mar 2023 ${n}`)),
    );
  });

  it('folds and unfolds a group without changing a figure', async () => {
    const before = await seenFoot(page, 'counted');
    const lines = (await seenLines(page)).length;
    await (await page.find('ledger')).click();
    await page.type(Key.HOME, ' ');
    await page.until('fewer lines', async () => (await seenLines(page)).length < lines);
    expect(await seenFoot(page, 'counted')).toEqual(before);
    await page.type(' ');
    await page.until('as many lines', async () => (await seenLines(page)).length === lines);
  });

  it('finds and does things through the finder', async () => {
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('show the median delay', Key.ENTER);
    await page.untilText('sentence', 'median of Delay');
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('show down grand');
    await page.until('what it offers', async () => {
      const [first] = await page.all('[role=option][aria-selected=true]');
      if (!first || !(await first.getText()).startsWith('Show down to Grand total')) return false;
      await first.click();
      return true;
    });
    await page.until('no lines', async () => (await seenLines(page)).length === 0);
  });

  it('corrects an unread cell, and takes it back', async () => {
    const { n } = one<{ n: number }>(
      'select n from s where delay is null and n in (select n from s) limit 1',
    );
    expect(n).toBeGreaterThan(-1);
    await page.click('narrow');
    await page.choose('condition-column', 'delay');
    await page.choose('condition-test', 'unread');
    await page.untilText('preview', 'keeps 22');
    await page.click('accept-rung');
    await showDown(page, 'Records');
    const cell = await page.until(
      'an unread cell',
      async () => (await page.all('.cell.unread'))[0],
    );
    await cell.click();
    await page.find('record-panel');
    await (await page.driver.findElement(By.css('button[aria-label="Correct Delay"]'))).click();
    const field = await page.find('correction');
    await field.clear();
    await field.sendKeys('7', Key.ENTER);
    await page.untilText('counted', '21');
    await page.untilText('record-panel', 'the file says');
    await page.untilText('corrections', '1 cell corrected');
    await page.press('Take back');
    await page.untilText('counted', '22');
  });

  it('keeps a scope and brings it back', async () => {
    await narrowByDelay();
    await page.press('Scopes ▾');
    await (
      await page.until('the field', async () => (await page.all('.pop input'))[0])
    ).sendKeys('late ones', Key.ENTER);
    await page.untilText('notice', 'Keep the scope');
    await (await page.driver.findElement(By.css('[aria-label^="Change the step"]'))).click();
    await page.press('Remove', '[role=menu]');
    await page.until('no rung', async () => (await page.all('[data-test=rung]')).length === 0);
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('late ones', Key.ENTER);
    await page.untilText('rung', 'Delay is at least 10');
  });

  it('narrows by brushing a column’s bars with the keys', async () => {
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('boarded facts', Key.ENTER);
    const bars = await page.until('the bars', async () => (await page.all('[role=slider]'))[0]);
    await page.run('arguments[0].focus()', bars);
    await page.type(Key.ARROW_RIGHT);
    await page.chord(Key.SHIFT, Key.ARROW_RIGHT);
    await page.click('brush-narrow');
    await page.untilText('rung', 'Boarded is between 0 and');
  });

  it('sets a range aside, and all records with a value', async () => {
    await showDown(page, 'Records');
    await page.until('records', async () =>
      (await seenLines(page)).some((l) => l.kind === 'record'),
    );
    const { n } = one<{ n: number }>('select count(*) n from s');
    await (await page.find('ledger')).click();
    const at = (await seenLines(page)).findIndex((l) => l.kind === 'record');
    await page.type(Key.HOME, ...Array.from({ length: at }, () => Key.ARROW_DOWN));
    await page.driver
      .actions()
      .keyDown(Key.SHIFT)
      .sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN)
      .keyUp(Key.SHIFT)
      .sendKeys('a')
      .perform();
    await page.untilText('counted', (n - 3).toLocaleString('en'));
    await page.press('Put all back');
    await page.untilText('counted', n.toLocaleString('en'));
    await (
      await page.until('a record', async () => (await page.all('.row.record [role=gridcell]'))[0])
    ).click();
    await page.find('record-panel');
    await (
      await page.driver.findElement(By.css('button[aria-label$="all records with this Weather"]'))
    ).click();
    const weather = await page.untilText('notice', 'Set aside all where Weather is');
    const value = weather.replace(/^.* is /, '');
    const left = one<{ n: number }>(`select count(*) n from s where weather is not '${value}'`).n;
    await page.untilText('counted', left.toLocaleString('en'));
  });

  it('resizes, reorders, hides and fixes columns without changing a figure', async () => {
    const name = async (k: number): Promise<string> => (await seenHeads(page))[k].split('|')[0];
    await showDown(page, 'Records');
    await page.until('the columns of records', async () => (await name(0)) === 'Time');
    const before = await seenFoot(page, 'counted');
    const first = (await page.all('[data-test=head]'))[0];
    const width = (): Promise<number> =>
      page.run<number>(
        `return document.querySelector('[data-test=head]').parentElement.offsetWidth`,
      );
    const old = await width();
    const grip = (await page.all('.head .grip'))[0];
    await page.driver
      .actions()
      .move({ origin: grip })
      .press()
      .move({ origin: grip, x: 40, y: 0 })
      .release()
      .perform();
    await page.until('a wider column', async () => (await width()) > old + 20);
    await first.click();
    await page.press('Move right');
    await page.until('it to stand second', async () => (await name(1)) === 'Time');
    await page.press('Hide from view');
    await page.until('it to be gone', async () => (await name(1)) !== 'Time');
    await page.press('Show');
    await page.until('it to be back', async () => (await name(1)) === 'Time');
    await page.press('Fix at the left, or let go');
    await page.until('fixed heads', async () => (await page.all('.head.fixed')).length === 2);
    const after = await seenFoot(page, 'counted');
    expect([...after].sort()).toEqual([...before].sort());
  });

  it('makes the column of groups wider by key, and gives it back what its labels need', async () => {
    const grip = (await page.all('[role=separator][tabindex="0"]'))[0];
    const width = async (): Promise<number> => Number(await grip.getAttribute('aria-valuenow'));
    const usual = await width();
    await page.run(`document.querySelector('[role=separator][tabindex="0"]').focus()`);
    await page.type(Key.ARROW_RIGHT);
    await page.until('20 pixels more', async () => (await width()) === usual + 20);
    await page.type(Key.ARROW_RIGHT);
    await page.until('40 pixels more', async () => (await width()) === usual + 40);
    await page.type(Key.ENTER);
    await page.until('its usual width', async () => (await width()) === usual);
  });

  it('says whole numbers otherwise, and means with their deviation', async () => {
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('delay facts', Key.ENTER);
    await page.choose('deviation', '2');
    const { m, v } = one<{ m: number; v: number }>(
      'select avg(delay) m, (sum(delay * delay) - sum(delay) * sum(delay) / count(delay)) / (count(delay) - 1) v from s',
    );
    const heads = await seenHeads(page);
    await page.until('the mean with its deviation', async () => {
      const cell = (await seenFoot(page, 'counted'))[1 + heads.indexOf('Delay|mean, min')];
      return cell === `${m.toFixed(1)} ± ${Math.sqrt(v).toPrecision(2)}`;
    });
  });
});
