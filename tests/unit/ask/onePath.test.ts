import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answer';
import { AskResult } from '$lib/core/ask/result';
import { askOf } from '$lib/core/bench/askOf';
import { readAsk } from '$lib/core/ask/badAsk';
import { benchOf } from '$lib/core/bench/benchOf';
import type { Bench } from '$lib/core/bench/document';
import { finish } from '$lib/core/steps/steps';
import type { ReplyOf } from '$lib/engine/protocol';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../../support/bench';
import { before, benchWith, ladder, SPECS, table } from '../../support/generated';
import { noRecipe } from '../../support/smallList';

/** Figures of a tally as the page is given them, row by row in the order of the table. */
function onThePage(bench: OpenBench): unknown {
  const answered = Replies.answer.parse(bench.ask('answer', { tally: 'other' }));
  return {
    refused: answered.refused !== '' || answered.faults.length > 0,
    words: answered.sentence,
    warnings: answered.warnings,
    tables: answered.tables.map(({ name, columns, length }) => {
      const rows: ReplyOf<'rows'>['rows'] = [];
      // Heavy rows come in several answers.
      while (rows.length < length) {
        const came = Replies.rows.parse(
          bench.ask('rows', {
            tally: 'other',
            table: name,
            from: rows.length,
            count: 2000,
            view: { down: 99, turned: [] },
          }),
        );
        expect(came.length).toBe(length);
        expect(came.rows.length).toBeGreaterThan(0);
        rows.push(...came.rows);
      }
      expect(rows.length).toBe(length);
      return {
        name,
        columns: columns.map((c) => c.key),
        rows: [...rows].sort((a, b) => a.place - b.place).map((r) => r.figures),
      };
    }),
  };
}

/** The same figures as the command line writes them, read back from what it wrote. */
function onTheCommandLine(doc: Bench): unknown {
  const ask = readAsk(JSON.parse(JSON.stringify(askOf(doc))));
  try {
    const { result } = finish(
      answerAsk(
        { name: 'Sailings', table, others: new Map([['before', before]]) },
        {
          ...ask,
          tallies: ask.tallies.slice(-1),
        },
      ),
    );
    const [tally] = AskResult.parse(JSON.parse(JSON.stringify(result))).tallies;
    return {
      refused: false,
      words: tally.words,
      warnings: tally.warnings,
      tables: tally.tables.map(({ name, columns, rows }) => ({
        name,
        columns: columns.map((c) => c.key),
        rows: rows.map((r) => r.cells),
      })),
    };
  } catch (error) {
    return error instanceof Error ? { refused: true } : error;
  }
}

describe('one question, one answer: the page and the command line', () => {
  for (const [kind, spec] of Object.entries(SPECS))
    it(`${kind}: the same figures, sentence and warnings for 40 specs made at random`, () => {
      const bench = new OpenBench(table, noRecipe, 'Sailings', new Map([['before', before]]));
      let answered = 0;
      fc.assert(
        fc.property(spec, ladder, (tally, { rungs, aside }) => {
          const parsed = rungs.map((condition, k) => ({ id: `r${k}`, on: true, condition }));
          const doc = benchWith(tally, JSON.parse(JSON.stringify(parsed)), aside);
          bench.show(doc);
          const page = onThePage(bench);
          const line = onTheCommandLine(doc);
          if (typeof line === 'object' && line && 'refused' in line && line.refused) {
            expect(page).toMatchObject({ refused: true });
            return;
          }
          answered++;
          expect(page).toEqual(line);
        }),
        { numRuns: 40, seed: 8 },
      );
      expect(answered).toBeGreaterThan(8);
    });

  it('a bench saved as an ask and read in again asks the same', () => {
    for (const [, spec] of Object.entries(SPECS))
      for (const tally of fc.sample(spec, { numRuns: 5, seed: 3 })) {
        const doc = benchWith(tally, [], [4]);
        const ask = askOf(doc);
        expect(askOf(benchOf(readAsk(JSON.parse(JSON.stringify(ask))), 1))).toEqual(ask);
      }
  });
});
