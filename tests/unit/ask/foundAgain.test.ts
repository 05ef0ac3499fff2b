import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findFigure } from '$lib/core/tally/answer/findFigure';
import { keysOfRow, outlineOf } from '$lib/core/tally/answer/answer';
import { finish } from '$lib/core/task/task';
import { OpenBench } from '../../support/bench';
import { before, benchWith, ladder, SPECS, table } from '../../support/generated';
import { noRecipe } from '../../support/smallList';

describe('every row is found by its keys, so that known totals, words and links name its figures', () => {
  for (const [kind, spec] of Object.entries(SPECS))
    it(`${kind}: groups, totals, all others`, () => {
      const bench = new OpenBench(table, noRecipe, 'Sailings', new Map([['before', before]]));
      let asked = 0;
      fc.assert(
        fc.property(spec, ladder, (tally, { rungs, aside }) => {
          const parsed = rungs.map((condition, k) => ({ id: `r${k}`, on: true, condition }));
          const { token } = bench.show(benchWith(tally, JSON.parse(JSON.stringify(parsed)), aside));
          const { answer } = finish(bench.engine.session(token).answer('other'));
          for (const t of answer?.tables ?? [])
            for (let n = 0; n < t.length; n++) {
              const row = [...keysOfRow(t.row(n), t.labels)];
              expect([
                t.name,
                row,
                finish(findFigure(answer!, { table: t.name, row, column: 0 })).n,
              ]).toEqual([t.name, row, n]);
              const { kind, level } = t.row(n);
              expect(outlineOf(t, n)).toEqual({ kind, level, keys: row });
              asked++;
            }
        }),
        { numRuns: 12, seed: 13 },
      );
      expect(asked).toBeGreaterThan(20);
    });
});
