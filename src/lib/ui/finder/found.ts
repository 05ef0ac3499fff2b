import { addRung } from '../../core/bench/edits';
import type { Condition } from '../../core/selection/condition';
import { describeCondition } from '../../core/selection/describe';
import { counted } from '../../core/table/format';
import { narrowingOf, type Narrowing } from '../../core/tally/wish/narrowing';
import type { BenchState } from '../bench/bench.svelte';
import type { Act } from './acts';

/** Columns whose values are looked through. */
const MOST_COLUMNS = 16;

/** What was typed as tallies to begin, and as what shall count. */
export async function foundActs(bench: BenchState, typed: string): Promise<Act[]> {
  const narrowing = narrowingOf(typed, bench.columns);
  const [tallies, values] = await Promise.all([
    tallyActs(bench, typed),
    valueActs(bench, narrowing),
  ]);
  const { condition, said } = narrowing;
  const named = condition ? [narrowAct(bench, condition)] : [];
  return said ? [...named, ...values, ...tallies] : [...named, ...tallies, ...values];
}

/** `median delay by vessel without gale`: the tallies that begin so, and what they narrow to. */
async function tallyActs(bench: BenchState, typed: string): Promise<Act[]> {
  const offers = await bench.offers(typed, 'find questions');
  return offers.map(({ question, sentence, tally, wish, narrow, narrowWords, left }): Act => {
    const only = narrowWords.length ? ` Narrowed to: ${narrowWords.join('; ')}.` : '';
    return {
      kind: 'tally',
      label: `New: ${sentence}${only}`,
      keys: question,
      left,
      run: () => bench.begin(`New tally: ${sentence}${only}`, tally, wish, narrow),
    };
  });
}

function narrowAct(bench: BenchState, condition: Condition): Act {
  const label = `Narrow to: ${describeCondition(condition, bench.names)}`;
  return {
    kind: 'step',
    label,
    run: () => bench.change(label, (doc) => addRung(doc, condition)),
  };
}

/** Values of the list's text columns that hold what was typed, each as a step to narrow by. */
async function valueActs(bench: BenchState, { search, not }: Narrowing): Promise<Act[]> {
  const columns = bench.columns.filter((c) => c.type === 'text').slice(0, MOST_COLUMNS);
  const found = await Promise.all(
    columns.map(async (c) => {
      const { items } = await bench.ask(
        'values',
        { column: c.id, search, limit: 6 },
        `find ${c.id}`,
      );
      return items.map(({ text, count, spellings }): Act => {
        const words = `Narrow to ${not ? 'all but ' : ''}${c.name}: ${text}`;
        return {
          kind: 'value',
          label: words,
          keys:
            counted(count, 'record') +
            (not ? ' left out' : '') +
            (spellings.length > 1 ? `, ${spellings.length} spellings` : ''),
          run: () =>
            bench.change(words, (doc) =>
              addRung(doc, {
                kind: 'leaf',
                column: c.id,
                not,
                test: { test: 'is', values: spellings.map((s) => s.text), exact: true },
              }),
            ),
        };
      });
    }),
  );
  return found.flat();
}
