import { describe, expect, it } from 'vitest';
import { benchFile, isBenchFile, readBenchFile } from '$lib/core/bench/benchFile';
import { moveBench } from '$lib/core/bench/move';
import { newBench } from '$lib/core/bench/newBench';
import { totalsOf } from '$lib/core/ask/totalsAside';
import type { Bench } from '$lib/core/bench/document';
import { matchRecipe } from '$lib/core/read/refresh';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Replies } from '$lib/engine/replies';
import { answered, rows } from '../support/ask';
import { OpenBench } from '../support/bench';
import { noRecipe } from '../support/smallList';

/** A statement of takings by stall, its totals among its records. */
const statement = (fares: readonly number[]): Table => {
  const north = fares[0] + fares[1];
  const south = fares[2] + fares[3];
  return {
    length: 7,
    columns: [
      textColumn('Stall', [
        'North',
        'North',
        'Total North',
        'South',
        'South',
        'Total South',
        'Grand total',
      ]),
      scalarColumn('Taken', 'number', [
        fares[0],
        fares[1],
        north,
        fares[2],
        fares[3],
        south,
        north + south,
      ]),
    ],
  };
};
const march = statement([10, 20, 30, 40]);
const april = statement([11, 20, 30, 45]);
const taken = (bench: OpenBench, doc: Bench): string[] =>
  bench.show(doc).foot.map(({ cells }) => cells[0]);
const onMarch = (): Bench => {
  const doc = newBench(march, 1, finish(totalsOf(march)));
  return { ...doc, lists: { march: { reading: 1, table: 'main' } } };
};

describe('totals inside a list, at the next reading', () => {
  it('are set aside again where they were, and none of them counts as lost', () => {
    expect(finish(totalsOf(march))).toEqual([3, 6, 7]);
    const { doc, lost } = finish(moveBench(onMarch(), march, april, 2));
    expect([doc.ladder.setAside.records, lost]).toEqual([[3, 6, 7], 0]);
    const bench = new OpenBench(april, noRecipe, 'Stalls', new Map([['march', march]]));
    // All, narrowed, counted: 106 is the truth, 318 every one of them three times.
    expect(taken(bench, doc)).toEqual(['318', '318', '106']);
  });

  it('what moved compares with what the bench showed before', () => {
    const { doc } = finish(moveBench(onMarch(), march, april, 2));
    const bench = new OpenBench(april, noRecipe, 'Stalls', new Map([['march', march]]));
    bench.show(doc);
    const { tallies } = Replies.moved.parse(bench.ask('moved', { with: 'march' }));
    const total = tallies[0].moved.find(({ title }) => title === 'sum of Taken');
    expect([total?.before, total?.after]).toEqual(['100', '106']);
  });

  it('a comparison with the reading before, and what moved it, count as the bench did', () => {
    const { doc } = finish(moveBench(onMarch(), march, april, 2));
    const { lists, ladder } = doc;
    const SUM = { kind: 'sum', column: 'Taken' };
    const tallies = [
      { kind: 'comparison', with: 'march', tally: { kind: 'ledger', measures: [SUM] } },
      {
        kind: 'contributions',
        measure: SUM,
        by: [{ column: 'Stall' }],
        between: { of: 'readings', with: 'march' },
      },
    ];
    const result = answered(april, { lists, ladder, tallies }, { march });
    const [moved] = rows(result).filter(({ Figure }) => Figure === 'sum of Taken');
    expect([moved.Before, moved.After]).toEqual([100, 106]);
    const whole = result.tallies[1].tables[0].rows.find(({ kind }) => kind === 'total');
    expect(whole?.cells).toContain(6);
  });

  it('are counted where that was decided at the reading, or where the bench had put one back', () => {
    const counted = finish(moveBench(onMarch(), march, april, 2, []));
    expect(counted.doc.ladder.setAside.records).toEqual([]);
    const back = onMarch();
    const { setAside } = back.ladder;
    const kept = { ...back, ladder: { ...back.ladder, setAside: { ...setAside, kept: [6] } } };
    const moved = finish(moveBench(kept, march, april, 2)).doc.ladder.setAside.records;
    expect(moved).not.toContain(7);
  });

  it('other records set aside are found again as ever', () => {
    const doc = newBench(march, 1, [2, 3, 6, 7]);
    expect(finish(moveBench(doc, march, april, 2)).doc.ladder.setAside.records).toEqual([
      2, 3, 6, 7,
    ]);
    // Without the totals there is nothing to be decided.
    const one = newBench(march, 1, [1]);
    expect(finish(moveBench(one, march, april, 2))).toMatchObject({
      lost: 1,
      doc: { ladder: { setAside: { records: [] } } },
    });
  });

  it('in a list that is stacked are those of its stacked records', () => {
    const stack = {
      do: 'stack' as const,
      columns: ['Taken'],
      name: 'What',
      value: 'Much',
      dropBlanks: true,
    };
    const doc: Bench = { ...newBench(march, 1), reshape: [stack] };
    const aside = {
      ...doc,
      ladder: { ...doc.ladder, setAside: { records: [3, 6, 7], values: [], kept: [] } },
    };
    expect(finish(moveBench(aside, march, april, 2)).doc.ladder.setAside.records).toEqual([
      3, 6, 7,
    ]);
  });

  it('the decision stands in the recipe, and goes over to the next file', () => {
    const list = { ...noRecipe, totals: 'counted' as const, columns: [] };
    expect(matchRecipe({ ...noRecipe, columns: [] }, list).recipe.totals).toBe('counted');
  });
});

describe('a bench as a file', () => {
  const recipe = {
    ...noRecipe,
    columns: [
      {
        id: 'a',
        at: 0,
        source: 'A',
        name: 'A',
        type: 'number' as const,
        unit: 'h',
        unitInCells: true,
        takenOff: '' as const,
        dayNumbers: false,
        thousands: '' as const,
        decimal: ',' as const,
        dateOrder: 'ymd' as const,
        grain: 'day' as const,
        zone: 'clock' as const,
        blanks: [],
      },
    ],
  };

  it('brings its recipe and those of the lists that it looks at', () => {
    const doc = onMarch();
    const document: unknown = JSON.parse(benchFile(doc, recipe, { march: recipe }));
    expect(isBenchFile(document)).toBe(true);
    expect(readBenchFile(document)).toEqual({ doc, recipe, recipes: { march: recipe } });
  });

  it('that an earlier version saved is a bench alone, and is read all the same', () => {
    const doc = onMarch();
    const document: unknown = JSON.parse(JSON.stringify(doc));
    expect(isBenchFile(document)).toBe(true);
    expect(readBenchFile(document)).toEqual({ doc, recipe: null, recipes: {} });
    expect(() => readBenchFile({ bench: doc, recipe: {} })).toThrow(/delimiter/);
  });
});
