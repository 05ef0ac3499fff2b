import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { AskResult } from '$lib/core/ask/result';
import { Ask } from '$lib/core/ask/ask';
import { figureText } from '$lib/core/tally/answer/figureText';
import type { FigureTable } from '$lib/core/tally/answer/result';
import { demoPath } from '../support/demo';
import { sailingsInSql } from '../support/sql';
import { contrastFaults, seriousFaults } from './support/axe';
import type { WebElement } from 'selenium-webdriver';
import { By, Key } from './support/browser';
import { choose, madeFile, untilRead } from './support/intake';
import { number } from './support/ledger';
import { journey } from './support/journey';
import { beginTally, figuresCame, openTally, openTray, seenTable } from './support/tally';

const { page } = journey();

const SAILINGS = '/benches/6';

/** The value of the edge at a place, as the handle says it. */
const edgeAt = async (k: number): Promise<string> =>
  (await page.all('[data-test=edge]'))[k].getText();

describe('how values fall', () => {
  it('begins from a question, drags an edge, opens, hands over, and is undone', async () => {
    await openTray(page, SAILINGS);
    await openTally(page, 'frequency-1');
    expect(await page.text('sentence')).toContain('falls in bands from 0, 1, 5, 10, 20, 40 and 90');
    const sql = sailingsInSql();
    const under = (from: number, to: number): number =>
      Number(
        sql.prepare('select count(*) from s where delay >= ? and delay < ?').pluck().get(from, to),
      );
    expect(number((await seenTable(page))[1][1])).toBe(under(1, 5));

    // An edge by the keys: from 5 to 7, one step to undo.
    const [, , edge] = await page.all('[data-test=edge]');
    await edge.sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await page.until('the edge at 7', async () => (await edgeAt(2)) === '7');
    await figuresCame(page);
    expect(await page.text('sentence')).toContain('from 0, 1, 7, 10');
    await page.until(
      'the figures of the new band',
      async () => number((await seenTable(page))[1][1]) === under(1, 7),
    );

    // The same edge by the pointer, back towards 5.
    const box = await (await page.all('[data-test=edge]'))[2].getRect();
    await page.driver
      .actions()
      .move({ x: Math.round(box.x + box.width / 2), y: Math.round(box.y + box.height / 2) })
      .press()
      .move({ x: Math.round(box.x - 30), y: Math.round(box.y + box.height / 2) })
      .move({ x: Math.round(box.x - 60), y: Math.round(box.y + box.height / 2) })
      .release()
      .perform();
    const dragged = await page.until('a lower edge', async () => {
      const now = Number(await edgeAt(2));
      return now < 7 ? now : null;
    });
    await page.until(
      'the figures of the dragged band',
      async () => number((await seenTable(page))[1][1]) === under(1, dragged),
    );

    await page.click('undo');
    await page.until('the edge at 7 again', async () => (await edgeAt(2)) === '7');
    await page.click('undo');
    await page.until('the first edge again', async () => (await edgeAt(2)) === '5');
    await figuresCame(page);

    // Behind a figure: as many records as it says.
    const [, second] = await page.all('[data-test=figures-main] tbody tr');
    await (await second.findElements(By.css('td.opens')))[0].click();
    await page.untilText('behind', `${under(1, 5).toLocaleString('en-GB')} records`);
    await page.type(Key.ESCAPE);

    await page.press('Hand over');
    await page.click('copy');
    await page.untilText('notice', 'Copied');
    const copied = await page.clipboard('text/plain');
    expect(copied).toContain('How often Delay falls in bands from 0, 1, 5, 10, 20, 40 and 90');
    expect(copied).toContain('17,631 records counted');
    expect(await page.clipboard('text/html')).toContain('<table>');
  });

  it('made of results opens to the records behind those results', async () => {
    await openTray(page, SAILINGS);
    await beginTally(page, 'nested');
    const rows = await seenTable(page);
    const at = rows.findIndex(([label]) => label === 'Nessness');
    const row = (await page.all('[data-test=figures-main] tbody tr[aria-rowindex]'))[at];
    const [, best] = await row.findElements(By.css('td.opens'));
    await best.click();
    const nessness = sailingsInSql()
      .prepare("select count(*) from s where lower(trim(route)) = 'nessness'")
      .pluck()
      .get();
    await page.untilText('behind', `${Number(nessness).toLocaleString('en-GB')} records`);
    await page.type(Key.ESCAPE);
    await page.chord(Key.CONTROL, 'z');
  });

  it('narrows to what a figure stands on, and the figures follow', async () => {
    await openTally(page, 'frequency-1');
    const row = (await page.all('[data-test=figures-main] tbody tr'))[5];
    await (await row.findElements(By.css('td.opens')))[0].click();
    await page.find('behind');
    await page.click('narrow-to-these');
    await page.untilText('notice', 'Narrow to');
    await page.until('one band left', async () => {
      const rows = await seenTable(page);
      return number(rows[0][1]) === 0 && number(rows[5][1]) > 0;
    });
    await page.click('undo');
    await page.until('all bands again', async () => number((await seenTable(page))[0][1]) > 0);
  });

  it('edges typed wrong are told by name, and the bands stay as they were', async () => {
    await openTally(page, 'frequency-1');
    const before = await page.text('sentence');
    await (await page.find('sentence')).findElement(By.css('button[aria-label^="Bands"]')).click();
    const edges = await page.find('edges');
    await edges.sendKeys(Key.chord(Key.CONTROL, 'a'), '0, 5, x', Key.TAB);
    await page.until('what is wrong', async () =>
      (await page.run<string>(`return document.body.textContent`)).includes('“x” is no number'),
    );
    await page.type(Key.ESCAPE);
    expect(await page.text('sentence')).toBe(before);
  });

  it('where nothing counts, every tally says what to do, and no empty chart is handed over', async () => {
    const buttons = async (): Promise<boolean[]> =>
      Promise.all(
        (await page.driver.findElements(By.css('.pictures'))).map((one) => one.isDisplayed()),
      );
    await openTally(page, 'percentile-1');
    await page.until(
      'the chart',
      async () => (await page.driver.findElements(By.css('svg.chart'))).length,
    );
    expect(await buttons()).toEqual([true]);
    await page.click('narrow');
    await page.choose('condition-column', 'delay');
    await page.choose('condition-test', 'compare-ge-1');
    const value = await page.find('condition-value');
    await value.sendKeys(Key.chord(Key.CONTROL, 'a'), '5000');
    await page.untilText('preview', 'keeps');
    await page.click('accept-rung');
    await page.untilText('nothing-counted', 'Switch a step of What counts off');
    await figuresCame(page);
    await page.until('no chart', async () => (await buttons()).join() === 'false');
    await page.click('tally-ledger');
    await page.find('foot-counted');
    expect(await page.text('nothing-counted')).toContain('put records back');
    await page.click('new-tally');
    await page.find('question-ranking');
    expect(await page.text('nothing-counted')).toContain('put records back');
    await page.type(Key.ESCAPE);
    await page.click('undo');
    await page.until('all records again', async () =>
      (await page.text('counted')).includes('17,631'),
    );
  });

  it('keeps its bands under a name', async () => {
    await openTally(page, 'frequency-1');
    await page.press('Keep these bands…');
    // Named after their column at first: what is typed takes the place of that.
    const name = await page.find('bands-name');
    expect(await name.getAttribute('value')).toBe('Delay');
    await page.type('Punctuality', Key.ENTER);
    await page.untilText('notice', 'Keep the bands “Punctuality”');
    await beginTally(page, 'frequency');
    await (await page.find('sentence')).findElement(By.css('button[aria-label^="Bands"]')).click();
    await page.press('Punctuality');
    await page.untilText('sentence', 'the bands “Punctuality”');
    await page.type(Key.ESCAPE);
    const other = await openId();

    // Another list's bench is offered them too, by where they are kept.
    await page.until('that it is saved', async () => (await page.text('save-state')) === 'saved');
    await openTray(page, '/benches/3');
    await beginTally(page, 'frequency');
    await (await page.find('sentence')).findElement(By.css('button[aria-label^="Bands"]')).click();
    await page.press('Punctuality of Sailings 2023–26, Bench 1');
    await page.untilText('sentence', 'the bands “Punctuality”');
    await page.until('those bands', async () =>
      (await seenTable(page)).some(([label]) => label === '10 to under 20'),
    );
    await page.type(Key.ESCAPE);
    await openTray(page, SAILINGS);

    // Kept anew with another edge: the tally that uses them is offered the change, and takes it.
    await openTally(page, 'frequency-1');
    await (await page.find('sentence')).findElement(By.css('button[aria-label^="Bands"]')).click();
    await (
      await page.find('edges')
    ).sendKeys(Key.chord(Key.CONTROL, 'a'), '0, 1, 5, 10, 20, 60', Key.TAB);
    await page.untilText('sentence', '20 and 60');
    await page.type(Key.ESCAPE);
    await page.press('Keep these bands…');
    await page.find('bands-name');
    await page.type('Punctuality');
    await page.until('the offer', async () =>
      (await page.run<string>('return document.body.innerText')).includes(
        'Change 1 other tally that uses “Punctuality” as it was',
      ),
    );
    expect(await (await page.find('bands-follow')).isSelected()).toBe(true);
    await page.type(Key.ENTER);
    await openTally(page, other);
    await page.until('the other edge', async () =>
      (await seenTable(page)).some(([label]) => label === '20 to 60'),
    );
    // So is the bench of another list that took them, the next time it is opened.
    await page.until('that it is saved', async () => (await page.text('save-state')) === 'saved');
    const here = await page.driver.getWindowHandle();
    await page.driver.switchTo().newWindow('tab');
    await openTray(page, '/benches/3');
    await page.untilText('bands-anew', 'kept anew in Sailings 2023–26, Bench 1. 1 tally has them');
    await page.press('Take them');
    await page.until('the edge there too', async () =>
      (await seenTable(page)).some(([label]) => label === '20 to 60'),
    );
    expect(await page.all('[data-test=bands-anew]')).toHaveLength(0);
    await page.driver.close();
    await page.driver.switchTo().window(here);
    // One step takes both back, the next the edge.
    await page.click('undo');
    await openTally(page, other);
    await page.until('the edges of before', async () =>
      (await seenTable(page)).every(([label]) => label !== '20 to 60'),
    );
    await page.click('undo');
    await openTally(page, 'frequency-1');
    await page.until('its own of before', async () =>
      (await seenTable(page)).every(([label]) => label !== '20 to 60'),
    );
  });
});

