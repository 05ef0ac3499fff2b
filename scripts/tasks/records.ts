import { Key } from '../../tests/interface/support/browser';
import type { Hand } from './hand';
import { ask, find, type Task } from './task';

/** Tasks about which records count, and the totals of groups. */
export const recordTasks: readonly Task[] = [
  {
    number: 3,
    words: 'Subtotals by route, then vessel, handed over',
    most: 5,
    list: 'Sailings 2023–26',
    async pointer(hand) {
      await ask(hand, 'pointer', 'boarded and fares by route then vessel', 'sum of Boarded');
      await hand.see('sum of Boarded and sum of Fares taken', '[data-test=sentence]');
      await hand.click('.bar-button.strong', 'Hand over');
      await hand.click('button', 'Copy');
      await hand.see('Copied', '[data-test=notice]');
    },
    async keys(hand) {
      await ask(hand, 'keys', 'boarded and fares by route then vessel', 'sum of Boarded');
      await hand.see('sum of Boarded and sum of Fares taken', '[data-test=sentence]');
      await hand.key(Key.CONTROL, 'c');
      await hand.see('Copied', '[data-test=notice]');
    },
  },
  ...(
    [
      ['freight only', 'Route: Outer Freight', '1,277'],
      ['without gales', 'all but Weather: gale', '16,827'],
      ['june to august 2025', 'Sailed on', 'Sun 31 Aug 2025'],
    ] as const
  ).map(([typed, offered, left]): Task => {
    const by = (way: 'pointer' | 'keys') => async (hand: Hand) => {
      await find(hand, way, typed, offered);
      await hand.see(left, '[data-test=rung]');
    };
    return {
      number: 4,
      words: `In a meeting: “${typed}”`,
      most: 3,
      list: 'Sailings 2023–26',
      pointer: by('pointer'),
      keys: by('keys'),
    };
  }),
  {
    number: 4,
    words: 'In a meeting: back to where we were',
    most: 3,
    list: 'Sailings 2023–26',
    async pointer(hand) {
      await hand.uncounted(() => find(hand, 'keys', 'freight only', 'Route: Outer Freight'));
      await hand.see('1,277', '[data-test=rung]');
      await hand.click('[data-test=undo]');
      await hand.see('17,631', '[data-test=counted]');
    },
    async keys(hand) {
      await hand.uncounted(() => find(hand, 'keys', 'freight only', 'Route: Outer Freight'));
      await hand.see('1,277', '[data-test=rung]');
      await hand.key(Key.CONTROL, 'z');
      await hand.see('17,631', '[data-test=counted]');
    },
  },
  {
    number: 5,
    words: 'One absurd record set aside; three totals read',
    most: 2,
    list: 'Sailings 2023–26',
    async pointer(hand) {
      await hand.click('.row.group [role=gridcell].figure', '3,742,494.00');
      await hand.click('[data-test=behind] button', 'Set it aside');
      await threeTotals(hand);
    },
    async keys(hand) {
      // What counts, the sentence, the table.
      await hand.keys(Key.F6, 3);
      await hand.key(Key.ARROW_DOWN);
      await hand.keys(Key.ARROW_RIGHT, 3);
      await hand.key(Key.ENTER);
      await hand.see('Set it aside', '[data-test=behind]');
      await hand.key(Key.F6);
      await hand.tabTo('[data-test=rests-aside]');
      await hand.key(Key.ENTER);
      await threeTotals(hand);
    },
  },
  {
    number: 6,
    words: 'The true total of a statement with totals inside',
    most: 1,
    list: 'intake: statement',
    async pointer(hand) {
      await hand.click('[data-test=accept]');
      await hand.see('9 counted', '[data-test=foot-counted]');
    },
    async keys(hand) {
      await hand.key(Key.CONTROL, Key.ENTER);
      await hand.see('9 counted', '[data-test=foot-counted]');
    },
  },
];

async function threeTotals(hand: Hand): Promise<void> {
  await hand.see('30,806,198.50', '[data-test=foot-all]');
  await hand.see('30,806,198.50', '[data-test=foot-narrowed]');
  await hand.see('29,465,023.50', '[data-test=foot-counted]');
}
