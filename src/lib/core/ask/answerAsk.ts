import { setAsideWords } from '../selection/setAsideWords';
import { AskRefused, BadAsk } from '../errors';
import { numbersIn } from '../selection/byNumber';
import { describeCondition } from '../selection/describe';
import { recordsOfTable, recordsSelected } from '../table/recordCounts';
import type { Task } from '../task/task';
import { counted } from '../table/format';
import { correctionWords } from '../read/correct';
import { namesOf } from '../table/table';
import { freezeAll, type Answer } from '../tally/answer/answer';
import type { TallyInput } from '../tally/input/input';
import type { Fault } from '../tally/spec/fault';
import { checkFooting } from '../tally/trust/checkFooting';
import type { Footing } from '../tally/trust/footing';
import type { Formats } from '../tally/spec/formats';
import type { FigureTable } from '../tally/answer/result';
import { formatsWithIds } from '../tally/spec/withIds';
import { warn } from '../tally/trust/warnings';
import type { AlsoAsk, Ask } from './ask';
import { fit } from '../tally/kind/evaluate';
import { compute } from './compute';
import type { AskResult, ListResult } from './result';
import { resolve, type AskedList, type Resolved } from './resolve';
import { VERSION } from './version';

/** An ask answered, its figures still open to questions. */
export interface Answered {
  readonly resolved: Resolved;
  readonly answers: readonly { readonly answer: Answer; readonly input: TallyInput }[];
  readonly result: AskResult;
}

/** Rows that a table of an answer may have as plain data; more fill the memory and are read by nobody. */
const MOST_ROWS = 1_000_000;

/**
 * Answers an ask, wholly or not at all.
 * @throws BadAsk where it does not fit the list, AskRefused where the data do not allow a tally
 * @example finish(answerAsk({ name: 'Sailings', table, others: new Map() }, readAsk(document))).result
 */
export function* answerAsk(list: AskedList, ask: Ask): Task<Answered> {
  const on = yield* resolve(list, ask);
  const others: { readonly on: Resolved; readonly of: AlsoAsk; readonly list: AskedList }[] = [];
  const faults = faultsOf(on, ask, '');
  for (const [k, of] of ask.also.entries()) {
    const path = `also[${k}]`;
    const table = on.input.others.get(of.of);
    if (!table) {
      faults.push({
        path: `${path}.of`,
        message: `There is no list “${of.of}”.`,
        remedy: 'Name it under “lists”.',
      });
      continue;
    }
    // The list in question is one of the others for those beside it.
    const around = new Map(on.input.others);
    // A list that was named so on purpose is the one that is meant.
    if (!around.has(list.name)) around.set(list.name, on.input.table);
    around.delete(of.of);
    const own = { name: of.of, table, others: around };
    const resolved = yield* resolve(own, { ...of, lists: {}, corrections: [] });
    others.push({ on: resolved, of, list: own });
    faults.push(...faultsOf(resolved, of, `${path}.`));
  }
  refuse(faults);
  const { answers, result } = yield* answerOn(list, on, ask, ask, '');
  const also: AskResult['also'] = [];
  for (const [k, { on: resolved, of, list: own }] of others.entries()) {
    const answered = yield* answerOn(own, resolved, of, ask, `also[${k}].`);
    answers.push(...answered.answers);
    also.push(answered.result);
    yield (k + 1) / others.length;
  }
  if (ask.version === undefined && namesRecords(ask)) result.prepared.push(NO_VERSION);
  return { resolved: on, answers, result: { version: VERSION, ...result, also } };
}

type Tallied = Pick<Ask, 'tallies'>;

/** Everything that does not fit, all at once. @param before the path of the question in the ask */
export function faultsOf(on: Resolved, { tallies }: Tallied, before: string): Fault[] {
  // What lists, corrections and preparations lack makes the rest fail: it is told alone.
  const found = on.firstFaults.length
    ? on.firstFaults
    : [...on.faults, ...tallies.flatMap((t, k) => fit(on.input, t, `tallies[${k}]`).faults)];
  return found.map((fault) => ({ ...fault, path: before + fault.path }));
}

