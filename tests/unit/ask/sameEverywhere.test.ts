import { tableFromIPC } from 'apache-arrow';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { fromParts } from '$lib/core/ask/resultParts';
import { readAsk } from '$lib/core/ask/badAsk';
import { askOf } from '$lib/core/bench/askOf';
import type { Bench } from '$lib/core/bench/document';
import { AskRefused, WriteRefused } from '$lib/core/errors';
import { finish } from '$lib/core/task/task';
import { plainFormat } from '$lib/core/table/format';
import { Dialect } from '$lib/core/write/dialect';
import { FORMS, OUT_FORMS, valuesOf, type OutForm } from '$lib/core/write/forms';
import { resultFile } from '$lib/core/write/resultFile';
import { sheetsOf } from '$lib/core/write/sheets';
import type { AskResult } from '$lib/core/ask/result';
import { OpenBench } from '../../support/bench';
import { before, benchWith, ladder, SPECS, table } from '../../support/generated';
import { noRecipe } from '../../support/smallList';

/** Means with ± their deviation, money in thousands, negatives in brackets. */
const formats = {
  Fares: { ...plainFormat, deviation: 2 as const },
  'Fares:sum': {
    ...plainFormat,
    style: 'currency' as const,
    scale: 'thousand' as const,
    decimals: 3,
    negative: 'parentheses' as const,
  },
  Delay: { ...plainFormat, deviation: 1 as const },
};
const others = new Map([['before', before]]);

/** What a file of this form holds; zip packages carry the moment of their making, their sheets do not. */
async function contents(result: AskResult, form: OutForm, dialect: Dialect): Promise<unknown> {
  if (form === 'xlsx' || form === 'ods') return sheetsOf(result);
  try {
    const { bytes, guarded } = await resultFile(result, form, dialect);
    if (form === 'arrow') {
      // Its dictionaries are numbered as they are made, whoever makes them.
      const read = tableFromIPC(bytes);
      return [read.schema.fields.map(String), read.toArray().map(String)];
    }
    return [Buffer.from(bytes).toString('latin1'), guarded];
  } catch (error) {
    if (error instanceof WriteRefused) return error.message;
    throw error;
  }
}

/** What the command line and HTTP answer: the ask is written as JSON and read again. */
function asked(doc: Bench): AskResult | null {
  const ask = readAsk(JSON.parse(JSON.stringify(askOf(doc))));
  try {
    return finish(answerAsk({ name: 'Sailings', table, others }, ask)).result;
  } catch (error) {
    if (error instanceof AskRefused) return null;
    throw error;
  }
}

describe('a tally handed over is the same from the page, by HTTP and by the command line', () => {
  for (const [kind, spec] of Object.entries(SPECS))
    it(`${kind}: in every form, to the byte`, async () => {
      const bench = new OpenBench(table, noRecipe, 'Sailings', others);
      let compared = 0;
      await fc.assert(
        fc.asyncProperty(spec, ladder, async (tally, { rungs, aside }) => {
          const parsed = rungs.map((condition, k) => ({ id: `r${k}`, on: true, condition }));
          const whole = benchWith(tally, JSON.parse(JSON.stringify(parsed)), aside);
          const [ledger, other] = whole.tray;
          // Down to the last level of its groups, without records among them.
          const showDown = other.tally.kind === 'ledger' ? other.tally.groups.length : 1;
          const tray = [ledger, { ...other, view: { ...other.view, showDown } }];
          const doc = { ...whole, formats, tray: [other], open: 'other' };
          bench.show({ ...whole, formats, tray });
          const result = asked(doc);
          for (const form of OUT_FORMS)
            for (const values of form === 'csv' ? (['full', 'shown'] as const) : [null]) {
              const dialect = Dialect.parse({ ...(values && { values }) });
              // As it is shown a ledger has its lines: see the tests of what is on the ledger.
              if (kind === 'ledger' && valuesOf(form, dialect) === 'shown') continue;
              const { parts } = bench.ask('asked', {
                tallies: ['other'],
                values: valuesOf(form, dialect),
                report: false,
              });
              const own = fromParts(parts);
              if (!result) {
                expect(own.tallies[0].refused).not.toBe('');
                continue;
              }
              expect([form, await contents(own, form, dialect)]).toEqual([
                form,
                await contents(result, form, dialect),
              ]);
              compared++;
            }
        }),
        { numRuns: 4, seed: 30 },
      );
      expect(compared).toBeGreaterThan(OUT_FORMS.length);
      expect(Object.keys(FORMS)).toHaveLength(OUT_FORMS.length);
    });
});
