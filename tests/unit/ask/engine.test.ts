import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { Tally } from '$lib/core/tally/kinds';
import { TallyResult } from '$lib/core/tally/result';
import { Engine } from '$lib/engine/engine';
import { Replies } from '$lib/engine/protocol';
import { small, noRecipe } from '../../support/smallList';

describe('the engine answers tallies over what a bench counts', () => {
  it('with the ladder and the order of the bench, and opens their figures', () => {
    const engine = new Engine(small, noRecipe, 'Sailings');
    const doc = newBench(small, 1);
    doc.ladder.rungs = [
      { id: 'a', on: true, condition: { kind: 'expression', not: false, expression: 'Sum >= 5' } },
    ];
    doc.ladder.setAside.records = [2];
    engine.now({ do: 'reckon', doc });
    const tally = Tally.parse({
      kind: 'crosstab',
      down: [{ column: 'Region' }],
      across: [{ column: 'Depot' }],
      measures: [{ kind: 'sum', column: 'Sum' }],
    });
    const reply = Replies.tally.parse(engine.now<'tally'>({ do: 'tally', tally }));
    expect([reply.records, reply.footing.foots]).toEqual([4, true]);
    const result = TallyResult.parse(reply);
    const place = {
      table: 0,
      row: reply.tables[0].rows.findIndex((r) => r.cells[0] === 'North'),
      column: 'all.m1',
    };
    const opened = Replies.tallyBehind.parse(
      engine.now<'tallyBehind'>({ do: 'tallyBehind', result, place }),
    );
    expect(opened).toEqual({
      figure: 15,
      records: [0, 1],
      values: 2,
      blanks: 0,
      unread: 0,
      arithmetic: '2 values added up.',
      warning: '',
    });
  });

  it('refuses one that does not fit in words, and a step on a column that is gone is off', () => {
    const engine = new Engine(small, noRecipe, 'Sailings');
    const doc = newBench(small, 1);
    doc.ladder.rungs = [
      { id: 'a', on: true, condition: { kind: 'expression', not: false, expression: 'Gone > 5' } },
    ];
    expect(Replies.reckon.parse(engine.now({ do: 'reckon', doc })).counted.records).toBe(6);
    const tally = Tally.parse({ kind: 'percentile', column: 'Depot' });
    expect(() => engine.now({ do: 'tally', tally })).toThrow(/tally\.column: “Depot” is text/);
  });
});