/** The tallies over one list. @throws AskRefused */
export function* answerOn(
  list: AskedList,
  on: Resolved,
  { tallies: asked }: Tallied,
  { leaveOut, formats }: Pick<Ask, 'leaveOut' | 'formats'>,
  before: string,
): Task<{ answers: { answer: Answer; input: TallyInput }[]; result: ListResult }> {
  const answers: { answer: Answer; input: TallyInput }[] = [];
  const tallies: ListResult['tallies'] = [];
  const own = formatsWithIds(formats, on.input.table.columns);
  for (const [k, tally] of asked.entries()) {
    const { answer, refused, input } = yield* compute(on, tally, `tallies[${k}]`);
    const path = `${before}tallies[${k}]`;
    if (!answer) throw new AskRefused(path, refused);
    const long = answer.tables.find((t) => t.length > MOST_ROWS);
    if (long)
      throw new AskRefused(
        path,
        `This makes ${counted(long.length, 'row')}. Ask for the top or bottom of them.`,
      );
    answers.push({ answer, input });
    const tables = yield* freezeAll(answer.tables, lean(leaveOut, own));
    tallies.push(tallyResult(tally.title, answer, tables, yield* checkFooting(input, answer)));
    yield (k + 1) / asked.length;
  }
  return { answers, result: resultOf(list, on, tallies, own) };
}

/** A tally's part of a result. */
export const tallyResult = (
  title: string | undefined,
  { kind, words, scope, records, warnings }: Answer,
  tables: FigureTable[],
  footing: Footing,
): ListResult['tallies'][number] => ({
  ...(title !== undefined && { title }),
  kind,
  words,
  scope,
  records,
  tables,
  warnings: [...warnings],
  footing,
});

const NO_VERSION = warn(
  'no-version',
  'The ask names records by number and says no version: they were counted from 1, as since version 3.',
);

const namesRecords = ({ ladder, corrections }: Ask): boolean =>
  corrections.length > 0 ||
  ladder.setAside.records.length > 0 ||
  ladder.setAside.kept.length > 0 ||
  ladder.rungs.some(({ condition }) => numbersIn(condition).length > 0);

/** A row or a column without what was not wanted, and without deviations that are not shown. */
export const lean = (leaveOut: Ask['leaveOut'], formats: Formats) => {
  const shown = Object.values(formats).some(({ deviation }) => deviation !== undefined);
  return <T extends object>(part: T): T => {
    if (leaveOut.length === 0 && (shown || !('deviations' in part))) return part;
    const out: T & { where?: unknown; marks?: unknown; deviations?: unknown } = { ...part };
    for (const key of leaveOut) delete out[key];
    if (!shown) delete out.deviations;
    return out;
  };
};

export function refuse(faults: readonly Fault[]): void {
  if (faults.length) throw new BadAsk(faults);
}

/** What a question over a list comes to, with its tallies. */
export function resultOf(
  list: Pick<AskedList, 'name'>,
  on: Resolved,
  tallies: ListResult['tallies'],
  formats: Formats,
): ListResult {
  const { input, ladder, given } = on;
  const { table } = input;
  const names = namesOf(table);
  return {
    list: {
      name: list.name,
      records: recordsOfTable(table),
      columns: table.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })),
    },
    counts: {
      all: recordsOfTable(table),
      rungs: ladder.rungs.map(({ on: isOn, kept, removed, blank, unread }, k) => ({
        words: describeCondition(given.rungs[k].condition, names),
        on: isOn,
        kept,
        removed,
        blank,
        unread,
      })),
      narrowed: recordsSelected(table, ladder.narrowed),
      setAside: recordsSelected(table, ladder.setAside),
      aside: setAsideWords(given.setAside, names),
      corrections: on.corrections.map((c) => correctionWords(c, namesOf(on.list))),
      counted: recordsSelected(table, ladder.counted),
    },
    prepared: [...on.warnings],
    ...(Object.keys(formats).length > 0 && { formats }),
    tallies,
  };
}
