import { describe, expect, it } from 'vitest';
import { describeCondition } from '$lib/core/selection/describe';
import { narrowingOf } from '$lib/core/tally/wish/narrowing';

const columns = [
  { id: 'delay', name: 'Delay', type: 'number' },
  { id: 'route', name: 'Route', type: 'text' },
  { id: 'weather', name: 'Weather', type: 'text' },
  { id: 'day', name: 'Sailed on', type: 'date' },
  { id: 'noted', name: 'Noted on', type: 'date' },
] as const;
const names = new Map<string, string>(columns.map(({ id, name }) => [id, name]));

/** In words what the typed comes to by itself. */
const words = (typed: string): string | null => {
  const { condition } = narrowingOf(typed, columns);
  return condition && describeCondition(condition, names);
};

describe('what shall count, in words', () => {
  it('names a value alone, or all but it, whichever side the word stands', () => {
    const freight = { said: true, not: false, search: 'freight', condition: null };
    expect(narrowingOf('freight only', columns)).toEqual(freight);
    expect(narrowingOf('only the freight', columns)).toEqual(freight);
    expect(narrowingOf('without gales', columns)).toEqual({
      said: true,
      not: true,
      search: 'gale',
      condition: null,
    });
    expect(narrowingOf('gale', columns)).toMatchObject({ said: false, not: false });
    expect(narrowingOf('norwick', columns)).toMatchObject({ said: false, not: false });
  });

  it('names days, from the first of what is named to its last', () => {
    const summer = 'Sailed on is between Sun 1 Jun 2025 and Sun 31 Aug 2025';
    for (const typed of [
      'june to august 2025',
      'only June – August 2025',
      '2025-06 to 2025-08',
      '2025-06-01 to 2025-08-31',
    ])
      expect(words(typed), typed).toBe(summer);
    expect(words('2024')).toBe('Sailed on is between Mon 1 Jan 2024 and Tue 31 Dec 2024');
    expect(words('without february 2024')).toBe(
      'Sailed on is not between Thu 1 Feb 2024 and Thu 29 Feb 2024',
    );
    // A winter over the turn of the year, with its years.
    expect(words('november 2024 to january 2025')).toBe(
      'Sailed on is between Fri 1 Nov 2024 and Fri 31 Jan 2025',
    );
  });

  it('guesses at no days that can be read two ways, nor at a span that runs backwards', () => {
    for (const typed of ['03/04/2025', 'november to january 2025', 'june to', 'to', '', '12'])
      expect(words(typed), typed).toBeNull();
    expect(narrowingOf('june 2025', [columns[0]]).condition).toBeNull();
  });

  it('takes a condition on a column, and turns it round', () => {
    expect(words('only delay at least 10')).toBe('Delay is at least 10');
    expect(words('without weather gale or fog')).toBe('Weather is not gale or fog');
    expect(words('delay by vessel')).toBeNull();
  });
});