describe('the tray', () => {
  it('says what each came to, renames, duplicates, orders, takes out, and undoes', async () => {
    await openTray(page, SAILINGS);
    const names = async (): Promise<string[]> =>
      Promise.all((await page.all('[data-tally] span')).map((e) => e.getText()));
    await page.untilText('tally-frequency-1', '6 bands');
    await page.untilText('tally-conditional-1', 'in several');
    await page.untilText('tally-ledger', 'foots');
    const before = await names();
    await openTally(page, 'percentile-1');
    const more = async (word: string): Promise<void> => {
      await (
        await page.driver.findElement(By.css('li.open button[aria-label^="More about"]'))
      ).click();
      await page.press(word, 'li.open [role=menu]');
    };
    await more('Duplicate');
    await page.until('one more', async () => (await names()).length === before.length + 1);
    expect(await names()).toContain('Where a delay stands, again');
    const field = (): Promise<true> =>
      page.until('the field of its name', () =>
        page.run<boolean>(`return document.activeElement.matches('.tray input')`),
      );
    await more('Rename…');
    await field();
    await page.type('Of delays', Key.ENTER);
    await page.until('the new name', async () => (await names()).includes('Of delays'));
    await more('Rename…');
    await field();
    await page.type('given up', Key.ESCAPE);
    expect(await names()).toContain('Of delays');
    await page.click('undo');
    await more('Take out');
    await page.until('as before', async () => (await names()).length === before.length);
    await page.click('undo');
    await page.until('back again', async () => (await names()).length === before.length + 1);
    await page.click('undo');
    await page.until('as at first', async () => (await names()).join() === before.join());

    // By keys: down the tray, and a tally moved past its neighbour.
    await (await page.find('tally-percentile-1')).sendKeys(Key.chord(Key.ALT, Key.ARROW_DOWN));
    await page.until(
      'another order',
      async () =>
        (await names()).indexOf('Where a delay stands') > before.indexOf('Where a delay stands'),
    );
    await page.click('undo');
    await page.until('the old order', async () => (await names()).join() === before.join());
  });

  it('a word of a sentence is dragged to another place, or moved there by its menu', async () => {
    await openTray(page, '/benches/6');
    await beginTally(page, 'crosstab');
    const heads = (): Promise<string> => page.text('figures-main').then((t) => t.split('\n')[0]);
    const word = async (text: string): Promise<WebElement> => {
      for (const found of await page.all('[data-test=sentence] .word'))
        if ((await found.getText()) === text) return found;
      throw new Error(`no word “${text}”`);
    };
    const sentence = async (): Promise<string> =>
      (await page.text('sentence')).replace(/\s+/g, ' ');
    expect(await sentence()).toMatch(/for each Route .* across Sailed on by year/);
    const [from, to] = [await word('Route'), await word('Sailed on by year')];
    await page.driver
      .actions()
      .move({ origin: from })
      .press()
      .move({ origin: to, x: 2, y: 2, duration: 200 })
      .move({ origin: to, x: -2, y: -2, duration: 100 })
      .release()
      .perform();
    await page.until('the exchanged sides', async () =>
      /for each Sailed on by year .* across Route/.test(await sentence()),
    );
    await figuresCame(page);
    expect(await heads()).toContain('Sailed on by year');
    await (await word('Route')).click();
    await page.press('Exchange with Sailed on by year');
    await page.until('the sides as they were', async () =>
      /for each Route .* across Sailed on by year/.test(await sentence()),
    );
  });

  it('a link opens the very tally', async () => {
    await openTally(page, 'ranking-1');
    await page.untilText('save-state', 'saved');
    await page.go(SAILINGS);
    await page.find('figures-main');
    expect(await page.text('sentence')).toContain('Each Vessel');
  });

  it('the questions follow what is typed: cause, most first', async () => {
    await openTray(page, SAILINGS);
    await page.type('t');
    await (await page.find('find-question')).sendKeys('cause');
    await page.untilText('question-frequency', 'How often each Cause occurs');
    await page.click('question-frequency');
    await page.untilText('sentence', 'How often each Cause');
    await figuresCame(page);
    const want = sailingsInSql()
      .prepare('select cause, count(*) from s where cause is not null group by 1 order by 2 desc')
      .raw()
      .all();
    await page.until('the causes, most first', async () => {
      const rows = await seenTable(page);
      return (
        JSON.stringify(rows.slice(0, want.length).map((r) => [r[0], number(r[1])])) ===
        JSON.stringify(want)
      );
    });
    await page.click('undo');
  });

  it('ranks within a group above in one choice', async () => {
    await openTray(page, SAILINGS);
    await openTally(page, 'ranking-1');
    await (await page.driver.findElement(By.css('button[aria-label^="within each…"]'))).click();
    await page.until('the menu', () =>
      page.run<boolean>(`return document.activeElement.matches('.pop input.search')`),
    );
    await page.type('Route', Key.ENTER);
    await page.untilText('sentence', ', within each Route');
    await page.click('undo');
    await page.until(
      'as before',
      async () => !(await page.text('sentence')).includes('within each Route'),
    );
  });

  for (const [typed, offered, said] of [
    ['median delay by vessel', 'median of Delay.', 'median of Delay'],
    [
      'rank vessels by fares within route, first 3',
      'Each Vessel ranked by sum of Fares taken, highest first, within each Route;',
      'within each Route',
    ],
    [
      'fares by month, quarter and year',
      'by year, quarter and month of Sailed on',
      'year, quarter and month',
    ],
    [
      'boarded for each route, next 12 months',
      'for each Route, carried on for 12 periods',
      'carried on for 12 periods',
    ],
  ])
    it(`a wish typed in the finder begins a tally: ${typed}`, async () => {
      await page.chord(Key.CONTROL, 'k');
      await (await page.find('finder')).sendKeys(typed);
      await page.until('the tally first', async () => {
        const [first] = await page.all('[role=dialog] [role=option][aria-selected=true]');
        return first !== undefined && (await first.getText()).includes(offered);
      });
      await page.type(Key.ENTER);
      await page.untilText('sentence', said);
      await page.chord(Key.CONTROL, 'z');
    });

  it('words of a wish that are not understood are gone to first, and never passed over by one Enter', async () => {
    await page.chord(Key.CONTROL, 'k');
    await (await page.find('finder')).sendKeys('fares by route per pot without gale');
    await page.untilText('not-understood', 'Not understood: “per pot”');
    await page.type(Key.ENTER);
    await page.untilText('not-understood', 'Enter once more');
    const chosen = await page.run<string>(
      `const field = document.activeElement; return field.value.slice(field.selectionStart, field.selectionEnd)`,
    );
    expect(chosen).toBe('per pot');
    await page.type(Key.ENTER);
    await page.untilText('sentence', 'grouped by Route');
    const [{ n }] = sailingsInSql()
      .prepare("select count(*) n from s where weather <> 'gale'")
      .all() as { n: number }[];
    await page.untilText('counted', n.toLocaleString('en'));
    await page.chord(Key.CONTROL, 'z');
  });
});

