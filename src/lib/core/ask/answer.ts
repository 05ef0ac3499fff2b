import { AskRefused, BadAsk } from '../errors';
import { numbersIn } from '../scope/byNumber';
import { describeCondition } from '../scope/describe';
import type { Steps } from '../steps/steps';
import { count } from '../table/bitset';
import { counted } from '../table/format';
import { namesOf } from '../table/table';
import { freeze, type Answer } from '../tally/answer';
import type { Base } from '../tally/base';
import type { Fault } from '../tally/fault';
import { foot } from '../tally/foot';
import type { FigureTable } from '../tally/result';
import { warn } from '../tally/warnings';
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
      tables: answer.tables.map((t) => lean(freeze(t), ask.leaveOut)),
      warnings: [...answer.warnings],
      footing: yield* foot(base, answer),
    });
    yield (k + 1) / ask.tallies.length;
  }
  const result = resultOf(list, on, tallies);
  if (ask.version === undefined && namesRecords(ask)) result.prepared.push(NO_VERSION);
  return { stand: on, answers, result };
}

const NO_VERSION = warn(
  'no-version',
  'The ask names records by number and says no version: they were counted from 1, as since version 3.',
);

const namesRecords = ({ ladder, corrections }: Ask): boolean =>
  corrections.length > 0 ||
  ladder.setAside.records.length > 0 ||
  ladder.setAside.kept.length > 0 ||
  ladder.rungs.some(({ condition }) => numbersIn(condition).length > 0);

/** A table without what was not wanted. */
function lean(table: FigureTable, leaveOut: Ask['leaveOut']): FigureTable {
  if (leaveOut.length === 0) return table;
  const without = <T extends object>(part: T): T => {
    const out: T & { where?: unknown; marks?: unknown } = { ...part };
    for (const key of leaveOut) delete out[key];
    return out;
  };
  return { ...table, columns: table.columns.map(without), rows: table.rows.map(without) };
}

function refuse(faults: readonly Fault[]): void {
  if (faults.length) throw new BadAsk(faults);
}

function resultOf(list: AskedList, on: Stand, tallies: AskResult['tallies']): AskResult {
  const { base, ladder, given } = on;
  const { table } = base;
  const names = namesOf(table);
  return {
    version: 3,
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
