import { beforeEach, describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { addRung, keepScope, setAsideRecords, setGroups, setMeasures } from '$lib/core/bench/edits';
import { recipeOfMade } from '$lib/core/bench/madeList';
import { newBench } from '$lib/core/bench/newBench';
import { openItem } from '$lib/core/bench/tray';
import type { Tally } from '$lib/core/tally/spec/specs';
import type { ArgsOf, Do } from '$lib/engine/protocol';
import { benchActs, type Act } from '$lib/ui/finder/acts';
import { foundActs } from '$lib/ui/finder/found';
import type { BenchState } from '$lib/ui/bench/bench.svelte';
import { namesOf } from '$lib/core/table/table';
import { OpenBench } from '../support/bench';
import { small } from '../support/smallList';

/** A bench with an engine behind it, in as far as the finder asks of one; what it was told to do. */
let doc: Bench;
let done: string[];
let begun: Tally[];
function benchOf(): BenchState {
  const engine = new OpenBench(small, recipeOfMade(small), 'Depots');
  const page = engine.show(doc);
  const state = {
    doc,
    columns: page.columns,
    names: namesOf(small),
    keptBands: [],
    shown: openItem(doc),
    counts: page,
    ledger: page,
    side: null,
    nameOf: ({ id, name }: Bench['tray'][number]) => name ?? id,
    visit: (id: string) => void done.push(`visit ${id}`),
    change(label: string, edit: (doc: Bench) => Bench) {
      done.push(label);
      doc = edit(doc);
    },
    begin(label: string, tally: Tally) {
      done.push(label);
      begun.push(tally);
    },
    ask: <K extends Do>(kind: K, args: Omit<ArgsOf<K>, 'token'>) =>
      Promise.resolve(engine.ask(kind, args)),
    offers: (typed: string) =>
      Promise.resolve(engine.ask('offers', { typed, readings: [], bands: [] })),
  };
  // The finder looks at no more of it than this.
  return state as unknown as BenchState;
}
const narrowed: (string | undefined)[] = [];
const acts = (): Act[] => benchActs(benchOf(), { narrow: (column) => void narrowed.push(column) });
/** Does what stands under these words, and says what it was. */
function run(label: string, among = acts()): void {
  const act = among.find((a) => a.label === label);
  if (!act) throw new Error(`“${label}” is not among: ${among.map((a) => a.label).join(' | ')}`);
  act.run();
}
const specOf = () => {
  const { tally } = openItem(doc);
  if (tally.kind !== 'ledger') throw new Error('no ledger');
  return tally;
};

beforeEach(() => {
  doc = newBench(small, 1);
  done = [];
  begun = [];
  narrowed.length = 0;
});

describe('what the finder does on a ledger', () => {
  it('sorts, groups and measures by what it says', () => {
    run('Sort by Sum, highest first');
    expect(specOf().sort).toEqual([{ column: 'Sum', descending: true, blanks: 'last' }]);
    run('Sort by Depot');
    expect(specOf().sort).toEqual([{ column: 'Depot', descending: false, blanks: 'last' }]);
    run('Group by Region');
    run('Group by Day by quarter');
    expect(specOf().groups.map(({ column, period }) => [column, period])).toEqual([
      ['Region', undefined],
      ['Day', 'quarter'],
    ]);
    const before = specOf().measures.length;
    run('Show the median of Sum');
    expect(specOf().measures.slice(before)).toEqual([{ kind: 'median', column: 'Sum' }]);
    expect(done).toHaveLength(5);
  });

  it('offers of each column what suits it', () => {
    const labels = acts().map(({ label }) => label);
    expect(labels.filter((label) => label.endsWith(' of Region'))).toHaveLength(2);
    expect(labels.filter((label) => /sum of (Region|Depot|Day)$/.test(label))).toEqual([]);
    expect(labels.filter((label) => label.startsWith('Group by Day'))).toHaveLength(4);
    expect(labels.filter((label) => label.startsWith('Group by Region'))).toHaveLength(1);
    expect(labels.filter((label) => label.includes('± their deviation'))).toHaveLength(1);
  });

  it('writes means with their deviation, and then without', () => {
    run('Show means of Sum with ± their deviation, rounded to two digits of it');
    expect(doc.formats.Sum.deviation).toBe(2);
    run('Show means of Sum without their deviation');
    expect(doc.formats.Sum.deviation).toBeUndefined();
  });

  it('moves totals, takes groups out, shows down to a level', () => {
    doc = setGroups(doc, [
      { column: 'Region', loose: false, order: { by: 'label', descending: false } },
    ]);
    run('Put the totals above each group');
    expect(openItem(doc).view).toMatchObject({ totals: 'above' });
    run('Put the totals under each group');
    run('Show down to Records');
    expect(openItem(doc).view).toMatchObject({ totals: 'below', showDown: 2 });
    run('Take all groups out');
    expect(specOf().groups).toEqual([]);
    expect(acts().some(({ label }) => label === 'Take all groups out')).toBe(false);
  });

  it('opens tallies and columns, and narrows by one', () => {
    run(`Open: ${doc.tray[0].id}`);
    expect(done).toEqual([`visit ${doc.tray[0].id}`]);
    run('Narrow by Depot…');
    expect(narrowed).toEqual(['Depot']);
  });
});

describe('what the finder does with steps, scopes and records set aside', () => {
  it('switches, turns round and removes each step', () => {
    doc = keepScope(
      addRung(doc, {
        kind: 'leaf',
        column: 'Sum',
        not: false,
        test: { test: 'compare', op: 'gt', value: 6 },
      }),
      'large',
    );
    run('Switch off: Sum is over 6');
    expect(doc.ladder.rungs[0].on).toBe(false);
    run('Switch on: Sum is over 6');
    run('Turn round: Sum is over 6');
    expect(doc.ladder.rungs[0].condition.not).toBe(true);
    const [{ words }] = new OpenBench(small, recipeOfMade(small), 'x').show(doc).rungs;
    run(`Remove: ${words}`);
    expect(doc.ladder.rungs).toEqual([]);
    run('Bring back the scope “large”');
    expect(doc.ladder.rungs).toHaveLength(1);
  });

  it('puts records back where some are set aside', () => {
    const label = 'Put all records back';
    expect(acts().some((act) => act.label === label)).toBe(false);
    doc = setAsideRecords(doc, [2]);
    run(label);
    expect(doc.ladder.setAside.records).toEqual([]);
  });
});

describe('what the finder finds by what was typed', () => {
  it('values, with what a step by them would keep, to narrow by', async () => {
    const found = await foundActs(benchOf(), 'nor');
    const north = found.find(({ label }) => label === 'Narrow to Region: North');
    expect(north?.keys).toBe('3 records stay, 3 go, of them 1 blank');
    run('Narrow to Region: North', found);
    expect(doc.ladder.rungs[0].condition).toEqual({
      kind: 'leaf',
      column: 'Region',
      not: false,
      test: { test: 'is', values: ['North'], exact: true },
    });
  });

  it('the figures that a step promises are those that come: without a value, blanks go with it', async () => {
    for (const typed of ['without north', 'north', 'sum over 8']) {
      const [act] = await foundActs(benchOf(), typed);
      const [, stay, go] = /^(\d+) records? stays?, (\d+) goe?s?/.exec(act.keys ?? '') ?? [];
      doc = setMeasures(doc, []);
      const before = doc;
      act.run();
      const counts = new OpenBench(small, recipeOfMade(small), 'x').show(doc);
      expect([typed, counts.counted.records, counts.rungs.at(-1)?.removed]).toEqual([
        typed,
        Number(stay),
        Number(go),
      ]);
      doc = before;
    }
  });

  it('several conditions are one step, and an unread cell is found by that word', async () => {
    const [both] = await foundActs(benchOf(), 'region is north and depot is a');
    expect(both.label).toBe('Narrow to: Region is North and Depot is A');
    expect(both.keys).toMatch(/^2 records stay/);
    const [unread] = await foundActs(benchOf(), 'sum is unread');
    expect([unread.kind, unread.label]).toEqual(['step', 'Narrow to: Sum is unread']);
  });

  it('what shall count, said as a condition, first', async () => {
    const [first] = await foundActs(benchOf(), 'sum over 8');
    expect(first.label).toBe('Narrow to: Sum is over 8');
    first.run();
    expect(new OpenBench(small, recipeOfMade(small), 'x').show(doc).counted.records).toBe(3);
  });

  it('tallies to begin, by their question and their columns', async () => {
    doc = setMeasures(doc, []);
    const found = await foundActs(benchOf(), 'median sum by region');
    const tallies = found.filter(({ kind }) => kind === 'tally');
    expect(tallies.length).toBeGreaterThan(0);
    tallies[0].run();
    expect(JSON.stringify(begun[0])).toContain('"Region"');
    expect(JSON.stringify(begun[0])).toContain('median');
    expect(done[0]).toMatch(/^New tally: /);
  });

  it('a value of a column that is narrowed already takes its place, or is added to it, as promised', async () => {
    run('Narrow to Region: North', await foundActs(benchOf(), 'north'));
    const found = await foundActs(benchOf(), 'south only');
    const [instead, added] = found.filter(({ kind }) => kind === 'value');
    expect(instead.label).toBe('Narrow to Region: South, in place of “Region is North”');
    expect(added.label).toBe('Add to the step: Region is North or South');
    for (const act of [instead, added]) {
      const before = doc;
      act.run();
      const { counted, rungs } = new OpenBench(small, recipeOfMade(small), 'x').show(doc);
      expect(rungs).toHaveLength(1);
      expect(act.keys).toMatch(new RegExp(`^${counted.records} records? stays?`));
      expect(counted.records).toBeGreaterThan(0);
      doc = before;
    }
    // A tally that is begun with such a step replaces it as well, and says so.
    const [tally] = await foundActs(benchOf(), 'sum by depot, south only');
    expect(tally.label).toContain('Region is South, in place of “Region is North”');
  });

  it('the first figures of an offer are those of the tally, narrowed as it says', async () => {
    const [offer] = await foundActs(benchOf(), 'sum by region without south');
    expect(offer.read).toEqual([
      { typed: 'sum', as: 'Sum' },
      { typed: 'by region', as: 'Region' },
      { typed: 'without south', as: 'Region is not South' },
    ]);
    const first = await offer.figures?.();
    expect(first?.map(({ label }) => label)).toContain('North');
    expect(first?.map(({ label }) => label)).not.toContain('South');
    const [pots] = await foundActs(benchOf(), 'sum by region per pot');
    expect(pots.read?.at(-1)).toEqual({ typed: 'per pot', as: '' });
  });

  it('nothing by words that nothing has', async () => {
    expect(await foundActs(benchOf(), 'zzzz')).toEqual([]);
  });
});
