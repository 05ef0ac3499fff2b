import { EngineError, NoSuchFigure } from '../../core/errors';
import { columnFor } from '../../core/expression/columnFor';
import type { Task } from '../../core/task/task';
import { showCell, showScalar } from '../../core/table/cell';
import { isMissing, isUnread, type Column } from '../../core/table/column';
import { showCount } from '../../core/table/format';
import { recordNumber } from '../../core/table/recordNumber';
import { findColumn } from '../../core/table/table';
import { findFigure } from '../../core/tally/answer/findFigure';
import { sameCells } from '../../core/tally/kinds/comparison/cellCodes';
import {
  measuredIn,
  recordsMoved,
  type MovedBy,
  type MovedRecord,
} from '../../core/tally/kinds/comparison/movedBy';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { MovedRecordRow } from '../replies/moved';

/** Records are named by the columns that match them, or by so many of the first where whole records are matched. */
const NAMING = 3;

/** The records of both readings that moved a figure, side by side, those that moved it most first. */
export function* answerMovedRecords(
  session: Session,
  { place, from, count }: ArgsOf<'movedRecords'>,
): Task<ReplyOf<'movedRecords'>> {
  const { answer, refused } = yield* session.answer(place.tally);
  if (!answer) throw new EngineError('noPlace', refused || 'This tally has no figures.');
  if (!answer.movedBy) throw new NoSuchFigure('This tally compares no readings.');
  const { n } = yield* findFigure(answer, place);
  const moved = yield* answer.movedBy(n);
  const records = yield* recordsMoved(moved);
  const { newer, here, older, match, measure } = moved;
  const named = match.length ? match : newer.columns.slice(0, NAMING).map((c) => c.id);
  const naming = named.flatMap((ref) => findColumn(newer.columns, ref) ?? []);
  const [measured, before] = [measuredIn(newer, measure), measuredIn(older, measure)];
  // Both readings' values with all of their places.
  const decimals = Math.max(measured?.decimals ?? 0, before?.decimals ?? 0);
  const adds = records.some(({ by }) => by !== null);
  const show = (value: number): string =>
    measured
      ? showScalar({ ...measured, decimals }, value, session.doc.formats[measured.id])
      : showCount(value);
  const side = (value: number | null, isIn: boolean, isThere: boolean): string =>
    !isThere ? 'not there' : !isIn ? 'not in it' : value === null ? 'blank' : show(value);
  const name = (record: MovedRecord): string[] =>
    naming.map((column) =>
      record.now >= 0 ? shown(column, record.now) : shown(columnFor(older, column.id), record.then),
    );
  const cells = (record: MovedRecord): string[] => [
    ...(adds ? [record.by === null || record.by === 0 ? show(0) : withSign(show, record.by)] : []),
    ...(measured
      ? [
          side(record.before, record.wasIn, record.then >= 0),
          side(record.after, record.isIn, record.now >= 0),
        ]
      : []),
    ...name(record),
    whatChanged(moved, record, measured?.id),
  ];
  return {
    total: records.length,
    columns: [
      ...(adds ? [{ name: 'Moved by', right: true }] : []),
      ...(measured
        ? [
            { name: `${measured.name}, before`, right: true },
            { name: 'now', right: true },
          ]
        : []),
      ...naming.map((c) => ({ name: c.name, right: c.type === 'number' })),
      { name: 'What changed', right: false },
    ],
    records: records.slice(from, from + count).map((record): MovedRecordRow => ({
      how: record.how,
      number: recordNumber(record.now >= 0 ? record.now : record.then),
      record: here && record.now >= 0 ? record.now : null,
      cells: cells(record),
    })),
  };
}

const withSign = (show: (value: number) => string, value: number): string =>
  `${value < 0 ? '' : '+'}${show(value)}`;

const shown = (column: Column, record: number): string =>
  isMissing(column, record) && !isUnread(column, record) ? 'blank' : showCell(column, record);

/** `Vessel: Fulmar → Stormcock; Boarded: 12 → 21`; the measured column has its own place. */
function whatChanged({ newer, older }: MovedBy, record: MovedRecord, measured?: string): string {
  const { now, then, isIn, wasIn } = record;
  if (now < 0 || then < 0) return '';
  const differs = newer.columns.flatMap((column) => {
    if (column.id === measured || !findColumn(older.columns, column.id)) return [];
    const past = columnFor(older, column.id);
    return sameCells(past, column)(then, now)
      ? []
      : [`${column.name}: ${shown(past, then)} → ${shown(column, now)}`];
  });
  if (differs.length) return differs.join('; ');
  // The same in both readings, but What counts or a group's condition took it in or left it out.
  return isIn === wasIn ? '' : isIn ? 'counted now, not before' : 'counted before, not now';
}
