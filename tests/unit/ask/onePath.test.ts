import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { AskResult } from '$lib/core/ask/result';
import { askOf } from '$lib/core/bench/askOf';
import { readAsk } from '$lib/core/ask/badAsk';
import { benchOf } from '$lib/core/bench/benchOf';
import type { Bench } from '$lib/core/bench/document';
import { finish } from '$lib/core/task/task';
import { gatherTable } from '$lib/engine/gatherTable';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../../support/bench';
import { before, benchWith, ladder, SPECS, table } from '../../support/generated';
import { noRecipe } from '../../support/smallList';

/** Figures of a tally as the page is given them, row by row in the order of the table. */
async function onThePage(bench: OpenBench, token: number): Promise<unknown> {
  const answered = Replies.answer.parse(bench.ask('answer', { tally: 'other' }));
  const tables = [];
  for (const head of answered.tables) {
    const of = { token, tally: 'other', table: head.name, view: { down: 99, turned: [] } };
    // Heavy rows come in several answers, as do many columns.
    const { rows, length, ...whole } = await gatherTable(
      (kind, args) => Replies[kind].parse(bench.engine.now(kind, args)) as never,
      head,
      of,
      Infinity,
    );
    expect(rows.length).toBe(length);
    tables.push({
      name: head.name,
      columns: whole.head.columns.map((c) => c.key),
      rows: rows.toSorted((a, b) => a.place - b.place).map((r) => r.figures),
    });
  }
  return {
    refused: answered.refused !== '' || answered.faults.length > 0,
    words: answered.sentence,
    warnings: answered.warnings,
    tables,
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
    it(`${kind}: the same figures, sentence and warnings for 40 specs made at random`, async () => {
      const bench = new OpenBench(table, noRecipe, 'Sailings', new Map([['before', before]]));
      let answered = 0;
      await fc.assert(
        fc.asyncProperty(spec, ladder, async (tally, { rungs, aside }) => {
          const parsed = rungs.map((condition, k) => ({ id: `r${k}`, on: true, condition }));
          const doc = benchWith(tally, JSON.parse(JSON.stringify(parsed)), aside);
          const { token } = bench.show(doc);
          const page = await onThePage(bench, token);
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
