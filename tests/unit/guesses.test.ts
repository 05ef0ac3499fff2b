import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { wholeInput } from '$lib/core/tally/input/input';
import { Faults } from '$lib/core/tally/spec/fault';
import { CrosstabSpec } from '$lib/core/tally/kinds/crosstab/spec';
import { questionsOf, type Question } from '$lib/core/tally/wish/guesses';
import type { ListFacts } from '$lib/core/tally/wish/guess';
import { computeTally, kindOf } from '$lib/core/tally/kind/kinds';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import { Tally } from '$lib/core/tally/spec/specs';
import { type Wish } from '$lib/core/tally/wish/wish';
import { readDemo } from '../support/demo';
import { sailingsInSql } from '../support/sql';
import { offersOf, wishOf } from '../support/wish';

const factsOf = (table: Table, lists: string[] = []): ListFacts => ({
  records: table.length,
  columns: finish(columnFacts(table)),
  lead: null,
  lists,
});

const tallyOf = ({ guess }: Question): Tally | null => ('tally' in guess ? guess.tally : null);

const guessed = (table: Table, kind: Tally['kind'], wish: Wish = {}): unknown => {
  const question = questionsOf(factsOf(table), wish).find((q) => q.kind === kind);
  if (!question) throw new Error(`no question of ${kind}`);
  return tallyOf(question);
};

/** What a kind begins with for words that were typed. */
const wished = (kind: Tally['kind'], text: string): unknown =>
  guessed(sailings, kind, wishOf(text, sailings) ?? {});

const sailings = readDemo('sailings').reading.table;

describe('a cross-tab of what is many', () => {
  const sides = (text: string): unknown => {
    const tally = wished('crosstab', text);
    return CrosstabSpec.parse(tally);
  };

  it('has the many down the page: days, or the names of very many', () => {
    // 1,277 days stand side by side in no table: at most 256 columns do.
    expect(sides('fares by day by route')).toMatchObject({
      down: [{ column: 'sailed_on', period: 'day' }],
      across: [{ column: 'route' }],
    });
    expect(sides('fares by route by month')).toMatchObject({
      down: [{ column: 'route' }],
      across: [{ column: 'sailed_on', period: 'month' }],
    });
  });

  it('is computed as it was guessed', () => {
    for (const text of ['fares by day by route', 'fares by route by day', 'boarded by week']) {
      const tally = Tally.parse(wished('crosstab', text));
      const { tables } = finish(computeTally(wholeInput(sailings), tally));
      expect(tables[0].length, text).toBeGreaterThan(1);
    }
  });
});

