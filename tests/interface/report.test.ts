import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { Report } from '$lib/engine/report';
import { demoPath } from '../support/demo';
import { sailingsInSql } from '../support/sql';
import { allFaults } from './support/axe';
import { By, Key } from './support/browser';
import { acceptReading, choose, untilRead } from './support/intake';
import { number, seenHeads, seenLines } from './support/ledger';
import { journey } from './support/journey';
import { openTray, seenTable } from './support/tally';

const { server, page } = journey();
const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-report-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const SAILINGS = '/benches/6';
const db = sailingsInSql();
const FULMAR = 'Fulmar';
const fares = (where: string): number =>
  z.number().parse(db.prepare(`select sum(fares) from s where ${where}`).pluck().get());
const written = (value: number): string =>
  value.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 });

const pages = async (): Promise<string[]> =>
  page.run<string[]>(
    `return [...document.querySelectorAll('[data-test=page]')].map((p) => p.innerText)`,
  );
async function openReport(): Promise<void> {
  await page.click('report-open');
  await page.untilText('pages', /^\d+ pages?$/);
  await page.until('pages', async () => (await pages()).length > 1);
}
/** Asks the server, again where a connection was left idle for too long while something else ran. */
const got = (where: string): Promise<Response> => {
  const ask = (): Promise<Response> => fetch(server.address + where);
  return ask().catch(ask);
};
const squeezed = (text: string): string => text.replace(/\s+/g, '');

/** What the browser prints, page by page. */
async function printed(): Promise<string[]> {
  const pdf = await page.print();
  const file = path.join(folder, 'report.pdf');
  writeFileSync(file, pdf);
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8', maxBuffer: 1 << 26 })
    .split('\f')
    .slice(0, -1);
}
/** The built command line, as a shell would run it. */
function tally(args: readonly string[]): { code: number; out: string; notes: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['build/node/tally.js', ...args], {
    encoding: 'utf8',
  });
  return { code: status ?? -1, out: stdout, notes: stderr };
}
async function openFigure(): Promise<void> {
  const line = await page.until('the vessel', async () => {
    const at = (await seenLines(page)).findIndex(({ label }) => label.startsWith(FULMAR));
    return at < 0 ? null : (await page.all('[data-line]'))[at];
  });
  const column = (await seenHeads(page)).indexOf('Fares taken|sum, £');
  await (await line.findElements(By.css('[role=gridcell]')))[column].click();
  await page.untilText('behind', FULMAR);
}

describe('a known total', () => {
  it('is put on a figure, differs, is explained, and mended in one act', async () => {
    await openTray(page, SAILINGS);
    await openFigure();
    // The books do not know of the one absurd fare.
    const without = fares(`vessel = '${FULMAR}' and fares < 1000000`);
    // Without a pointer: one key leads from the open figure to what it should be.
    await page.until('the field of its known total', async () => {
      await page.run('document.activeElement?.blur()');
      await page.type('k');
      return page.run<boolean>(`return document.activeElement?.dataset.test === 'known'`);
    });
    await page.type(written(without), Key.ENTER);
    await page.untilText('check', 'from it');
    await page.untilText('check', 'without it the totals agree');
    await page.untilText('tally-ledger', '1 differs');
    expect(await page.all('[aria-label="differs from its known total"]')).toHaveLength(1);
    expect(await allFaults(page)).toEqual([]);
    await page.click('known-mend');
    await page.untilText('check', 'It agrees');
    expect(await page.all('[aria-label="agrees with its known total"]')).toHaveLength(1);
    await page.click('undo');
    await page.untilText('check', 'from it');
  });

  it('stands in a list of all, with its note and the way to its figure', async () => {
    await page.untilText('known-open', '1 of 1 differs');
    await page.click('known-open');
    const list = await page.untilText('known-list', 'It differs by');
    expect(list).toContain(FULMAR);
    expect(await allFaults(page)).toEqual([]);
    const note = await page.driver.findElement(By.css('[data-test=known-list] input'));
    await note.sendKeys('from the books of March', Key.TAB);
    await page.untilText('notice', 'Note on a known total');
    await page.press('Open the figure', '[data-test=known-list]');
    await page.untilText('behind', FULMAR);
    await page.untilText('save-state', /^saved$/);
    await page.click('known-open');
    await page.until('the note that was kept', async () => {
      const [field] = await page.all('[data-test=known-list] input');
      return (await field?.getAttribute('value')) === 'from the books of March';
    });
    await openFigure();
  });

  it('where the figure comes from is saved, and verified by the command line', async () => {
    await page.click('save-record');
    const file = await page.until('the file', async () => {
      const found = readdirSync(page.downloads).find((name) => /figure.*\.json$/.test(name));
      return found ? path.join(page.downloads, found) : null;
    });
    const right = tally(['verify', file, '--data', demoPath('sailings')]);
    expect([right.code, right.notes]).toEqual([0, expect.not.stringContaining('not verified')]);
    // As the first version wrote it.
    const older = path.join(folder, 'older.json');
    const { words, ask, ...record } = JSON.parse(readFileSync(file, 'utf8')) as Record<
      string,
      object
    >;
    const first = { ...record, version: 1, says: words, ask: { ...ask, version: 3 } };
    writeFileSync(older, JSON.stringify(first));
    expect(tally(['verify', older, '--data', demoPath('sailings')]).code).toBe(0);
    // What a record prints is reckoned, and nothing in it steers the terminal.
    for (const forged of [{ words: 'All\u001b[2J' }, { shown: '1.00' }, { records: 3 }]) {
      writeFileSync(older, JSON.stringify({ ...record, words, ask, ...forged }));
      const found = tally(['verify', older, '--data', demoPath('sailings')]);
      expect([found.code, `${found.out}${found.notes}`]).toEqual([
        3,
        expect.not.stringContaining('\u001b'),
      ]);
    }
    // One fare of another list, though elsewhere, and the figure is not verified.
    const other = path.join(folder, 'other.csv');
    writeFileSync(other, readFileSync(demoPath('sailings'), 'utf8').replace('1341.25', '1341.50'));
    const wrong = tally(['verify', file, '--data', other]);
    expect(wrong.code).toBe(3);
    expect(wrong.notes).toContain('not verified');
  });

  it('that is no number is refused in its place', async () => {
    await (await page.find('known')).sendKeys(Key.chord(Key.CONTROL, 'a'), 'a lot', Key.ENTER);
    await page.until('the refusal', async () =>
      (await page.driver.findElement(By.css('.known [role=alert]')).getText()).includes(
        'as a number',
      ),
    );
  });
});

