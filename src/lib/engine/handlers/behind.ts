import { EngineError } from '../../core/errors';
import { isShare } from '../../core/check/known';
import { checkKnownTotal } from '../../core/check/knownTotal';
import { findTotals } from '../../core/read/totals';
import { columnsAsked } from '../../core/selection/condition';
import { describeCondition } from '../../core/selection/describe';
import type { Task } from '../../core/task/task';
import { showScalar } from '../../core/table/cell';
import { isText, type Column } from '../../core/table/column';
import { findColumn, namesOf } from '../../core/table/table';
import { behind, type FigureBehind } from '../../core/tally/behind/behind';
import { figureText } from '../../core/tally/answer/figureText';
import { allOf } from '../../core/tally/spec/whereCondition';
import { recordsWithin } from '../../core/tally/input/recordsWithin';
import { kindOf } from '../../core/tally/kind/kinds';
import type { Answer } from '../../core/tally/answer/answer';
import type { Session } from '../session';
import type { ArgsOf, Place, ReplyOf } from '../protocol';
import type { Behind, BehindRecord } from '../replies/behind';
import { cellOf, correctedCells } from './cells';
import { elsewhereOf } from './elsewhere';
import { isLight } from './weight';
import { bitsetInSteps } from '../../core/table/bitset';
import { putInOrder } from '../../core/table/recordOrder';

/** What stands behind a figure, kept while its records are looked through; in the tally's own order. */
export function* opened(session: Session, place: Place): Task<FigureBehind> {
  const key = JSON.stringify(place);
  const known = session.behind.get(key);
  if (known) return known;
  const { answer, input, refused } = yield* session.answer(place.tally, place.scope);
  if (!answer) throw new EngineError('noPlace', refused || 'This tally has no figures.');
  const found = yield* behind(input, answer, place, session.doc.formats);
  yield undefined;
  const order = answer.order ?? input.order;
  const records = yield* putInOrder(order, yield* bitsetInSteps(order.length, found.records));
  const sorted = { ...found, records };
  session.behind.set(key, sorted);
  return sorted;
}

const SCOPE_WORDS = {
  all: 'All records',
  narrowed: 'After narrowing, before setting aside',
  counted: 'All counted records',
} as const;

export function* answerBehind(session: Session, { place }: ArgsOf<'behind'>): Task<Behind> {
  const found = yield* opened(session, place);
  const { answer } = yield* session.answer(place.tally, place.scope);
  const { column } = found;
  const scope = place.scope ?? session.item(place.tally).tally.scope;
  const whole = Array.isArray(place.row) && place.row.length === 0;
  const condition = allOf(found.wheres);
  return {
    figure: figureText(column, found.figure, session.doc.formats, found.deviation),
    unit: column.unit,
    words: column.title,
    where: whole ? SCOPE_WORDS[scope] : found.where,
    records: found.records.length,
    values: found.values,
    blanks: found.blanks,
    unread: found.unread,
    arithmetic: found.arithmetic,
    warning: found.warning,
    rests: found.rests,
    moved: answer?.movedBy !== undefined && isMain(answer, place),
    elsewhere: (yield* elsewhereOf(session, place))?.list ?? null,
    columns: listedColumns(session, place, found).map((c) => ({
      name: c.name,
      right: c.type === 'number',
    })),
    canCheck: found.isSum,
    numeric: typeof found.figure === 'number',
    share: isShare(column),
    // A rule of very many groups is nothing that anyone would narrow to.
    condition: isLight(condition) ? condition : null,
  };
}

const isMain = ({ tables: [main] }: Answer, { table }: Place): boolean =>
  table === 0 || table === main.name;

/** Up to two columns that name a record, then those of the figure's measure. */
function listedColumns(session: Session, place: Place, { of, column }: FigureBehind): Column[] {
  const { columns } = session.table;
  const other = column.measure?.other;
  const own = [of, other === undefined ? null : findColumn(columns, other)].filter(
    (c) => c !== null,
  );
  // Columns that the tally groups by are the same in all these records; those it asks about matter.
  const keys = new Set<string>();
  const asked: Column[] = [];
  kindOf(session.item(place.tally).tally).visit(
    {
      key(key) {
        if (!key.bands && !key.period) keys.add(key.column);
        else asked.push(...columnsNamed([key.column], columns));
        return key;
      },
      condition(condition) {
        asked.push(...columnsNamed(columnsAsked(condition), columns));
        return condition;
      },
    },
    '',
  );
  for (const column of asked) if (!own.includes(column) && own.length < 4) own.push(column);
  const naming = columns.filter((c) => !own.includes(c) && !keys.has(c.id));
  return [...naming.slice(0, 2), ...own];
}

const columnsNamed = (refs: readonly string[], columns: readonly Column[]): Column[] =>
  refs.map((ref) => findColumn(columns, ref)).filter((c) => c !== null && c !== undefined);

/** A stretch of the records behind a figure. */
export function* answerBehindRecords(
  session: Session,
  { place, from, count }: ArgsOf<'behindRecords'>,
): Task<BehindRecord[]> {
  const found = yield* opened(session, place);
  const columns = listedColumns(session, place, found);
  const corrected = correctedCells(session.doc);
  return Array.from(found.records.subarray(from, from + count), (record) => ({
    record,
    cells: columns.map((column) => cellOf(session.doc, column, record, corrected)),
  }));
}

/** The difference from a known total and what would explain it. */
export function* answerCheck(
  session: Session,
  { place, known }: ArgsOf<'check'>,
): Task<ReplyOf<'check'>> {
  const { of, isSum, figure, records, wheres } = yield* opened(session, place);
  if (!isSum || !of || isText(of) || typeof figure !== 'number')
    return { difference: '', explanations: [] };
  const { resolved, doc, table } = session;
  const names = namesOf(table);
  const { difference, explanations } = yield* checkKnownTotal(known, {
    column: of,
    figure,
    records,
    group: yield* recordsWithin(resolved.input, resolved.input.all, wheres),
    ladder: resolved.ladder,
    rungNames: resolved.given.rungs.map((rung) => describeCondition(rung.condition, names)),
    totals: (yield* findTotals(table)).map((t) => t.record),
  });
  return {
    difference: showScalar(of, difference, doc.formats[of.id]),
    explanations: explanations.map(({ records: which, ...rest }) => ({
      ...rest,
      records: [...which],
    })),
  };
}
