import type { Steps } from '../../core/steps/steps';
import { emptyBitset } from '../../core/table/bitset';
import { namesOf } from '../../core/table/table';
import { columnsInView } from '../../core/tally/columnsInView';
import { questionsOf } from '../../core/tally/guesses';
import { kindOf } from '../../core/tally/kinds';
import { columnFacts } from '../../core/tally/listFacts';
import { recordKeys } from '../../core/tally/recordKeys';
import type { ColumnFact, ListFacts } from '../../core/tally/guess';
import { ListWords } from '../../core/wish/listWords';
import { offersFor } from '../../core/wish/offers';
import type { Table } from '../../core/table/table';
import type { Held } from '../held';
import type { ArgsOf, ReplyOf } from '../protocol';
import { headOf } from './answer';
import { rowOf } from './rows';

/** Rows that a small drawing can show. */
const SKETCHED = 60;

const known = new WeakMap<Table, ColumnFact[]>();

/** What can be asked of the list, each with the tally that begins to answer it. */
export function* answerQuestions(
  held: Held,
  { wish, readings }: ArgsOf<'questions'>,
): Steps<ReplyOf<'questions'>> {
  const { table } = held;
  const facts = yield* factsOf(held, readings);
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
      sentence: tally ? kindOf(tally).plain(names, held.listName) : '',
    };
  });
}

/** What first guesses look at. @param readings others of the list that can be brought */
function* factsOf({ table, doc, stand }: Held, readings: readonly string[]): Steps<ListFacts> {
  let columns = known.get(table);
  if (!columns) known.set(table, (columns = yield* columnFacts(table)));
  return {
    records: table.length,
    columns,
    lead: doc.lead,
    recordKeys: readings.length ? recordKeys(table) : [],
    lists: [...stand.base.others.keys(), ...readings],
  };
}

const listWords = new WeakMap<Table, ListWords>();

/** The tallies that a wish may mean, with what of it was not understood. */
export function* answerOffers(
  held: Held,
  { typed, readings, bands }: ArgsOf<'offers'>,
): Steps<ReplyOf<'offers'>> {
  const { table, listName } = held;
  const facts = yield* factsOf(held, readings);
  yield undefined;
  let words = listWords.get(table);
  if (!words) listWords.set(table, (words = new ListWords(table)));
  return offersFor(typed, words, facts, listName, bands).map((offer) => ({
    ...offer,
    narrow: [...offer.narrow],
    narrowWords: [...offer.narrowWords],
    left: [...offer.left],
  }));
}

/** A tally that may never be kept: its first table in small. */
export function* answerSketch(held: Held, { spec }: ArgsOf<'sketch'>): Steps<ReplyOf<'sketch'>> {
  const { answer, refused } = yield* held.computed(spec);
  const sentence = kindOf(spec).plain(namesOf(held.table), held.listName);
  const [table] = answer?.tables ?? [];
  if (!answer || !table) return { sentence, refused, fact: '', table: null, rows: [] };
  const seen = columnsInView(table, 0);
  const none = emptyBitset(table.length);
  return {
    sentence,
    refused,
    fact: kindOf(spec).fact(answer),
    table: yield* headOf(spec, table, namesOf(held.table)),
    rows: Array.from({ length: Math.min(SKETCHED, table.length) }, (_, n) =>
      rowOf(seen, n, held.doc.formats, null, none),
    ),
  };
}