describe('the report', () => {
  it('stands on its pages, with what does not hold above it', async () => {
    await openReport();
    const [first] = await pages();
    expect(first).toContain('Sailings 2023–26');
    expect(first).toContain('What counts. 17,631 records → counted 17,631');
    expect(await page.text('troubles')).toContain(`${FULMAR}`);
    expect((await pages()).at(-1)).toContain('Known totals');
    expect(await allFaults(page)).toEqual([]);
  });

  it('is written in where it stands, and kept', async () => {
    const title = await page.find('report-title');
    await title.click();
    await title.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Three and a half years', Key.ENTER);
    await page.until('the title', async () =>
      (await pages())[0].startsWith('Three and a half years'),
    );
    const note = await page.find('note-ledger');
    await page.driver.executeScript('arguments[0].focus()', note);
    await page.type('One fare awaits the purser.');
    await page.driver.executeScript('document.activeElement.blur()');
    await page.untilText('save-state', /^saved$/);
    await openTray(page, SAILINGS);
    await openReport();
    const [first] = await pages();
    expect(first).toContain('Three and a half years');
    expect(first).toContain('One fare awaits the purser.');
  });

  it('words hold figures that follow, and say that one moved until they are read', async () => {
    await openTray(page, SAILINGS);
    await page.click('tally-ledger');
    const all = written(fares('1'));
    await page.press(all, '[data-test=foot-counted]');
    await page.press('Put into words');
    await page.press('the words under the title');
    await openReport();
    const intro = await page.find('report-intro');
    await page.until('the figure', async () => (await intro.getText()).includes(all));
    await intro.click();
    await page.chord(Key.CONTROL, Key.HOME);
    await page.type('Four routes took ');
    await page.chord(Key.CONTROL, Key.END);
    await page.type(' pounds.');
    await page.run('document.activeElement.blur()');
    await page.until('the words', async () =>
      (await page.text('report-intro')).includes(`Four routes took ${all} pounds.`),
    );
    await page.until('that they are saved', async () =>
      (await (await got('/api/benches/6')).text()).includes('Four routes took {{c1}} pounds.'),
    );
    // Kept over a reload; then Fulmar is narrowed away.
    await openTray(page, SAILINGS);
    await page.click('tally-ledger');
    const { doc, revision } = z
      .object({ doc: z.looseObject({ ladder: z.looseObject({}) }), revision: z.int() })
      .parse(await (await got('/api/benches/6')).json());
    const vessel = {
      id: 'x',
      on: true,
      condition: {
        kind: 'leaf',
        column: 'vessel',
        not: true,
        test: { test: 'is', values: [FULMAR] },
      },
    };
    const put = await fetch(`${server.address}/api/benches/6`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        follows: revision,
        doc: { ...doc, ladder: { ...doc.ladder, rungs: [vessel] } },
      }),
    });
    expect(put.status, await put.text()).toBe(200);
    const rest = written(fares("vessel <> 'Fulmar'"));
    const told = (await (await got('/api/benches/6/report')).text()).replace(/\s+/g, ' ');
    expect(told).toContain(`was ${all} when these words were read last, and is ${rest}`);
    await openTray(page, SAILINGS);
    await openReport();
    await page.untilText('words-moved', '1 figure in the words of the report has moved');
    expect(await page.text('report-intro')).toContain(`Four routes took ${rest} pounds.`);
    await page.press('I have read them');
    await page.until('that nothing has moved', async () =>
      page.run<boolean>(`return !document.querySelector('[data-test=words-moved]')`),
    );
    await page.until('that it is saved', async () =>
      (await (await got('/api/benches/6')).text()).includes(`"read":"${rest}"`),
    );
    await page.go('/');
    const now = z.object({ revision: z.int() }).parse(await (await got('/api/benches/6')).json());
    await fetch(`${server.address}/api/benches/6`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ follows: now.revision, doc }),
    });
    await openTray(page, SAILINGS);
    await openReport();
  });

  it('is printed as it stands on the screen: the same pages, the same words', async () => {
    for (const paper of ['A4 upright', 'Letter lying']) {
      await page.press(paper, '[data-test=report], .bar');
      await page.driver.sleep(600);
      const seen = await pages();
      const paperPages = await printed();
      expect(paperPages.length).toBe(seen.length);
      // Every figure that stands on a page of the screen stands on that page of the paper.
      seen.forEach((text, n) => {
        const figures = text.match(/\d[\d,]*\.\d\d/g) ?? [];
        const paperText = squeezed(paperPages[n]);
        for (const figure of figures) expect(paperText, `page ${n + 1}`).toContain(figure);
        expect(paperText.endsWith(String(n + 1))).toBe(true);
      });
    }
    await page.press('A4 upright', '[data-test=report], .bar');
  });

  it('leaves nothing on two lines: no page is fuller than its room', async () => {
    const over = await page.run<number[]>(
      `return [...document.querySelectorAll('[data-test=page]')].map((p) => {
        const foot = p.querySelector('footer').getBoundingClientRect().top;
        const last = [...p.children].filter((c) => c.tagName !== 'FOOTER').at(-1);
        return last ? Math.max(0, last.getBoundingClientRect().bottom - foot) : 0;
      })`,
    );
    expect(over.every((pixels) => pixels < 2)).toBe(true);
  });

  it('comes from the server and the command line with the same figures', async () => {
    const served = Report.parse(await (await got(`/api${SAILINGS}/report?as=json`)).json());
    const { doc } = z
      .object({ doc: z.unknown() })
      .parse(await (await got(`/api${SAILINGS}`)).json());
    const bench = path.join(folder, 'bench.json');
    const out = path.join(folder, 'report.json');
    writeFileSync(bench, JSON.stringify(doc));
    const made = tally([
      'report',
      bench,
      '--data',
      demoPath('sailings'),
      '--name',
      'Sailings 2023–26',
      '--out',
      out,
    ]);
    const told = Report.parse(JSON.parse(readFileSync(out, 'utf8')));
    expect(told.sections).toEqual(served.sections);
    expect([told.known, told.scope, told.title]).toEqual([
      served.known,
      served.scope,
      served.title,
    ]);
    // A known total differs: the report is there, and the run says so.
    expect(made.code).toBe(3);
    expect(made.notes).toContain(`${FULMAR}, sum of Fares taken is`);
    // The figures of the first page are those of the report.
    const [first] = await pages();
    for (const row of served.sections[0].tables[0].rows.slice(0, 5))
      expect(squeezed(first)).toContain(squeezed(row.cells.at(-2) ?? ''));
  });

  it('next month’s file by the same bench: records set aside are found again', async () => {
    const lines = readFileSync(demoPath('sailings'), 'utf8').trim().split(/\r?\n/);
    const later = path.join(folder, 'later.csv');
    // Ten records of other vessels are gone from the newer file: every number moved.
    const gone = new Set(
      lines
        .slice(1)
        .filter((line) => !line.includes(FULMAR))
        .slice(0, 10),
    );
    writeFileSync(later, `${lines.filter((line) => !gone.has(line)).join('\n')}\n`);
    const bench = JSON.parse(readFileSync(path.join(folder, 'bench.json'), 'utf8'));
    const n = z.number().parse(db.prepare('select n from s where fares > 1000000').pluck().get());
    bench.ladder.setAside.records = [n + 1];
    const file = path.join(folder, 'aside.json');
    writeFileSync(file, JSON.stringify(bench));
    const out = path.join(folder, 'later.json');
    const run = (...more: string[]): Report => {
      tally(['report', file, '--data', later, '--out', out, ...more]);
      return Report.parse(JSON.parse(readFileSync(out, 'utf8')));
    };
    const against = run('--against', demoPath('sailings'));
    expect(against.known[0].stands).toBe('agrees');
    // What moved is told of every tally: ten records are gone from the whole of the ledger.
    const [ledger] = against.moved?.tallies ?? [];
    expect(
      ledger.moved.find((m) => m.title === 'Records' && m.where === 'Grand total'),
    ).toMatchObject({ before: '17,630', after: '17,620', change: '−10' });
    expect(against.moved?.tallies).toHaveLength(against.sections.length);
    expect(run().moved).toBeNull();
    expect(run().known[0].stands).toBe('differs');
    const page = path.join(folder, 'later.html');
    const { notes } = tally([
      'report',
      file,
      '--data',
      later,
      '--out',
      page,
      '--against',
      demoPath('sailings'),
    ]);
    // A line for each tally that moved, so that a run without a screen tells of it too.
    const told = against.moved?.tallies.filter(({ count }) => count > 0) ?? [];
    expect(notes.match(/figures? of \d+ moved/g)).toHaveLength(told.length);
    expect(notes).toContain(
      `most ${ledger.moved[0].where}, ${ledger.moved[0].title}: ${ledger.moved[0].before} → ${ledger.moved[0].after}`,
    );
    expect(readFileSync(page, 'utf8')).toContain('What moved since the file before');
  });

  it('as one web page: opened without the server, readable, accessible', async () => {
    const html = await (await got(`/api${SAILINGS}/report`)).text();
    expect(html).not.toMatch(/<script/);
    const file = path.join(folder, 'report.html');
    writeFileSync(file, html);
    await page.driver.get(`file://${file}`);
    const text = await page.driver.findElement(By.css('body')).getText();
    expect(text).toContain('Three and a half years');
    expect(text).toContain(written(fares(`vessel = '${FULMAR}'`)));
    expect((await page.all('svg')).length).toBeGreaterThan(5);
    const paper = await printed();
    expect(paper.length).toBeGreaterThan(3);
    expect(paper[0]).toContain('Three and a half years');
  });

  it('after a refresh one act says what moved, through which records, to a left-over of 0', async () => {
    await choose(page, path.join(folder, 'later.csv'), 6);
    await untilRead(page);
    await acceptReading(page);
    await page.click('see-moved');
    await page.find('figures-main');
    const told = await page.untilText('warnings', 'The records explain every difference');
    expect(told).toContain('0 records came, 10 went, 0 changed');
    const sentence = await page.text('sentence');
    expect(sentence).toContain('records matched by');
    expect(sentence).not.toMatch(/matched by[^.]*Fares taken/);
    const [total] = (await seenTable(page)).filter(
      ([where, figure]) => where === 'Grand total' && figure === 'sum of Fares taken',
    );
    expect(number(total[2])).toBe(fares('1'));
    expect(total.at(-1)).toBe('0');
    // Behind the figure stand the records of both readings, and come to the difference.
    await (
      await page.driver.findElement(
        By.xpath(
          '//table[@data-test="figures-main"]//tr[normalize-space(td[1])="Grand total" and normalize-space(td[2])="sum of Fares taken"]/td[5]',
        ),
      )
    ).click();
    const moved = await page.untilText('moved-records', 'Through 10 records');
    expect(moved.match(/went/g)).toHaveLength(10);
    const by = await page.run<string[]>(
      `return [...document.querySelectorAll('[data-test=moved-records] tbody tr')].map((r) => r.cells[1].textContent)`,
    );
    expect(by.reduce((sum, text) => sum + number(text), 0)).toBeCloseTo(number(total[4]), 2);
    await page.type(Key.ESCAPE);
    // Below it every other tally, before and after.
    const every = await page.untilText('tallies-moved', 'Delay by weather');
    expect(every).toContain('figures of');
    // A second time it is the same tally that opens.
    const tallies = (await page.all('[data-tally]')).length;
    await page.untilText('save-state', /^saved$/);
    await page.go(`${SAILINGS}?make=moved`);
    await page.find('figures-main');
    expect(await page.all('[data-tally]')).toHaveLength(tallies);
  });

  it('a bench saved as a file is a bench again, on a list of the same columns', async () => {
    await page.go('/lists/6');
    await (await page.find('question-file')).sendKeys(path.join(folder, 'bench.json'));
    await page.untilText('tally-ledger', 'differs');
    await openReport();
    expect((await pages())[0]).toContain('Three and a half years');
  });
});
