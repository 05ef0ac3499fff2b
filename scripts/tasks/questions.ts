import { Key } from '../../tests/interface/support/browser';
import type { Hand } from './hand';
import { ask, asked, find, type Task } from './task';

const list = 'Sailings 2023–26';
const BANDS = 'delay in bands 0, 1, 5, 10, 20 with fares';
const FACTS = 'count, mean ± deviation, lowest and highest of delay by vessel';
const PERIODS = 'fares by month, quarter and year';

/** Tasks that are asked for in words: conditions, bands, places, ranks, periods. */
export const questionTasks: readonly Task[] = [
  asked(
    { number: 7, words: 'Figures under conditions, both and neither, by route', most: 8, list },
    'count, fares and mean delay where delay at least 10, where weather is gale or fog, both and neither, by route',
    'each where Delay is at least 10',
    async (hand) => {
      await hand.see('1,120', '[data-test=figures-main]');
      await hand.see('14,873', '[data-test=figures-main]');
    },
  ),
  {
    number: 8,
    words: 'Delays in bands, an edge moved, the bands used in another list',
    most: 7,
    list,
    async pointer(hand) {
      await ask(hand, 'pointer', BANDS, 'How often Delay falls in bands from 0');
      await hand.see('39.1 %', '[data-test=figures-main]');
      await hand.drag('[role=slider][aria-label="Edge 3"]', 30);
      await hand.click('button', 'Keep these bands…');
      // Named after their column unless something else is typed.
      await hand.key(Key.ENTER);
      await hand.see('Keep the bands “Delay”', '[data-test=notice]');
      await hand.see(/\bsaved\b/, '[data-test=save-state]');
      await hand.click('a[href="/"]');
      await hand.click('a[href="/benches/4"]');
      await ask(hand, 'pointer', 'keldhaven a in delay bands', 'How often Keldhaven A falls');
      await hand.see('the bands “Delay”', '[data-test=sentence]');
    },
    async keys(hand) {
      await ask(hand, 'keys', BANDS, 'How often Delay falls in bands from 0');
      await hand.see('39.1 %', '[data-test=figures-main]');
      await hand.keys(Key.F6, 2);
      await hand.tabTo('[role=slider][aria-label="Edge 3"]');
      await hand.key(Key.ARROW_RIGHT);
      await hand.tabTo('button', 'Keep these bands…', true);
      await hand.key(Key.ENTER);
      // Named after their column unless something else is typed.
      await hand.key(Key.ENTER);
      await hand.see('Keep the bands “Delay”', '[data-test=notice]');
      await hand.see(/\bsaved\b/, '[data-test=save-state]');
      await find(hand, 'keys', 'go to kiosk', 'Go to the bench of Kiosk sales 2025');
      await hand.see('Kiosk sales 2025', '.trail');
      await hand.page.find('new-tally');
      await ask(hand, 'keys', 'keldhaven a in delay bands', 'How often Keldhaven A falls');
      await hand.see('the bands “Delay”', '[data-test=sentence]');
    },
  },
  {
    number: 9,
    words: 'How often each cause occurs',
    most: 2,
    list,
    async pointer(hand) {
      await hand.uncounted(() => find(hand, 'keys', 'cause facts', 'Cause: facts and acts'));
      // From the head of its column, where the ledger shows it.
      await hand.see('14,611', '[data-test=column-panel]');
      await hand.click('[data-test=column-panel] button', 'how it falls');
      await hand.see('loading', '[data-test=figures-main]');
    },
    async keys(hand) {
      await ask(hand, 'keys', 'cause, most first', 'How often each Cause');
      await hand.see('14,611', '[data-test=figures-main]');
    },
  },
  asked(
    {
      number: 10,
      words: 'Five facts of each vessel’s delay; mean ± deviation rounded',
      most: 5,
      list,
    },
    FACTS,
    'standard deviation of Delay',
    async (hand) => {
      await hand.see('standard deviation of Delay', '[data-test=sentence]');
      await hand.see('±', '[data-test=ledger]');
    },
  ),
  asked(
    { number: 11, words: 'The delay that 90 % stay at or under; where 20 stands', most: 4, list },
    '90 % of delay, and where 20',
    'The 90th percentile',
    async (hand) => {
      await hand.see('15,383.80', '[data-test=figures-main]');
      await hand.see('98.5 %');
    },
  ),
  asked(
    { number: 12, words: 'Vessels ranked by fares within their route', most: 5, list },
    'rank vessels by fares within route, first 3',
    'within each Route',
    async (hand) => hand.see('46.4 %', '[data-test=figures-main]'),
  ),
  asked(
    { number: 13, words: 'Of each route the highest vessel, and which', most: 3, list },
    'best vessel of each route by fares',
    'First, sum of Fares taken',
    async (hand) => hand.see('Arctic Tern', '[data-test=figures-main]'),
  ),
  {
    number: 14,
    words: 'Fares by month, quarter, year against a year before; years from April',
    most: 5,
    list,
    async pointer(hand) {
      await ask(hand, 'pointer', PERIODS, 'Sum of Fares taken by year, quarter and month');
      await hand.see('A year before', '[data-test=figures-main]');
      await hand.click('[data-test=sentence] .word', 'years that start in January');
      await hand.click('.pop button, .pop [role=option]', 'years that start in April');
      await hand.see('years that start in April', '[data-test=sentence]');
    },
    async keys(hand) {
      await ask(hand, 'keys', PERIODS, 'Sum of Fares taken by year, quarter and month');
      await hand.see('A year before', '[data-test=figures-main]');
      await ask(hand, 'keys', `${PERIODS} from April`, 'years that start in April');
      await hand.see('years that start in April', '[data-test=sentence]');
    },
  },
  asked(
    { number: 15, words: 'Compound growth, intervals, a check', most: 4, list },
    'growth of fares from 2023 to 2025',
    'Compound growth',
    async (hand) => {
      await hand.see('13.2 %', '[data-test=figures-main]');
      await hand.see('Fitted rate');
    },
  ),
  asked(
    { number: 16, words: 'Boarded for the next 12 months, for each route', most: 5, list },
    'boarded for each route, next 12 months',
    'Sum of Boarded by month',
    async (hand) => hand.see('95,203'),
  ),
  {
    number: 24,
    words: 'Where a figure of the report comes from',
    most: 2,
    list,
    async pointer(hand) {
      await hand.uncounted(() => openReport(hand));
      await hand.click('[data-test=page] [data-test=report-table] td button');
      await hand.see('records', '[data-test=behind]');
    },
    async keys(hand) {
      await hand.uncounted(() => openReport(hand));
      await find(hand, 'keys', 'how delays fall', 'Open: How delays fall');
      await hand.see('39.1 %', '[data-test=figures-main]');
      // What counts, the sentence, the table.
      await hand.keys(Key.F6, 3);
      await hand.key(Key.ARROW_RIGHT);
      await hand.key(Key.ENTER);
      await hand.see('records', '[data-test=behind]');
    },
  },
];

async function openReport(hand: Hand): Promise<void> {
  await hand.click('[data-test=report-open]');
  await hand.see(/\d+ pages/, '[data-test=pages]');
}