const KINDS = [
  'ledger',
  'crosstab',
  'conditional',
  'frequency',
  'spread',
  'percentile',
  'ranking',
  'periods',
  'growth',
  'forecast',
  'line',
  'contributions',
  'nested',
];

describe('the page and the command line', () => {
  it('come to the same figures for every kind, through a bench saved as a question file', async () => {
    await openTray(page, SAILINGS);
    const seen = new Map<string, string[][]>();
    for (const kind of KINDS.slice(1)) {
      await beginTally(page, kind);
      seen.set(await openId(), await seenTable(page));
    }
    await page.press('Hand over');
    await page.click('save-ask');
    const text = await page.saved('.ask.json');
    const file = path.join(page.downloads, 'bench.json');
    writeFileSync(file, text);
    const { status, stdout, stderr } = spawnSync(
      process.execPath,
      ['build/node/tally.js', 'reckon', '--data', demoPath('sailings'), '--ask', file],
      { encoding: 'utf8', maxBuffer: 1 << 28 },
    );
    expect(status, stderr).toBe(0);
    const { tallies } = AskResult.parse(JSON.parse(stdout));
    const asked = Ask.parse(JSON.parse(text)).tallies;
    const ids = await page.run<string[]>(
      `return [...document.querySelectorAll('[data-tally]')].map((e) => e.dataset.tally)`,
    );
    expect(tallies.length).toBe(ids.length);
    let compared = 0;
    for (const [k, id] of ids.entries()) {
      const rows = seen.get(id);
      if (!rows) continue;
      const wanted = writtenOut(tallies[k].tables[0]);
      // Beside a figure may stand that it is covered in part, or rests on one record.
      const found = new Set(
        rows.flat().map((cell) => cell.replace(/ ?(in part|rests on one record)$/, '')),
      );
      for (const figure of wanted.slice(0, 200)) {
        expect(found.has(figure), `${asked[k].kind}: ${figure}`).toBe(true);
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(300);
  });

  it('reads such a file in again as a bench', async () => {
    await page.go('/lists/6');
    const file = path.join(page.downloads, 'again.ask.json');
    writeFileSync(
      file,
      JSON.stringify({
        tallies: [
          {
            kind: 'ranking',
            title: 'Ships',
            groups: [{ column: 'Vessel' }],
            by: { kind: 'records' },
          },
        ],
      }),
    );
    await (await page.find('question-file')).sendKeys(file);
    await page.find('figures-main');
    expect(await page.text('tally-ranking-1')).toContain('Ships');
    expect((await seenTable(page))[0][1]).toBe('Arctic Tern');
  });

  it('says what is wrong with a file that is no question file', async () => {
    await page.go('/lists/6');
    const file = path.join(page.downloads, 'wrong.json');
    writeFileSync(file, JSON.stringify({ tallies: [{ kind: 'leaf' }] }));
    await (await page.find('question-file')).sendKeys(file);
    await page.until('the fault', async () =>
      (await page.run<string>('return document.body.textContent')).includes('cannot be used'),
    );
  });
});

const openId = async (): Promise<string> =>
  page.run<string>(`return document.querySelector('li.open [data-tally]')?.dataset.tally ?? ''`);

/** Every figure of a table as the page writes it, without labels and what stands for none. */
function writtenOut({ columns, rows, labels }: FigureTable): string[] {
  return rows.flatMap((row) =>
    row.cells.flatMap((cell, c) =>
      c < labels || cell === null || /^(from|to)$/.test(columns[c].key)
        ? []
        : [figureText(columns[c], cell)],
    ),
  );
}

describe('sentences', () => {
  it('every option under “more…” opens a menu by the keys, and what is set shows', async () => {
    await openTray(page, SAILINGS);
    await beginTally(page, 'periods');
    await (
      await page.driver.findElement(By.css('button[aria-label="more choices"]'))
    ).sendKeys(Key.ENTER);
    await page.press('the running total');
    await page.untilText('sentence', 'with the running total');
    await figuresCame(page);
    await page.until('a column of it', async () =>
      (await page.text('figures-main')).toLowerCase().includes('running total'),
    );
    await (await page.driver.findElement(By.css('button[aria-label="more choices"]'))).click();
    await page.press('a moving average');
    await (await page.find('number')).sendKeys(Key.chord(Key.CONTROL, 'a'), '3', Key.ENTER);
    await page.untilText('sentence', 'with the mean of 3 periods');
    await page.click('undo');
    await page.click('undo');
    await page.until(
      'the sentence as it was',
      async () => !(await page.text('sentence')).includes('running total'),
    );
  });

  it('conditions are made and named in the sentence', async () => {
    await beginTally(page, 'conditional');
    await (await page.driver.findElement(By.css('button[aria-label^="or where…"]'))).click();
    await page.choose('condition-column', 'boarded');
    await page.choose('condition-test', 'compare-ge-1');
    const value = await page.find('condition-value');
    await value.clear();
    await value.sendKeys('300');
    await page.click('keep-condition');
    await page.untilText('sentence', 'Boarded is at least 300');
    await figuresCame(page);
    const sql = sailingsInSql();
    const want = Number(sql.prepare('select count(*) from s where boarded >= 300').pluck().get());
    await page.until('its row', async () =>
      (await seenTable(page)).some(
        ([name, count]) => name === 'Boarded is at least 300' && number(count) === want,
      ),
    );
  });
});

describe('another list as a band table', () => {
  it('gives its bands by name, and the same counts as SQL', async () => {
    await openTray(page, SAILINGS);
    await openTally(page, 'frequency-1');
    await (await page.find('sentence')).findElement(By.css('button[aria-label^="Bands"]')).click();
    await page.choose('bands-way', 'list');
    await page.choose('bands-list', 'Delay bands');
    await page.untilText('sentence', 'the bands of Delay bands');
    await page.type(Key.ESCAPE);
    const want = Number(
      sailingsInSql()
        .prepare('select count(*) from s where delay >= 10 and delay < 20')
        .pluck()
        .get(),
    );
    await page.until('its bands', async () =>
      (await seenTable(page)).some(([name, count]) => name === 'late' && number(count) === want),
    );
    await page.untilText('save-state', 'saved');
    await page.go(SAILINGS);
    await page.until('the same after it was opened anew', async () =>
      (await seenTable(page)).some(([name, count]) => name === 'late' && number(count) === want),
    );
  });
});

describe('what moved since the last reading', () => {
  it('is asked from the questions, and says which figure moved by how much', async () => {
    const vessels = readFileSync(demoPath('vessels'), 'utf8').replace('2011,450,', '2011,500,');
    await choose(page, madeFile('vessels.csv', vessels), 5);
    await untilRead(page);
    await page.run('document.activeElement?.blur()');
    await page.until(
      'that it can be accepted',
      async () => (await page.all('[data-test=accept]:not([disabled])')).length === 1,
    );
    await page.chord(Key.CONTROL, Key.ENTER);
    await page.find('reading');
    await openTray(page, '/benches/5');
    await page.click('new-tally');
    await page.click('question-comparison');
    await page.untilText('sentence', 'What moved since the reading of');
    const moved = await page.until('the figure that moved', async () =>
      (await seenTable(page)).find((row) => row.some((cell) => cell === '50')),
    );
    expect(moved.join(' ')).toContain('Passengers');
  });
});

describe('tallies for everybody', () => {
  it('have no serious fault for assistive technology, in both themes', async () => {
    await openTray(page, SAILINGS);
    const ids = await page.run<string[]>(
      `return [...document.querySelectorAll('[data-tally]')].map((e) => e.dataset.tally).filter((id) => id !== 'ledger')`,
    );
    for (const mode of ['light', 'dark']) {
      await page.run(`document.documentElement.dataset.mode = arguments[0]`, mode);
      for (const id of ids.slice(0, 8)) {
        await openTally(page, id);
        const faults = mode === 'light' ? seriousFaults(page) : contrastFaults(page);
        expect(await faults, `${id}, ${mode}`).toEqual([]);
      }
    }
    await page.run(`document.documentElement.dataset.mode = 'light'`);
    await page.click('new-tally');
    await page.until(
      'sketches',
      async () => (await page.all('[data-test=chooser] svg')).length > 8,
    );
    expect(await seriousFaults(page)).toEqual([]);
    await page.type(Key.ESCAPE);
  });

  it('are reached and opened without a pointer', async () => {
    await openTray(page, SAILINGS);
    await page.type('t');
    await page.find('chooser');
    await page.type('spread');
    await page.until(
      'one card',
      async () => (await page.all('[data-test^=question-]')).length === 1,
    );
    await page.type(Key.ENTER);
    await page.find('figures-main');
    await figuresCame(page);
    await (await page.find('figures-main')).sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ENTER);
    await page.find('behind');
    await page.type(Key.ESCAPE);
    await (await page.find('chart')).sendKeys(Key.ARROW_RIGHT, Key.ENTER);
    await page.find('behind');
    await page.type(Key.ESCAPE);
    await page.chord(Key.CONTROL, 'z');
    await page.until(
      'the tally gone',
      async () => !(await page.text('sentence')).includes('spreads'),
    );
  });
});
