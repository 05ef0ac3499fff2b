import { bothOf, clashOf } from '../../core/bench/clash';
import { addRungInstead, changeRung } from '../../core/bench/edits';
import type { Condition } from '../../core/selection/condition';
import { describeCondition, missingWords } from '../../core/selection/describe';
import { allOf } from '../../core/tally/spec/whereCondition';
import { counted, showCount } from '../../core/table/format';
import { searchOf, type Search } from '../../core/wish/search';
import type { Bench } from '../../core/bench/document';
import type { ReplyOf } from '../../engine/protocol';
import type { BenchState } from '../bench/bench.svelte';
import type { Act } from './acts';
import { firstFigures } from './firstFigures';

/** Columns whose values are looked through. */
const MOST_COLUMNS = 16;

/** What was typed as tallies to begin, and as what shall count. */
export async function foundActs(bench: BenchState, typed: string): Promise<Act[]> {
  const search = searchOf(typed);
  const [{ tallies: offers, narrow }, values] = await Promise.all([
    bench.offers(typed, 'find questions'),
    valueActs(bench, search),
  ]);
  const tallies = tallyActs(bench, offers);
  // Several conditions, or one that no value is found for, are one step as the whole wish reads.
  const whole = narrow.length > 1 || (narrow.length === 1 && values.length === 0);
  const condition = whole ? allOf(narrow) : null;
  const named = condition ? await narrowActs(bench, condition) : [];
  return search.said ? [...named, ...values, ...tallies] : [...named, ...tallies, ...values];
}

/** `median delay by vessel without gale`: the tallies that begin so, and what they narrow to. */
function tallyActs(bench: BenchState, offers: ReplyOf<'offers'>['tallies']): Act[] {
  return offers.map(
    ({ question, sentence, tally, wish, narrow, narrowWords, left, read, taken }): Act => {
      const placed = narrow.flatMap(
        (condition) => clashOf(bench.doc.ladder.rungs, condition) ?? [],
      );
      const instead = placed.map(
        (rung) => `, in place of “${describeCondition(rung.condition, bench.names)}”`,
      );
      const only = narrowWords.length
        ? ` Narrowed to: ${narrowWords.join('; ')}${instead.join('')}.`
        : '';
      return {
        kind: 'tally',
        label: `New: ${sentence}${only}`,
        keys: question,
        left,
        read,
        taken,
        figures: async () => {
          const sketch = await bench.ask('sketch', { spec: tally, narrow }, 'find figures');
          return firstFigures(sketch);
        },
        run: () => bench.begin(`New tally: ${sentence}${only}`, tally, wish, narrow),
      };
    },
  );
}

/**
 * A step with what it would keep and leave out: the figures that come when it is taken. Beside one that takes the place
 * of another, the two as one step.
 */
async function stepActs(
  bench: BenchState,
  condition: Condition,
  { kind, label, more = '' }: { kind: 'step' | 'value'; label: string; more?: string },
): Promise<Act[]> {
  const at = bench.doc.ladder.rungs.length;
  const clash = clashOf(bench.doc.ladder.rungs, condition);
  const act = async (said: string, asked: Condition, run: (doc: Bench) => Bench): Promise<Act> => {
    const instead = clash ? { instead: clash.id } : {};
    const tried = await bench
      .ask('try', { condition: asked, at, ...instead }, `find ${said}`)
      .catch(() => null);
    return {
      kind,
      label: said,
      ...(tried && { keys: promise(tried) + more }),
      run: () => bench.change(said, run),
    };
  };
  if (!clash) return [await act(label, condition, (doc) => addRungInstead(doc, condition))];
  const both = bothOf(clash, condition);
  const words = (of: Condition): string => describeCondition(of, bench.names);
  return Promise.all([
    act(`${label}, in place of “${words(clash.condition)}”`, condition, (doc) =>
      addRungInstead(doc, condition),
    ),
    act(`Add to the step: ${words(both)}`, both, (doc) => changeRung(doc, clash.id, both)),
  ]);
}

/** `745 records stay, 4,260 go, 59 of them blank` */
function promise({ kept, removed, blank, unread }: ReplyOf<'try'>): string {
  const valueless = missingWords({ blank, unread });
  return `${counted(kept, 'record')} ${kept === 1 ? 'stays' : 'stay'}, ${showCount(removed)} ${removed === 1 ? 'goes' : 'go'}${valueless && `, of them ${valueless}`}`;
}

const narrowActs = (bench: BenchState, condition: Condition): Promise<Act[]> =>
  stepActs(bench, condition, {
    kind: 'step',
    label: `Narrow to: ${describeCondition(condition, bench.names)}`,
  });

/** Values of the list's text columns that hold what was typed, each as a step to narrow by. */
async function valueActs(bench: BenchState, { search, not }: Search): Promise<Act[]> {
  const columns = bench.columns.filter((c) => c.type === 'text').slice(0, MOST_COLUMNS);
  const found = await Promise.all(
    columns.map(async (c) => {
      const { items } = await bench.ask(
        'values',
        { column: c.id, search, limit: 6 },
        `find ${c.id}`,
      );
      const acts = await Promise.all(
        items.map(({ text, spellings }): Promise<Act[]> => {
          const values = spellings.map((spelling) => spelling.text);
          return stepActs(
            bench,
            { kind: 'leaf', column: c.id, not, test: { test: 'is', values, exact: true } },
            {
              kind: 'value',
              label: `Narrow to ${not ? 'all but ' : ''}${c.name}: ${text}`,
              more: spellings.length > 1 ? `; ${spellings.length} spellings` : '',
            },
          );
        }),
      );
      return acts.flat();
    }),
  );
  return found.flat();
}
