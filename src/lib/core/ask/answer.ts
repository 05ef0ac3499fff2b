import { AskRefused, BadAsk } from '../errors';
import { describeCondition } from '../scope/describe';
import type { Steps } from '../steps/steps';
import { count } from '../table/bitset';
import { counted } from '../table/format';
import { namesOf } from '../table/table';
import { freeze, type Answer } from '../tally/answer';
import type { Base } from '../tally/base';
import type { Fault } from '../tally/fault';
import { foot } from '../tally/foot';
import type { Ask } from './ask';
import { compute, fit } from './compute';
import type { AskResult } from './result';
import { stand, type AskedList, type Stand } from './stand';

/** An ask answered, its figures still open to questions. */
export interface Answered {
  readonly stand: Stand;
  readonly answers: readonly { readonly answer: Answer; readonly base: Base }[];
  readonly result: AskResult;
}

/** Rows that a table of an answer may have as plain data; more fill the memory and are read by nobody. */
const MOST_ROWS = 1_000_000;

/**
 * Answers an ask, wholly or not at all.
 * @throws BadAsk where it does not fit the list, AskRefused where the data do not allow a tally
 * @example finish(answerAsk({ name: 'Sailings', table, others: new Map() }, readAsk(document))).result
 */
export function* answerAsk(list: AskedList, ask: Ask): Steps<Answered> {
  const on = yield* stand(list, ask);
  refuse(on.firstFaults);
  refuse([...on.faults, ...ask.tallies.flatMap((t, k) => fit(on, t, `tallies[${k}]`).faults)]);
  const answers: { answer: Answer; base: Base }[] = [];
  const tallies: AskResult['tallies'] = [];
  for (const [k, asked] of ask.tallies.entries()) {
    const { answer, refused, base } = yield* compute(on, asked, `tallies[${k}]`);
    if (!answer) throw new AskRefused(`tallies[${k}]`, refused);
    const long = answer.tables.find((t) => t.length > MOST_ROWS);
    if (long)
      throw new AskRefused(
        `tallies[${k}]`,
        `This makes ${counted(long.length, 'row')}. Ask for the top or bottom of them.`,
      );
    answers.push({ answer, base });
    tallies.push({
      ...(asked.title !== undefined && { title: asked.title }),
      kind: answer.kind,
      says: answer.says,
      scope: answer.scope,
      records: answer.records,
      tables: answer.tables.map(freeze),
      warnings: [...answer.warnings],
      footing: yield* foot(base, answer),
    });
    yield (k + 1) / ask.tallies.length;
  }
  return { stand: on, answers, result: resultOf(list, on, tallies) };
}

function refuse(faults: readonly Fault[]): void {
  if (faults.length) throw new BadAsk(faults);
}

function resultOf(list: AskedList, on: Stand, tallies: AskResult['tallies']): AskResult {
  const { base, ladder, given } = on;
  const { table } = base;
  const names = namesOf(table);
  return {
    version: 2,
    list: {
      name: list.name,
      records: table.length,
      columns: table.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })),
    },
    counts: {
      all: table.length,
      rungs: ladder.rungs.map(({ on: isOn, kept, removed, blank, unread }, k) => ({
        says: describeCondition(given.rungs[k].condition, names),
        on: isOn,
        kept,
        removed,
        blank,
        unread,
      })),
      narrowed: count(ladder.narrowed),
      setAside: count(ladder.setAside),
      counted: count(ladder.counted),
    },
    prepared: [...on.warnings],
    tallies,
  };
}
