import { describe, expect, it } from 'vitest';
import { describeCondition } from '$lib/core/selection/describe';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { namesOf, type Table } from '$lib/core/table/table';
import { ListWords } from '$lib/core/wish/listWords';
import { narrowingIn } from '$lib/core/wish/offers';
import { searchOf } from '$lib/core/wish/search';
import { day } from '../../support/smallList';

/** Loans of a library: two dates, a yes/no column, values of several words. */
const loans: Table = {
  length: 4,
  columns: [
    textColumn('Branch', ['North End', 'Harbour', 'North End', null]),
    textColumn('Kind', ['novel', 'map', 'map (large)', 'not given']),
    scalarColumn('Days kept', 'number', [3, 14, 30, null], { unit: 'd' }),
    scalarColumn('Fine', 'number', [0, 1.5, 12, 0], { unit: '£' }),
    scalarColumn('Renewed', 'yesno', [1, 0, 0, 1]),
    scalarColumn('Lent', 'date', ['2025-01-06', '2025-03-10', '2026-03-12', '2026-05-03'].map(day)),
    scalarColumn('Returned', 'date', [day('2025-01-09'), day('2025-03-24'), null, null]),
    scalarColumn(
      'Desk time',
      'time',
      [1, 2, 3, 4].map((h) => h * 3_600_000),
    ),
  ],
};
const words = new ListWords(loans);
const names = namesOf(loans);

/** In words what the typed narrows to; none where a word of it says something else, or nothing. */
const said = (typed: string): string[] =>
  narrowingIn(typed, words).map((condition) => describeCondition(condition, names));

describe('what shall count, in words', () => {
  it.each([
    ['north end', ['Branch is North End']],
    ['only the north end', ['Branch is North End']],
    ['north end or harbour', ['Branch is North End or Harbour']],
    ['without maps', ['Kind is not map']],
    ['no maps', ['Kind is not map']],
    ['all but maps', ['Kind is not map']],
    ['not given', ['Kind is not given']],
    ['kind is not "not given"', ['Kind is not not given']],
    ['map (large)', ['Kind is map (large)']],
    ['days kept over 7', ['Days kept is over 7']],
    ['days kept between 3 and 14', ['Days kept is between 3 and 14']],
    ['days kept from 3 to 14 d', ['Days kept is between 3 and 14']],
    ['fine at least £1.50', ['Fine is at least 1.5']],
    ['fine 10 or more', ['Fine is at least 10']],
    ['fine over 1,200', ['Fine is over 1,200']],
    ['fine above its mean', ['Fine is above the mean']],
    ['branch starts with nor', ['Branch starts with “nor”']],
    ['branch contains "th e"', ['Branch contains “th e”']],
    ['branch is blank', ['Branch is blank']],
    ['blank branch', ['Branch is blank']],
    ['branch is not blank', ['Branch is not blank']],
    ['without days kept', ['Days kept is blank']],
    ['not returned', ['Returned is blank']],
    ['not renewed', ['Renewed is not yes']],
    ['renewed only', ['Renewed is yes']],
    ['renewed is no', ['Renewed is no']],
    ['desk time before 09:30', ['Desk time is before 09:30']],
    ['north end, maps', ['Branch is North End', 'Kind is map']],
    ['branch is harbour and fine over 1', ['Branch is Harbour', 'Fine is over 1']],
    ['branch is harbour or fine over 1', ['Branch is Harbour or Fine is over 1']],
    [
      '(branch is harbour or kind is map) and fine over 1',
      ['Branch is Harbour or Kind is map', 'Fine is over 1'],
    ],
    ['not (harbour or maps)', ['not (Branch is Harbour or Kind is map)']],
  ])('%s', (typed, want) => {
    expect(said(typed)).toEqual(want);
  });

  it.each([
    ['2025', 'in 2025'],
    ['in 2025', 'in 2025'],
    ['march 2025', 'in Mar 2025'],
    ['q1 2025', 'in Jan–Mar 2025'],
    ['the first quarter of 2025', 'in Jan–Mar 2025'],
    ['january to march 2025', 'in Jan–Mar 2025'],
    ['between january 2025 and march 2025', 'in Jan–Mar 2025'],
    ['from november 2024 to january 2025', 'between Fri 1 Nov 2024 and Fri 31 Jan 2025'],
    ['since march 2025', 'from Sat 1 Mar 2025'],
    ['before 2026', 'before Thu 1 Jan 2026'],
    ['after 2025-03-10', 'after Mon 10 Mar 2025'],
    ['last year', 'in 2025'],
    ['this month', 'in May 2026'],
    ['in march', 'in March'],
    ['in january to march', 'in January, February or March'],
    ['on mondays', 'on a Monday'],
    ['at weekends', 'on a Saturday or Sunday'],
  ])('%s is a time of the first date of the list', (typed, want) => {
    expect(said(typed)).toEqual([`Lent is ${want}`]);
  });

  it('is a time of the date that is named', () => {
    expect(said('returned in 2025')).toEqual(['Returned is in 2025']);
    expect(said('returned since march 2025')).toEqual(['Returned is from Sat 1 Mar 2025']);
  });

  it('is nothing where a word is left, or it can be read two ways', () => {
    for (const typed of [
      '03/04/2025',
      'november to january 2025',
      'june to',
      'to',
      '',
      '12',
      'pots',
    ])
      expect([typed, said(typed)]).toEqual([typed, []]);
  });
});

describe('what is looked for among values', () => {
  it.each([
    ['freight only', true, false, 'freight'],
    ['only the freight', true, false, 'freight'],
    ['without gales', true, true, 'gale'],
    ['gale', false, false, 'gale'],
    ['north end', false, false, 'north end'],
  ])('%s', (typed, itSays, not, search) => {
    expect(searchOf(typed)).toEqual({ said: itSays, not, search });
  });
});
