import type { Task } from '../../core/task/task';
import { emptyBitset } from '../../core/table/bitset';
import { namesOf } from '../../core/table/table';
import { columnsInView } from '../../core/tally/answer/columnsInView';
import { questionsOf } from '../../core/tally/wish/guesses';
import { kindOf } from '../../core/tally/kind/kinds';
import { columnFacts } from '../../core/tally/wish/listFacts';
import { recordKeys } from '../../core/tally/input/recordKeys';
import type { ColumnFact, ListFacts } from '../../core/tally/wish/guess';
import { exampleWishes } from '../../core/wish/examples';
import { ListWords } from '../../core/wish/listWords';
import { narrowingIn, offersFor } from '../../core/wish/offers';
import type { Table } from '../../core/table/table';
import { clashOf } from '../../core/bench/clash';
import { applyLadder } from '../../core/selection/ladder';
import type { Condition } from '../../core/selection/condition';
import { compute } from '../../core/ask/compute';
import type { Resolved } from '../../core/ask/resolve';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import { headOf } from './tables';
import { rowOf } from './rows';

/** Rows that a small drawing can show. */
const SKETCHED = 60;

const known = new WeakMap<Table, ColumnFact[]>();

/** What can be asked of the list, each with the tally that begins to answer it. */
export function* answerQuestions(
  session: Session,
  { wish, readings, others }: ArgsOf<'questions'>,
): Task<ReplyOf<'questions'>> {
  const { table } = session;
  const facts = yield* factsOf(session, { readings, others });
  const names = namesOf(table);
  return questionsOf(facts, wish).map(({ kind, question, found, meant, guess }) => {
    const tally = 'tally' in guess ? guess.tally : null;
    return {
      kind,
      question,
      found,
      meant,
      tally,
      needs: 'needs' in guess ? guess.needs : '',
      sentence: tally ? kindOf(tally).plain(names, session.listName) : '',
    };
  });
}

/** What first guesses look at, and what of elsewhere can be brought. */
function* factsOf(
  { table, doc, resolved }: Session,
  { readings, others }: Pick<ArgsOf<'offers'>, 'readings' | 'others'>,
): Task<ListFacts> {
  let columns = known.get(table);
  if (!columns) known.set(table, (columns = yield* columnFacts(table)));
  return {
    records: table.length,
    columns,
    lead: doc.lead,
    recordKeys: readings.length ? recordKeys(table) : [],
    lists: [...resolved.input.others.keys(), ...readings],
    others,
  };
}

const listWords = new WeakMap<Table, ListWords>();

/** The tallies that a wish may mean, with what of it was not understood. */
export function* answerOffers(
  session: Session,
  { typed, readings, others, bands }: ArgsOf<'offers'>,
): Task<ReplyOf<'offers'>> {
  const { table, listName } = session;
  const facts = yield* factsOf(session, { readings, others });
  yield undefined;
  let words = listWords.get(table);
  if (!words) listWords.set(table, (words = new ListWords(table)));
  if (typed.trim() === '')
    return { tallies: [], narrow: [], examples: exampleWishes(words, facts, listName) };
  const tallies = offersFor(typed, words, facts, listName, bands).map((offer) => ({
    ...offer,
    narrow: [...offer.narrow],
    narrowWords: [...offer.narrowWords],
    left: [...offer.left],
    read: offer.read.map((word) => ({ ...word })),
    taken: offer.taken.map((word) => ({ ...word })),
  }));
  return { tallies, narrow: [...narrowingIn(typed, words)], examples: [] };
}

/** What a session rests on, narrowed by more steps, as they are put into its ladder. */
function* narrowedBy({ resolved }: Session, narrow: readonly Condition[]): Task<Resolved> {
  const { rungs, setAside } = resolved.given;
  const clashes = new Set(narrow.map((condition) => clashOf(rungs, condition)?.id));
  const given = {
    rungs: [
      ...rungs.filter(({ id }) => !clashes.has(id)),
      ...narrow.map((condition, k) => ({ id: `narrow ${k}`, on: true, condition })),
    ],
    setAside,
  };
  const ladder = yield* applyLadder(resolved.input.table, given);
  const { narrowed, counted } = ladder;
  return {
    ...resolved,
    given,
    ladder,
    input: { ...resolved.input, ladder: given, narrowed, counted },
  };
}

/** A tally that may never be kept: its first table in small. */
export function* answerSketch(
  session: Session,
  { spec, narrow = [] }: ArgsOf<'sketch'>,
): Task<ReplyOf<'sketch'>> {
  const { answer, refused } = narrow.length
    ? yield* compute(yield* narrowedBy(session, narrow), spec, 'tally')
    : yield* session.computed(spec);
  const sentence = kindOf(spec).plain(namesOf(session.table), session.listName);
  const [table] = answer?.tables ?? [];
  if (!answer || !table) return { sentence, refused, fact: '', table: null, rows: [] };
  const seen = columnsInView(table, 0);
  const none = emptyBitset(table.length);
  return {
    sentence,
    refused,
    fact: kindOf(spec).fact(answer),
    table: yield* headOf(spec, table, namesOf(session.table)),
    rows: Array.from({ length: Math.min(SKETCHED, table.length) }, (_, n) =>
      rowOf(seen, n, session.doc.formats, null, none),
    ),
  };
}
