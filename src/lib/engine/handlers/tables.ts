import { measureWords, needsOther } from '../../core/measure/measure';
import { describeCondition } from '../../core/selection/describe';
import { pausing, type Task } from '../../core/task/task';
import { namesOf } from '../../core/table/table';
import type { AnswerTable } from '../../core/tally/answer/answer';
import { acrossOf, columnsInView } from '../../core/tally/answer/columnsInView';
import type { Footing } from '../../core/tally/trust/footing';
import { kindOf } from '../../core/tally/kind/kinds';
import type { Names } from '../../core/tally/kind/kind';
import type { FigureColumn } from '../../core/tally/answer/result';
import type { Tally } from '../../core/tally/spec/specs';
import { measurePhrase, nameOf } from '../../core/tally/sentence/words';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { Answered, TableHead } from '../replies/tables';
import { tableNamed } from './rows';

/** Rows made between two pauses: those of periods carry figures set against others. */
const ROWS = 64;

const isRight = ({ type }: FigureColumn): boolean =>
  type === 'number' || type === 'count' || type === 'share' || type === 'rank';

/** Levels of a table whose rows are parts of one another; 0 where nothing folds. */
function* levelsOf(table: AnswerTable): Task<number> {
  if (table.flat) return 0;
  const deepest = table.deepest ?? (yield* deepestOf(table));
  return deepest > 1 ? deepest : 0;
}

/** The deepest level of rows that are parts of others. */
function* deepestOf(table: AnswerTable): Task<number> {
  let deepest = 0;
  const due = pausing(ROWS);
  for (let n = 0; n < table.length; n++) {
    if (due(n)) yield undefined;
    if (table.partOf(n) < 0) continue;
    const { level, kind } = table.row(n);
    if (kind === 'group' || kind === 'total') deepest = Math.max(deepest, level);
  }
  return deepest;
}

/** A table of a tally without its rows. @param from the first column of figures in view */
export function* headOf(tally: Tally, whole: AnswerTable, names: Names, from = 0): Task<TableHead> {
  const table = columnsInView(whole, from);
  const across = acrossOf(whole, from);
  const wholes = new Set(whole.columns.map((c) => c.partOf));
  return {
    across,
    name: table.name,
    caption: table.caption,
    labels: table.labels,
    length: table.length,
    levels: yield* levelsOf(whole),
    drawnWhole: kindOf(tally).drawnWhole().includes(table.name),
    columns: table.columns.map((c, k) => ({
      key: c.key,
      title: c.title,
      unit: c.unit,
      type: c.type,
      right: isRight(c),
      opens: k >= table.labels && (table.opens || c.measure !== undefined || c.reach !== undefined),
      scalar: c.keyType !== undefined && c.keyType.type !== 'text',
      ...(c.keyType?.grain && { grain: c.keyType.grain }),
      whole: wholes.has(k < table.labels ? k : k + across.from),
      words: c.words ?? '',
      ...measureNames(c, names),
      over: overOf(c, names),
    })),
  };
}

/** The group of a cross-tab's column, or the condition of one that says it behind its measure. */
function overOf({ title, where }: FigureColumn, names: Names): string {
  const [first, ...rest] = title.split(' › ');
  if (rest.length) return first;
  const said = where ? describeCondition(where, names) : '';
  return said !== '' && title.endsWith(whereWords(said)) ? said : '';
}

const whereWords = (said: string): string => ` where ${said}`;

/** `sum` and `Fares taken`, where a column holds a measure of one. */
function measureNames(
  { measure, title, where }: FigureColumn,
  names: Names,
): { measure: string; of: string } {
  const none = { measure: '', of: '' };
  if (measure?.column === undefined || ['shown', 'sum'].includes(needsOther(measure.kind) ?? ''))
    return none;
  // A kind that gave its column a title of its own keeps it.
  const phrase = measurePhrase(measure, names);
  const under = where ? phrase + whereWords(describeCondition(where, names)) : null;
  if (!title.endsWith(phrase) && title !== under) return none;
  return { measure: measureWords(measure), of: nameOf(names, measure.column) };
}

/** One table of a tally without its rows, from a column on. @throws EngineError */
export function* answerHead(
  session: Session,
  { tally, table, across }: ArgsOf<'head'>,
): Task<TableHead> {
  const whole = yield* tableNamed(session, tally, table);
  return yield* headOf(session.item(tally).tally, whole, namesOf(session.table), across);
}

/** A tally without its rows. */
export function* answerTally(session: Session, { tally: id }: ArgsOf<'answer'>): Task<Answered> {
  const { answer, faults, refused } = yield* session.answer(id);
  const { tally } = session.item(id);
  const inner = kindOf(tally).innerColumns(session.table.columns);
  const names = namesOf(session.table);
  const tables: TableHead[] = [];
  for (const table of answer?.tables ?? []) tables.push(yield* headOf(tally, table, names));
  return {
    sentence: answer?.words ?? kindOf(tally).plain(names, session.listName),
    refused,
    faults: [...faults],
    warnings: [...(answer?.warnings ?? [])],
    records: answer?.records ?? 0,
    tables,
    innerColumns:
      inner?.map(({ id: column, name, type, unit }) => ({ id: column, name, type, unit })) ?? null,
  };
}

/** The footing of a tally without figures. */
export const NOTHING_COMPARED: Footing = {
  foots: true,
  compared: 0,
  failure: null,
  notAdding: [],
  words: 'There are no figures, so nothing was compared.',
};

/** Whether a tally foots. A ledger's footing is checked over the very figures it shows. */
export function* answerFooting(session: Session, { tally }: ArgsOf<'footing'>): Task<Footing> {
  return (yield* session.footing(tally)) ?? NOTHING_COMPARED;
}

/** What the tray says of a tally. */
export function* answerFact(
  session: Session,
  { tally: id }: ArgsOf<'fact'>,
): Task<ReplyOf<'fact'>> {
  const { answer, faults, refused } = yield* session.answer(id);
  const footing = yield* session.footing(id);
  if (!answer || !footing)
    return { text: refused || faults.length ? 'does not fit' : '', foots: null };
  return {
    text: kindOf(session.item(id).tally).fact(answer),
    foots: footing.compared > 0 ? footing.foots : null,
  };
}