describe('first guesses', () => {
  for (const list of ['sailings', 'kiosks', 'vessels', 'statement', 'monthly-fares', 'delay-bands'])
    it(`${list}: every guess fits the list and comes to figures, or says what it needs`, () => {
      const { table } = readDemo(list).reading;
      const questions = questionsOf(factsOf(table));
      expect(questions.length).toBe(Tally.options.length);
      for (const question of questions) {
        const tally = tallyOf(question);
        if (!tally) {
          expect('needs' in question.guess && question.guess.needs).toMatch(/^It needs .+\.$/);
          continue;
        }
        expect(Tally.parse(tally)).toEqual(tally);
        const faults = new Faults(table.columns);
        kindOf(tally).check(faults, 'tally');
        expect(faults.found, question.kind).toEqual([]);
        const { tables } = finish(computeTally(wholeInput(table, list), tally));
        expect(tables[0].length, question.kind).toBeGreaterThan(0);
      }
    });

  it('begin with all figures that were asked for, each of them as the list has it', () => {
    const delay = sailings.columns.find(({ name }) => name === 'Delay')?.id ?? '';
    const boarded = sailings.columns.find(({ name }) => name === 'Boarded')?.id ?? '';
    for (const kind of ['ledger', 'crosstab'] as const)
      expect(wished(kind, 'boarded and mean delay by route'), kind).toMatchObject({
        measures: [
          { kind: 'sum', column: boarded },
          { kind: 'mean', column: delay },
        ],
      });
    // Years do not add up: where no measure is named, they are averaged.
    const vessels: Table = {
      length: 4,
      columns: [
        textColumn('Route', ['A', 'A', 'B', 'B'], 'route'),
        scalarColumn('Built', 'number', [1998, 2004, 2011, 1987], { id: 'built' }),
        scalarColumn('Seats', 'number', [120, 90, 240, 60], { id: 'seats' }),
      ],
    };
    const typed = wishOf('built and seats by route', vessels) ?? {};
    expect(guessed(vessels, 'ledger', typed)).toMatchObject({
      measures: [
        { kind: 'mean', column: 'built' },
        { kind: 'sum', column: 'seats' },
      ],
    });
    expect(wished('periods', 'boarded, highest delay by month')).toMatchObject({
      measures: [
        { kind: 'sum', column: boarded },
        { kind: 'max', column: delay },
      ],
    });
    expect(wished('spread', 'count, mean and deviation of delay by vessel')).toMatchObject({
      columns: [delay],
      facts: [{ kind: 'values' }, { kind: 'mean' }, { kind: 'sd' }],
    });
    const banded = 'delay in bands 0, 1, 5, 10, 20 with fares';
    expect(wished('frequency', banded)).toMatchObject({
      key: {
        column: delay,
        bands: {
          by: 'table',
          bands: [
            { from: 0, to: 1 },
            { from: 1, to: 5 },
            { from: 5, to: 10 },
            { from: 10, to: 20 },
            { from: 20, to: null },
          ],
        },
      },
      measures: [{ kind: 'sum' }],
    });
    expect(wished('frequency', 'delay in bands')).toMatchObject({
      key: { bands: { by: 'number' } },
      measures: [],
    });
    expect(wished('spread', 'delay by vessel')).toMatchObject({ facts: { length: 8 } });
  });

  it('a kept band table that was named is what the values are cut into', () => {
    const bands = [
      { from: 0, to: 5 },
      { from: 5, to: null, label: 'late' },
    ];
    const wish = wishOf('delay in lateness', sailings, [{ name: 'Lateness', bands }]);
    const [first] = questionsOf(factsOf(sailings), wish ?? {}).filter(({ meant }) => meant);
    expect(first).toMatchObject({
      kind: 'frequency',
      guess: { tally: { key: { bands: { by: 'table', name: 'Lateness', bands } } } },
    });
  });

  it.each([
    ['best vessel of each route by fares', 'nested'],
    ['cause, most first', 'frequency'],
    ['delay in bands 0, 5, 10', 'frequency'],
    ['rank vessels by fares within route, first 3', 'ranking'],
    ['fares by month and year', 'periods'],
    ['boarded for each route, next 12 months', 'forecast'],
    ['count where delay at least 10', 'conditional'],
  ])('“%s” can hardly mean another question than %s', (text, kind) => {
    expect(offersOf(sailings, 'Sailings')(text)[0].kind).toBe(kind);
  });

  it('of the sailings all kinds begin but those that need an earlier reading or another list', () => {
    const without = questionsOf(factsOf(sailings)).filter((q) => tallyOf(q) === null);
    expect(without.map((q) => q.kind)).toEqual(['comparison', 'reconciliation']);
    const others = [
      { name: 'Crew', columns: [{ name: 'Crewed', type: 'text' as const }] },
      {
        name: 'Targets',
        columns: [
          { name: 'Route', type: 'text' as const },
          { name: 'Target', type: 'number' as const },
        ],
      },
    ];
    const facts = { ...factsOf(sailings, ['the reading of 3 Nov']), others };
    expect(questionsOf(facts).filter((q) => tallyOf(q) === null)).toEqual([]);
    const found = questionsOf(facts).find(({ kind }) => kind === 'reconciliation');
    expect(found && tallyOf(found)).toMatchObject({
      with: 'Targets',
      measure: { kind: 'sum', column: 'fares_taken' },
      against: { kind: 'sum', column: 'Target' },
      by: [{ column: 'route' }],
    });
  });

  it('a list of one record moves as a whole: no groups are needed for what moved', () => {
    const one = {
      length: 1,
      columns: [textColumn('Route', ['Holm']), scalarColumn('Fares', 'number', [10.25])],
    };
    const found = questionsOf(factsOf(one, ['the reading of 3 Nov'])).find(
      ({ kind }) => kind === 'comparison',
    );
    expect(found && tallyOf(found)).toMatchObject({
      kind: 'comparison',
      tally: { kind: 'ledger', groups: [], measures: [{ kind: 'sum' }] },
    });
  });

  it('conditions in so many words: both, neither and each by route, as SQL counts them', () => {
    const asked =
      'count, fares and mean delay where delay at least 10, where weather is gale or fog, both and neither';
    const wish = wishOf(`${asked}, by route`, sailings);
    const [first] = questionsOf(factsOf(sailings), wish ?? {}).filter(({ meant }) => meant);
    expect(first.kind).toBe('conditional');
    const tally = tallyOf(first);
    if (!tally) throw new Error('no tally');
    const { tables } = finish(computeTally(wholeInput(sailings, 'sailings'), tally));
    const db = sailingsInSql();
    // Texts that differ in case or outer spaces are one, as the first guess takes them.
    const [late, rough] = ['delay >= 10', "weather in ('gale', 'fog')"];
    const under = [
      late,
      rough,
      `${late} and ${rough}`,
      `not (ifnull(${late}, 0) or ifnull(${rough}, 0))`,
    ];
    const figures = under.map(
      (where) =>
        `count(*) filter (where ${where}), sum(fares) filter (where ${where}), avg(delay) filter (where ${where})`,
    );
    const wanted = db
      .prepare(`select lower(trim(route)), ${figures.join(', ')} from s group by 1`)
      .raw()
      .all();
    const found = new Map(
      Array.from({ length: tables[0].length }, (_, n) => tables[0].row(n).cells).map((cells) => [
        String(cells[0]).toLowerCase().trim(),
        cells,
      ]),
    );
    expect(found.size).toBe(wanted.length + 1);
    for (const [route, ...row] of wanted.map((w) => (Array.isArray(w) ? w : [])))
      row.forEach((figure: unknown, k) =>
        expect(found.get(String(route))?.[k + 1], `${route} ${k}`).toBeCloseTo(Number(figure), 6),
      );
    const rows = tallyOf(
      questionsOf(factsOf(sailings), wishOf(asked, sailings) ?? {}).filter(({ meant }) => meant)[0],
    );
    expect(rows).toMatchObject({
      rows: [
        { name: 'Delay is at least 10' },
        { name: 'Weather is gale or fog' },
        { name: 'both' },
        { name: 'neither' },
      ],
      everythingElse: false,
    });
  });

  it('follow a wish: the median delay by vessel, by month', () => {
    const wish: Wish = { measure: 'median', column: 'delay', by: ['vessel'], period: 'month' };
    const median = { kind: 'median', column: 'delay' };
    expect(guessed(sailings, 'ledger', wish)).toMatchObject({
      groups: [{ column: 'vessel' }],
      measures: [median],
    });
    expect(guessed(sailings, 'ranking', wish)).toMatchObject({
      groups: [{ column: 'vessel' }],
      by: median,
    });
    expect(guessed(sailings, 'periods', wish)).toMatchObject({
      levels: ['month'],
      measures: [median],
    });
    expect(guessed(sailings, 'spread', wish)).toMatchObject({
      columns: ['delay'],
      key: { column: 'vessel' },
    });
  });

  it('follow a wish: within, so many first, periods of several lengths, groups of a series', () => {
    const ranked: Wish = { column: 'fares_taken', by: ['route', 'vessel'], within: 1, first: 3 };
    expect(guessed(sailings, 'ranking', ranked)).toMatchObject({
      groups: [{ column: 'route' }, { column: 'vessel' }],
      within: 1,
      top: 3,
    });
    expect(
      guessed(sailings, 'periods', { periods: ['year', 'month'], period: 'month' }),
    ).toMatchObject({ levels: ['year', 'month'] });
    expect(guessed(sailings, 'forecast', { by: ['route'], ahead: 6 })).toMatchObject({
      series: { by: [{ column: 'route' }] },
      horizon: 6,
    });
    expect(guessed(sailings, 'growth', { from: '2023', to: '2025' })).toMatchObject({
      from: '2023',
      to: '2025',
    });
    expect(guessed(sailings, 'percentile', { percents: [90], stands: [20] })).toMatchObject({
      percentiles: [90],
      ranksOf: [20],
    });
  });

  it('say what a list lacks: no numbers, no dates, no records', () => {
    const words: Table = { length: 2, columns: [textColumn('Name', ['a', 'b'])] };
    expect(guessed(words, 'percentile')).toBeNull();
    expect(guessed(words, 'periods')).toBeNull();
    const none: Table = { length: 0, columns: [scalarColumn('Sum', 'number', [])] };
    for (const question of questionsOf(factsOf(none)))
      expect(tallyOf(question), question.kind).toBeNull();
    for (const question of questionsOf(factsOf({ length: 0, columns: [] })))
      expect(tallyOf(question), question.kind).toBeNull();
  });

  it.each([
    ['rank vessels by fares', 'ranking'],
    ['percent rank of delay', 'percentile'],
    ['top vessels', 'ranking'],
    ['growth of fares', 'growth'],
  ])('“%s” is first of all asked as %s', (text, kind) => {
    expect(offersOf(sailings, 'Sailings')(text)[0].kind).toBe(kind);
  });

  it('do not add up years', () => {
    const built: Table = {
      length: 3,
      columns: [
        textColumn('Name', ['a', 'a', 'b']),
        scalarColumn('Built', 'number', [1990, 1995, 2001]),
      ],
    };
    expect(guessed(built, 'ledger')).toMatchObject({
      measures: [{ kind: 'mean', column: 'Built' }],
    });
  });
});
