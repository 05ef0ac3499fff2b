import type { Steps } from '../../core/steps/steps';
import { emptyBitset } from '../../core/table/bitset';
import { namesOf } from '../../core/table/table';
import { columnsInView } from '../../core/tally/columnsInView';
import { questionsOf } from '../../core/tally/guesses';
import { kindOf } from '../../core/tally/kinds';
import { columnFacts } from '../../core/tally/listFacts';
import { recordKeys } from '../../core/tally/recordKeys';
import type { ColumnFact } from '../../core/tally/guess';
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
  const { table, doc, stand } = held;
  let columns = known.get(table);
  if (!columns) known.set(table, (columns = yield* columnFacts(table)));
  const facts = {
    records: table.length,
    columns,
    lead: doc.lead,
    recordKeys: readings.length ? recordKeys(table) : [],
    lists: [...stand.base.others.keys(), ...readings],
  };
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
