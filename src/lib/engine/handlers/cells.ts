import { recordPlace } from '../../core/table/recordNumber';
import type { Bench } from '../../core/bench/document';
import { showCell } from '../../core/table/cell';
import { isMissing, isUnread, type Column } from '../../core/table/column';
import type { LineCell } from '../replies/cell';

/** Texts longer than this are cut on the page; copies and files carry them whole. */
const LONGEST_SHOWN = 500;

export const shorten = (text: string): string =>
  text.length > LONGEST_SHOWN ? `${text.slice(0, LONGEST_SHOWN)}…` : text;

/** Corrected cells of a bench, as `place/column`; stacked records are no longer those of the list. */
export const correctedCells = (doc: Bench): ReadonlySet<string> =>
  new Set(
    doc.reshape.length ? [] : doc.corrections.map((c) => `${recordPlace(c.record)}/${c.column}`),
  );

/** A cell of a record as the page shows it. */
export function cellOf(
  doc: Bench,
  column: Column,
  record: number,
  corrected: ReadonlySet<string>,
): LineCell {
  const shown = (): string => shorten(showCell(column, record, doc.formats[column.id]));
  if (corrected.has(`${record}/${column.id}`)) return { text: shown(), state: 'corrected' };
  if (isUnread(column, record)) return { text: shorten(showCell(column, record)), state: 'unread' };
  if (isMissing(column, record)) return { text: 'blank', state: 'blank' };
  return { text: shown(), state: 'read' };
}
