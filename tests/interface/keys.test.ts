import { describe, it } from 'vitest';
import { Key } from './support/browser';
import { journey } from './support/journey';
import { figuresCame, openTray } from './support/tally';

const { page } = journey();

const on = (selector: string): Promise<boolean> =>
  page.run<boolean>('return document.activeElement?.matches(arguments[0]) ?? false', selector);

/** Goes on with Tab until the focus is on such an element. */
async function tabTo(selector: string, key: string = Key.TAB): Promise<void> {
  for (let k = 0; k < 150; k++) {
    if (await on(selector)) return;
    await page.type(key);
  }
  throw new Error(`No Tab leads to ${selector}.`);
}

/** Does by the finder what its words name. */
async function find(words: string, offered: string): Promise<void> {
  await page.chord(Key.CONTROL, 'k');
  await page.until('the finder', () => on('[data-test=finder]'));
  await page.type(words);
  await page.until('what it offers', async () =>
    (
      await page.run<string>(
        `return document.querySelector('[role=option][aria-selected=true]')?.innerText ?? ''`,
      )
    ).includes(offered),
  );
  await page.type(Key.ENTER);
}

/** Opens the menu that has the focus and does an act of it. */
async function act(label: string): Promise<void> {
  await page.type(Key.ENTER);
  for (let k = 0; k < 20; k++) {
    const now = await page.run<string>(
      `return document.querySelector('[role=menu] [data-highlighted]')?.innerText.trim() ?? ''`,
    );
    if (now.endsWith(label)) {
      await page.type(Key.ENTER);
      return;
    }
    await page.type(Key.ARROW_DOWN);
  }
  throw new Error(`The menu has no ${label}.`);
}

const tray = (): Promise<string[]> =>
  page.run<string[]>(
    `return [...document.querySelectorAll('[data-tally] span')].map((e) => e.innerText)`,
  );
const counted = (): Promise<string> => page.text('counted');

describe('a session at the bench without a pointer', () => {
  it('begins a tally, changes its words, opens a figure and says what it should be', async () => {
    await openTray(page, '/benches/6');
    await page.type('t');
    await page.until(
      'the questions',
      async () => (await page.all('[data-test^=question-]')).length > 0,
    );
    await tabTo('[data-test=question-crosstab]');
    await page.type(Key.ENTER);
    await figuresCame(page);

    // A word of the sentence: its menu is opened, looked through and chosen from.
    await tabTo('.word[aria-label^="Measure 1"]');
    await page.type(Key.ENTER);
    await page.until('its menu', () => on('.pop *'));
    await page.type(Key.ESCAPE);
    await page.until('the word again', () => on('.word[aria-label^="Measure 1"]'));
    await tabTo('.word[aria-label^="Group"]');
    await page.type(Key.ENTER);
    await page.until('its menu', () => on('.pop *'));
    await page.type(Key.ESCAPE);

    // The table: to a figure, sorted for the eye, opened, and a known total put on it.
    await tabTo('table[role=grid]');
    await page.type(Key.ARROW_DOWN, Key.ARROW_RIGHT, 's');
    await page.until('the order', async () => (await page.all('p.sorted')).length === 1);
    await page.type(Key.ENTER);
    await page.find('behind');
    await page.type('k');
    await page.until('the field', () => on('[data-test=known]'));
    await page.type('12', Key.ENTER);
    await page.untilText('known-open', 'differs');
    await page.chord(Key.CONTROL, 'z');
    await page.type(Key.ESCAPE);
    await find('undo', 'Undo');
  });

  it('narrows, turns a step round, moves and removes it by its menu', async () => {
    await openTray(page, '/benches/6');
    const all = await counted();
    await page.type('n');
    await page.until('the step', async () => (await page.all('[data-test=preview]')).length > 0);
    await tabTo('[data-test=condition-column]');
    await page.type('Delay');
    await tabTo('[data-test=condition-value]');
    await page.type(Key.chord(Key.CONTROL, 'a'), '10');
    await page.untilText('preview', 'keeps');
    await page.type(Key.ENTER);
    await page.until('fewer', async () => (await counted()) !== all);
    const few = await counted();
    // What was done stands at the foot of the rail, from the first time on.
    await page.until('what was done', () =>
      page.run<boolean>(
        `return document.querySelector('[data-scope=toast][data-part=root]')?.innerText.includes('Narrow') ?? false`,
      ),
    );
    await tabTo('[aria-label^="Change the step"]');
    await act('Turn round (not)');
    await page.until('the others', async () => ![all, few].includes(await counted()));
    await tabTo('[aria-label^="Change the step"]');
    await act('Remove');
    await page.until('all again', async () => (await counted()) === all);
  });

  it('names, moves, duplicates and takes out a tally', async () => {
    await openTray(page, '/benches/6');
    await tabTo('[data-tally]');
    const before = await tray();
    await page.type(Key.ARROW_DOWN, Key.F2);
    await page.until('the field', () => on('.tray input'));
    await page.type('Delays in bands', Key.ENTER);
    await page.until('the name', async () => (await tray())[1] === 'Delays in bands');
    await page.until('the tally', () => on('[data-tally]'));
    await page.chord(Key.ALT, Key.ARROW_DOWN);
    await page.until('its place', async () => (await tray())[2] === 'Delays in bands');
    await page.until('the tally', () => on('[data-tally]'));
    await page.type(Key.TAB);
    await page.until('its menu’s button', () => on('[aria-label^="More about"]'));
    await act('Duplicate');
    await page.until('one more', async () => (await tray()).length === before.length + 1);
    await tabTo('[data-tally]', Key.chord(Key.SHIFT, Key.TAB));
    await page.type(Key.DELETE);
    await page.until('one fewer', async () => (await tray()).length === before.length);
  });

  it('writes into the report, chooses what of a tally is in it, and hands over', async () => {
    await openTray(page, '/benches/6');
    await find('the report', 'The report');
    await page.untilText('pages', 'page');
    await tabTo('[aria-label$="in the report"]');
    await page.type(Key.TAB);
    await tabTo('[aria-label$="in the report"]');
    await act('Table alone');
    await page.untilText('notice', 'Table alone');
    await find('undo', 'Undo');
    await tabTo('.bar-button.strong');
    await page.type(Key.ENTER);
    await page.until('the menu', () => on('.pop *'));
    await tabTo('[data-test=copy]');
    await page.type(Key.ENTER);
    await page.untilText('notice', 'Copied');
  });
});
