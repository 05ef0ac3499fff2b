import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { Wish } from '$lib/core/tally/wish/wish';
import type { KeptBands } from '$lib/core/arrange/bands';
import { scalarColumn, textColumn, type Column } from '$lib/core/table/column';
import { wishOf } from '../../support/wish';

const columns: readonly Column[] = [
  scalarColumn('Delay', 'number', [10, 0], { id: 'delay', unit: 'min' }),
  scalarColumn('Fares taken', 'number', [10, 0], { id: 'fares' }),
  scalarColumn('Fares due', 'number', [10, 0], { id: 'due' }),
  textColumn('Vessel', ['Gannet', 'Petrel'], 'vessel'),
  textColumn('Route', ['Nessness', 'Nessness'], 'route'),
  scalarColumn('Sailed on', 'date', [20000, 20001], { id: 'day' }),
];

/** What is wished for in so many words; nothing grouped is left out. */
function wishIn(text: string, of: readonly Column[], kept: readonly KeptBands[] = []): Wish | null {
  const { by = [], ...more } = wishOf(text, { length: 2, columns: [...of] }, kept) ?? { by: null };
  return by === null ? null : { ...more, ...(by.length > 0 && { by }) };
}
const wish = (text: string): Wish | null => wishIn(text, columns);

describe('a wish in words', () => {
  it('names a measure, what it is of, and what it is by', () => {
    expect(wish('median delay by vessel')).toEqual({
      measure: 'median',
      column: 'delay',
      by: ['vessel'],
    });
    expect(wish('average fares per month')).toEqual({
      measure: 'mean',
      column: 'fares',
      period: 'month',
    });
    expect(wish('count by vessel')).toEqual({ measure: 'records', by: ['vessel'] });
    expect(wish('hello there')).toBeNull();
    expect(wish('')).toBeNull();
  });

  it('takes a whole name before a word of another', () => {
    expect(wish('sum of Fares due')).toMatchObject({ column: 'due' });
    expect(wish('sum of Fares taken')).toMatchObject({ column: 'fares' });
    // A word names one column: "fares" is not both.
    expect(wish('fares by route')).toEqual({ column: 'fares', by: ['route'] });
  });

  it('groups stand in the order in which they are named, not that of the list', () => {
    expect(wish('fares by route, vessel')).toMatchObject({ by: ['route', 'vessel'] });
    expect(wish('fares by vessel and route')).toMatchObject({ by: ['vessel', 'route'] });
    expect(wish('fares vessel')).toEqual({ column: 'fares', by: ['vessel'] });
  });

  it('what is ranked stands before the number it is ranked by; the groups it is within come first', () => {
    expect(wish('rank vessels by fares within route, first 3')).toEqual({
      column: 'fares',
      by: ['route', 'vessel'],
      within: 1,
      first: 3,
      order: 'highest',
    });
  });

  it('periods from the longest, and how many lie ahead', () => {
    expect(wish('fares by month, quarter and year')).toEqual({
      column: 'fares',
      period: 'month',
      periods: ['year', 'quarter', 'month'],
    });
    expect(wish('delay for each route, next 12 months')).toEqual({
      column: 'delay',
      by: ['route'],
      period: 'month',
      ahead: 12,
    });
    expect(wish('growth of fares from 2023 to 2025')).toMatchObject({ from: '2023', to: '2025' });
    expect(wish('growth of fares 2023-q1 to 2025-q1')).toMatchObject({
      from: '2023-Q1',
      to: '2025-Q1',
    });
  });

  it('the month in which a year starts, where periods are asked for', () => {
    const periods = { column: 'fares', period: 'month', periods: ['year', 'month'] };
    for (const said of ['from April', 'starting in april', 'with years that start in April'])
      expect(wish(`fares by month and year ${said}`), said).toEqual({
        ...periods,
        yearStartsIn: 4,
      });
    // Months to narrow to, and what is no month, start no year.
    for (const said of ['from april to june', 'from april 2025', 'from vessels', ''])
      expect(wish(`fares by month and year ${said}`)).not.toHaveProperty('yearStartsIn');
    expect(wish('fares from april')).not.toHaveProperty('yearStartsIn');
  });

  it('all figures that are asked for, each of its column; those named without a measure are marked', () => {
    expect(wish('fares and delay by route then vessel')).toEqual({
      column: 'fares',
      by: ['route', 'vessel'],
      measures: [
        { kind: 'sum', column: 'fares' },
        { kind: 'sum', column: 'delay' },
      ],
      plain: ['fares', 'delay'],
    });
    const several = ['records', 'mean', 'sd', 'min', 'max'].map((kind) =>
      kind === 'records' ? { kind } : { kind, column: 'delay' },
    );
    const asked = { measure: 'mean', column: 'delay', by: ['vessel'], measures: several };
    expect(wish('count, mean, deviation, lowest and highest of delay by vessel')).toEqual(asked);
    expect(wish('count and delay: mean, standard deviation, lowest, highest by vessel')).toEqual(
      asked,
    );
    expect(wish('mean of delay, median of fares by route')?.measures).toEqual([
      { kind: 'mean', column: 'delay' },
      { kind: 'median', column: 'fares' },
    ]);
    // One figure is no list of them; "of" counts the values of what it names.
    expect(wish('median delay by vessel')).not.toHaveProperty('measures');
    expect(wish('count of delays by vessel')).toEqual({
      measure: 'values',
      column: 'delay',
      by: ['vessel'],
    });
  });

  it('measures whose names are several words, and no measure in the order of answers', () => {
    expect(wish('standard deviation of delay')).toMatchObject({ measure: 'sd' });
    expect(wish('interquartile range of delay')).toMatchObject({ measure: 'iqr' });
    expect(wish('count of distinct values of vessel')).toMatchObject({ measure: 'distinct' });
    expect(wish('first fares by vessel')).toMatchObject({ measure: 'first' });
    expect(wish('vessel, most first')).toEqual({ by: ['vessel'], often: true });
    expect(wish('how often each vessel occurs')).toMatchObject({ often: true });
    expect(wish('fares by vessel, highest first')).toEqual({
      column: 'fares',
      by: ['vessel'],
      order: 'highest',
    });
    expect(wish('the worst 3 vessels by fares')).toMatchObject({ first: 3, order: 'lowest' });
  });

  it('bands by the name they are kept under, the longest that fits', () => {
    const late = { name: 'Delays', bands: [{ from: 0, to: 5 }] };
    const storms = { name: 'Delays (storms)', bands: [{ from: 0, to: null }] };
    const of = (text: string): Wish | null => wishIn(text, columns, [late, storms]);
    expect(of('fares taken in delays')).toEqual({ column: 'fares', table: late });
    expect(of('fares taken in the bands of “Delays”')).toEqual({ column: 'fares', table: late });
    expect(of('fares taken in Delays (storms) bands')).toEqual({ column: 'fares', table: storms });
    expect(of('fares taken in Delays, with delay')).toMatchObject({
      table: late,
      measures: [{ column: 'fares' }, { column: 'delay' }],
    });
    // Neither a longer word nor another place names them.
    expect(of('fares taken in delaysome')).not.toHaveProperty('table');
    expect(of('delays by vessel')).not.toHaveProperty('table');
    expect(wish('fares taken in delays')).not.toHaveProperty('table');
  });

  it('the edges of bands, rising, wherever they stand', () => {
    expect(wish('delay in bands 0, 1, 5, 10 and 20')).toEqual({
      column: 'delay',
      edges: [0, 1, 5, 10, 20],
    });
    expect(wish('delay and fares, bands 10 -5 10 2.5')).toMatchObject({ edges: [-5, 2.5, 10] });
    expect(wish('delay in bands')).toEqual({ column: 'delay', bands: true });
    expect(wish('delay in bands of 2.5')).toEqual({ column: 'delay', width: 2.5 });
    expect(wish('delay in bands by route')).toEqual({ measure: 'records', by: ['route', 'delay'] });
    expect(wish('delay in 8 bands by route')).not.toHaveProperty('edges');
  });

  it('the best of each: what it is of stands around what is chosen among', () => {
    const best = { column: 'fares', by: ['route', 'vessel'], best: true };
    expect(wish('best vessel of each route by fares')).toEqual(best);
    expect(wish('which vessel of each route took the most fares')).toEqual({
      ...best,
      order: 'highest',
    });
    expect(wish('fares by vessel for each route')).toEqual({
      column: 'fares',
      by: ['route', 'vessel'],
    });
    // One group alone has no best within it.
    expect(wish('best vessel by fares')).toEqual({ column: 'fares', by: ['vessel'] });
  });

  it('percentages and the values whose place is asked', () => {
    expect(wish('90 % of delay, and where 20')).toEqual({
      column: 'delay',
      percents: [90],
      stands: [20],
    });
    expect(wish('140 % of delay')).toEqual({ column: 'delay' });
  });

  it('words that every object knows are no measures and no periods', () => {
    for (const word of ['constructor', 'valueof', 'toString', '__proto__'])
      expect(wish(`${word} by vessel`), word).toEqual(wish('by vessel'));
  });

  it('whatever is typed, a wish is one that the engine takes', () => {
    const word = fc.constantFrom(
      ...'best each how often most first in bands 0 -3 count mean sd lowest of rank first next 3 0 999999999 by within of each route vessel fares taken 120% 5% where -2 2024 to 2025-q7 2025-13 2025-Q2 month year median'.split(
        ' ',
      ),
    );
    fc.assert(
      fc.property(fc.array(fc.oneof(word, fc.string()), { maxLength: 14 }), (words) => {
        const found = wish(words.join(' '));
        if (found) expect(Wish.parse(found)).toEqual(found);
      }),
    );
  });
});

