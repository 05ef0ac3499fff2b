import { addRung } from '../../core/bench/edits';
import type { Condition } from '../../core/scope/condition';
import { describeCondition } from '../../core/scope/describe';
import { counted } from '../../core/table/format';
import { narrowingOf, type Narrowing } from '../../core/tally/narrowing';
import { fitOf, wishOf } from '../../core/tally/wishOf';
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

/** `median delay by vessel`: the tallies that begin so. */
async function tallyActs(bench: BenchState, search: string): Promise<Act[]> {
  const wish = wishOf(search, bench.columns, bench.keptBands);
  if (!wish) return [];
  const found = await bench.questions(wish, 'find questions');
  const asked = [...found].sort((a, b) => fitOf(search, b) - fitOf(search, a));
  return asked.flatMap(({ question, sentence, tally }): Act[] =>
    tally
      ? [
          {
            kind: 'tally',
            label: `New: ${sentence}`,
            keys: question,
            run: () => bench.begin(`New tally: ${sentence}`, tally, wish),
          },
        ]
      : [],
  );
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
