import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { read, utils, write, type CellObject } from '@e965/xlsx';
import { parquetReadObjects } from 'hyparquet';
import { compressors } from 'hyparquet-compressors';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { demoPath } from '../support/demo';
import { sailingsInSql } from '../support/sql';
import { seriousFaults } from './support/axe';
import { By, Key } from './support/browser';
import { accept, choose, doubtTexts, madeFile, previewRow, untilRead } from './support/intake';
import { openBench, seenFoot, seenLines } from './support/ledger';
import { journey } from './support/journey';

const { server, page } = journey();
const folder = mkdtempSync(path.join(tmpdir(), 'tally-journey-forms-'));

const SAILINGS = '/benches/6';

/** The cells of a sheet by rows, as they are stored; browsers and Node may raise to a power with another last digit. */
const cellsOf = (bytes: Uint8Array, sheet: number): unknown[][] => {
  const book = read(bytes, { type: 'array', dense: true });
  const rows: (CellObject | undefined)[][] = book.Sheets[book.SheetNames[sheet]]['!data'] ?? [];
  return rows.map((row) =>
    row.map((cell) => (typeof cell?.v === 'number' ? cell.v.toPrecision(13) : (cell?.v ?? null))),
  );
};

describe('a workbook brought in', () => {
  it('is read by its sheet, with what is doubtful in it, and counted', async () => {
    const fares = utils.aoa_to_sheet([
      ['Keld Sound Ferries'],
      ['Day', 'Route', 'Fares'],
      ...Array.from({ length: 50 }, (_, k) => [
        null,
        k % 2 ? 'Holm' : 'Ness',
        k === 7 ? '1200' : k * 1.5,
      ]),
    ]);
    for (let k = 0; k < 50; k++)
      fares[utils.encode_cell({ r: k + 2, c: 0 })] = { t: 'n', v: 45322 + k, z: 'mmm yyyy' };
    const book = utils.book_new();
    utils.book_append_sheet(book, fares, 'Fares');
    utils.book_append_sheet(
      book,
      utils.aoa_to_sheet([
        ['Port', 'Piers'],
        ['Holm', 3],
        ['Ness', 2],
      ]),
      'Ports',
    );
    const bytes = new Uint8Array(write(book, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer);
    await choose(page, madeFile('fares.xlsx', bytes));
    expect(await untilRead(page)).toContain('50 records, 3 columns');
    expect(await page.text('form')).toBe('This is a workbook.');
    expect(await previewRow(page, 0)).toEqual(['Wed 31 Jan 2024', 'Ness', '0.0']);
    const doubts = (await doubtTexts(page)).join(' ');
    expect(doubts).toContain('1 cell of Fares holds a number as text');
    expect(doubts).toContain('1 other sheet of the workbook is not read: “Ports”');
    await page.choose('part', 'Ports');
    await page.until('the other sheet', async () => (await previewRow(page, 0))[0] === 'Holm');
    await page.choose('part', 'Fares');
    await page.until('the first again', async () => (await previewRow(page, 0))[1] === 'Ness');
    await untilRead(page);
    await accept(page);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    // 1.5 for each of 0 to 49 but the seventh, and 1,200 for that.
    const total = 1.5 * ((49 * 50) / 2 - 7) + 1200;
    expect((await seenFoot(page, 'counted')).join(' ')).toContain(
      total.toLocaleString('en', { minimumFractionDigits: 1 }),
    );
  });
});

describe('a sheet with several tables', () => {
  it('is read by one of them; another is chosen by its words', async () => {
    const sheet = utils.aoa_to_sheet([
      ['Route', 'Fares', null, 'Port', 'Piers'],
      ['Holm', 10, null, 'Holm', 3],
      ['Ness', 3, null, 'Ness', 2],
      ['Skerry', 7],
    ]);
    const book = utils.book_new();
    utils.book_append_sheet(book, sheet, 'Both');
    const bytes = new Uint8Array(write(book, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer);
    await choose(page, madeFile('both.xlsx', bytes));
    expect(await untilRead(page)).toContain('3 records, 2 columns');
    expect((await doubtTexts(page)).join(' ')).toContain(
      'not read: rows 1 to 3, columns 4 to 5: Port, Piers.',
    );
    await page.choose('block', '2');
    await page.until('the ports', async () => (await previewRow(page, 0))[1] === '3');
    expect(await untilRead(page)).toContain('2 records, 2 columns');
  });
});

describe('several files at once', () => {
  it('are one list, each record with its file; one of them can be taken alone', async () => {
    const months = ['January', 'February'].map((month, k) =>
      madeFile(`${month}.csv`, `Route,Fares\nHolm,${k + 1}0.25\nNess,${k + 1}\n`),
    );
    await choose(page, months.join('\n'));
    expect(await untilRead(page)).toContain('4 records, 3 columns');
    expect(await previewRow(page, 0)).toEqual(['January.csv', 'Holm', '10.25']);
    expect(await previewRow(page, 3)).toEqual(['February.csv', 'Ness', '2.00']);
    await page.choose('member', 'February.csv');
    await page.until('the one file', async () => (await previewRow(page, 0))[0] === 'Holm');
    await page.choose('member', '');
    await page.until('all again', async () => (await previewRow(page, 0))[0] === 'January.csv');
  });

  it('text in columns is cut where the analyst says', async () => {
    const lines = [
      'Route         Vessel      Fares',
      'Holm          Gannet      10.25',
      'Outer Freight Ironholm     3.00',
    ];
    await choose(page, madeFile('fixed.txt', `${[...lines, lines[1], lines[1]].join('\n')}\n`));
    await untilRead(page);
    expect(await page.text('form')).toBe('This is text in columns of fixed width.');
    const cuts = await page.find('cuts');
    expect(await cuts.getAttribute('value')).toBe('1, 27');
    await cuts.sendKeys(Key.chord(Key.CONTROL, 'a'), '1 15 27', Key.ENTER);
    await page.until('the vessels', async () => (await previewRow(page, 1))[1] === 'Ironholm');
    expect(await previewRow(page, 1)).toEqual(['Outer Freight', 'Ironholm', '3.00']);
    // The same marks are moved by the keys, taken away, and set by a click on the text.
    const mark = (character: number) =>
      page.driver.findElement(By.css(`[aria-label="A column begins at character ${character}"]`));
    await (await mark(15)).sendKeys(Key.ARROW_RIGHT);
    await page.until('the mark moved', async () => (await mark(16)) !== null);
    expect(await previewRow(page, 1)).toEqual(['Outer Freight I', 'ronholm', '3.00']);
    await (await mark(16)).sendKeys(Key.DELETE);
    await page.until('two columns', async () => (await previewRow(page, 1)).length === 2);
    const text = await page.driver.findElement(By.css('[data-test=cut-lines] .lines'));
    const { width } = await text.getRect();
    // Places count from the middle of the 32 characters.
    const at = Math.round((14 / 31 - 0.5) * width);
    await page.driver.actions().move({ origin: text, x: at, y: 10 }).click().perform();
    await page.until(
      'the vessels again',
      async () => (await previewRow(page, 1))[1] === 'Ironholm',
    );
    await page.driver
      .actions()
      .dragAndDrop(await mark(15), { x: -60, y: 0 })
      .perform();
    await page.until('the mark dragged', async () => (await previewRow(page, 1))[0].length < 10);
  });

  it('whose columns differ are read once it is said what each of these is', async () => {
    await choose(
      page,
      [
        madeFile('March.csv', 'Day,Route,Fares\n2025-03-01,Holm,10.25\n'),
        madeFile('April.csv', 'Day,Route,Fare,Crew\n2025-04-01,Ness,4.5,3\n'),
      ].join('\n'),
    );
    await page.find('heads');
    expect((await page.all('[data-test=accept][disabled]')).length).toBe(1);
    await page.choose('head-Fare', 'same Fares');
    await page.choose('head-Crew', 'out');
    expect(await seriousFaults(page)).toEqual([]);
    await page.click('heads-settled');
    expect(await untilRead(page)).toContain('2 records, 4 columns');
    expect(await previewRow(page, 1)).toEqual(['April.csv', 'Tue 1 Apr 2025', 'Ness', '4.50']);
    await accept(page);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    const { listId } = z
      .object({ listId: z.int() })
      .parse(await page.run(`return fetch('/api' + location.pathname).then((r) => r.json())`));

    // Next month only what is new is asked; what was settled stays.
    await choose(
      page,
      [
        madeFile('May.csv', 'Day,Route,Fares\n2025-05-01,Holm,7.25\n'),
        madeFile('June.csv', 'Day,Route,Fare,Crew,Fog\n2025-06-01,Ness,4.5,3,yes\n'),
      ].join('\n'),
      listId,
    );
    const asked = await page.untilText('heads', 'Fog');
    expect(asked).toContain('1 column is not in all of them');
    await page.choose('head-Fog', 'out');
    await page.click('heads-settled');
    expect(await untilRead(page)).toContain('2 records, 4 columns');
    expect(await previewRow(page, 1)).toEqual(['June.csv', 'Sun 1 Jun 2025', 'Ness', '4.50']);
  });
});

describe('handed over', () => {
  it('a tally as a workbook holds what the command line writes for the same bench', async () => {
    await openBench(page, SAILINGS);
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    await page.press('Hand over');
    await page.choose('out-form', 'xlsx');
    await page.click('save-shown');
    const bytes = await page.savedBytes('.xlsx');
    await page.untilText('notice', 'with full values');
    await page.press('Hand over');
    await page.click('save-ask');
    const ask = JSON.parse(await page.saved('.ask.json')) as { tallies: unknown[] };
    const asked = path.join(folder, 'first.json');
    writeFileSync(asked, JSON.stringify({ ...ask, tallies: ask.tallies.slice(0, 1) }));
    const out = path.join(folder, 'first.xlsx');
    const { status } = spawnSync(process.execPath, [
      'build/node/tally.js',
      ...['reckon', '--data', demoPath('sailings'), '--ask', asked, '--out', out],
    ]);
    expect(status).toBe(0);
    // The first cell of the notes names the list, which the file calls otherwise.
    expect(cellsOf(bytes, 1).slice(1)).toEqual(cellsOf(readFileSync(out), 1).slice(1));
  });

  it('records as delimited text with the marks and the encoding chosen, as HTTP and the command line write them', async () => {
    await openBench(page, SAILINGS);
    await page.press('Hand over');
    await page.choose('out-form', 'csv');
    await page.choose('out-delimiter', 'semicolon');
    await page.choose('out-decimal', 'comma');
    await page.choose('out-encoding', 'utf-16le');
    await page.run(`document.querySelectorAll('.pop input[type=radio]')[1].click()`);
    await page.click('save-records');
    const bytes = await page.savedBytes('.csv');
    const text = new TextDecoder('utf-16le').decode(bytes);
    const [{ fares }] = sailingsInSql()
      .prepare('select fares from s where fares is not null and fares <> round(fares) limit 1')
      .all() as { fares: number }[];
    expect(text).toContain(`;${String(fares).replace('.', ',')};`);
    const asked = 'as=csv&delimiter=semicolon&decimal=comma&encoding=utf-16le';
    const response = await fetch(`${server.address}/api/benches/6/records?${asked}`);
    expect(response.headers.get('content-type')).toBe('text/csv; charset=utf-16le');
    expect(Buffer.from(await response.arrayBuffer()).equals(bytes)).toBe(true);
    const wrong = await fetch(`${server.address}/api/benches/6/records?as=csv&decimal=dash`);
    expect([wrong.status, await wrong.text()]).toEqual([
      400,
      expect.stringContaining('“decimal” one of point, comma'),
    ]);
    const cli = spawnSync(
      process.execPath,
      [
        'build/node/tally.js',
        ...['records', '--data', demoPath('sailings'), '--delimiter', 'semicolon'],
        ...['--decimal', 'comma', '--encoding', 'utf-16le'],
      ],
      { maxBuffer: 1 << 28 },
    );
    expect(cli.status).toBe(0);
    // The bench's columns are the file's own; the same lines, whatever was set aside or narrowed.
    const lines = new Set(new TextDecoder('utf-16le').decode(cli.stdout).split('\r\n'));
    expect(text.split('\r\n').filter((line) => !lines.has(line)).length).toBeLessThan(20);
    // The choice is remembered.
    await openBench(page, SAILINGS);
    await page.press('Hand over');
    expect(await (await page.find('out-decimal')).getAttribute('data-value')).toBe('comma');
    await page.type(Key.ESCAPE);
  });

  it('the counted records as Parquet, and the form is remembered', async () => {
    await page.press('Hand over');
    await page.choose('out-form', 'parquet');
    await page.click('save-records');
    const bytes = await page.savedBytes('.parquet');
    const rows = await parquetReadObjects({ file: new Uint8Array(bytes).buffer, compressors });
    const { n, fares } = sailingsInSql()
      .prepare('select count(*) n, sum(fares) fares from s')
      .get() as {
      n: number;
      fares: number;
    };
    expect(rows).toHaveLength(n);
    expect(rows.reduce((sum, row) => sum + Number(row['Fares taken'] ?? 0), 0)).toBeCloseTo(
      fares,
      4,
    );
    expect(rows[0]['Sailed on']).toBeInstanceOf(Date);
    await openBench(page, SAILINGS);
    await page.press('Hand over');
    expect(await (await page.find('out-form')).getAttribute('data-value')).toBe('parquet');
  });

  it('the whole report as a workbook: a sheet for each tally; over HTTP the same cells', async () => {
    await page.choose('out-form', 'ods');
    await page.click('save-report');
    const bytes = await page.savedBytes('.ods');
    const { SheetNames: sheets } = read(bytes, { type: 'array', bookSheets: true });
    expect(sheets[0]).toBe('About');
    expect(sheets.filter((name) => /^\d+ /.test(name)).length).toBeGreaterThanOrEqual(9);
    const response = await fetch(`${server.address}/api/benches/6/report`, {
      headers: { accept: 'application/vnd.oasis.opendocument.spreadsheet, text/html;q=0.5' },
    });
    expect(response.headers.get('content-type')).toBe(
      'application/vnd.oasis.opendocument.spreadsheet',
    );
    const served = new Uint8Array(await response.arrayBuffer());
    for (const [k] of sheets.entries()) expect(cellsOf(served, k)).toEqual(cellsOf(bytes, k));
  });
});

describe('a file dropped on a bench', () => {
  it('is read as the new reading of its list, by its recipe', async () => {
    await openBench(page, '/benches/4');
    await page.until('the ledger', async () => (await seenLines(page)).length > 0);
    const text = readFileSync(demoPath('kiosks'), 'utf8');
    const drag = (event: string): Promise<void> =>
      page.run(
        `const carried = new DataTransfer();
         carried.items.add(new File([arguments[1]], 'kiosks of the next month.csv'));
         window.dispatchEvent(new DragEvent(arguments[0], { dataTransfer: carried, bubbles: true, cancelable: true }));`,
        event,
        text,
      );
    await drag('dragenter');
    expect(await page.text('drop-file')).toContain('a new reading of Kiosk');
    await drag('drop');
    expect(await untilRead(page)).toContain('365 records, 13 columns');
    expect(await page.driver.getTitle()).toContain('Refresh Kiosk');
  });

  it('so is one dropped on a list of the shelf', async () => {
    await page.go('/');
    await page.find('list');
    await page.run(
      `const carried = new DataTransfer();
       carried.items.add(new File([arguments[0]], 'vessels.csv'));
       const row = [...document.querySelectorAll('[data-test=list]')].find((r) => r.textContent.includes('Vessels'));
       for (const type of ['dragover', 'drop'])
         row.dispatchEvent(new DragEvent(type, { dataTransfer: carried, bubbles: true, cancelable: true }));`,
      readFileSync(demoPath('vessels'), 'utf8'),
    );
    expect(await untilRead(page)).toContain('9 records');
    expect(await page.driver.getTitle()).toContain('Refresh Vessels');
  });
});