describe('conditions in a wish', () => {
  const more = [
    ...columns,
    textColumn('Weather', ['gale', 'fog', 'calm', 'Gale '], 'weather'),
    scalarColumn('Cancelled', 'yesno', [0, 1], { id: 'off' }),
  ];
  const of = (text: string): Wish | null => wishIn(text, more);
  const delay = (op: string, value: number) => ({
    kind: 'leaf',
    column: 'delay',
    not: false,
    test: { test: 'compare', op, value },
  });
  const weather = (values: readonly string[], not = false) => ({
    kind: 'leaf',
    column: 'weather',
    not,
    test: { test: 'is', values, exact: false },
  });

  it('several, with both and neither, by a group, and what is asked under them', () => {
    expect(
      of(
        'count, fares and mean delay where delay at least 10, where weather is gale or fog, both and neither, by route',
      ),
    ).toEqual({
      column: 'fares',
      by: ['route'],
      conditions: [delay('ge', 10), weather(['Gale', 'fog'])],
      measures: [
        { kind: 'records' },
        { kind: 'sum', column: 'fares' },
        { kind: 'mean', column: 'delay' },
      ],
      plain: ['fares'],
      both: true,
      neither: true,
    });
  });

  it.each([
    ['delay >= 10', delay('ge', 10)],
    ['Delay is 10 or more', delay('ge', 10)],
    ['delay 10 min or more', delay('ge', 10)],
    ['delay over 2.5 min', delay('gt', 2.5)],
    ['delay under -1', delay('lt', -1)],
    ['delay at most 5', delay('le', 5)],
    ['delay 0', delay('eq', 0)],
    ['weather fog', weather(['fog'])],
    ['weather is not calm', weather(['calm'], true)],
    ['cancelled is yes', { ...weather(['yes']), column: 'off' }],
  ])('“where %s” is one', (said, condition) => {
    expect(of(`fares where ${said}`)?.conditions).toEqual([condition]);
  });

  it('what is none stays among the words', () => {
    expect(of('90% of delay, and where 20')).toMatchObject({ stands: [20] });
    for (const said of ['delay soon', 'the sea is rough', ''])
      expect(of(`fares where ${said}`)?.conditions, said).toBeUndefined();
  });

  it('whatever is typed, a wish is one', () => {
    const word = fc.constantFrom(
      ...'where delay weather is or and both neither by route count fares >= 10 gale , at least'.split(
        ' ',
      ),
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 16 }), (words) => {
        const found = of(words.join(' '));
        if (found) expect(Wish.parse(found)).toEqual(found);
      }),
    );
  });
});
