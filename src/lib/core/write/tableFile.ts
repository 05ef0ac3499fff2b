import { isText, isUnread, type Column, type ScalarColumn } from '../table/column';
import { fullCell, showCell } from '../table/cell';
import type { Table } from '../table/table';
import { finish } from '../task/task';
import { encoded, USUAL_DIALECT, type Dialect } from './dialect';
import { recordsDelimited } from './recordsDelimited';
import type { OutForm } from './forms';
import { recordsSheet } from './sheets';
import { orderRead } from '../table/recordOrder';
import type { Formats } from '../tally/spec/formats';
import { written, writtenText, type WrittenFile } from './written';

/** Records of a list on their way out. */
export interface Records {
  readonly name: string;
  readonly table: Table;
  /** What stands above them where the form has a place for it. */
  readonly notes: readonly string[];
  /** How their numbers are shown, where values are written as shown. */
  readonly formats?: Formats;
}

/** Forms that records are written in. */
export const RECORD_FORMS = [
  'csv',
  'json',
  'xlsx',
  'ods',
  'arrow',
  'parquet',
] as const satisfies readonly OutForm[];
export type RecordForm = (typeof RECORD_FORMS)[number];

/**
 * The records of a list in an open format, each value in full. What writes a workbook, Arrow or Parquet is
 * loaded when it is used.
 * @param dialect how delimited text is written
 * @param told is told now and then what share is written, where that takes a while
 * @throws WriteRefused where the format cannot hold them
 */
export async function tableFile(
  { name, table, notes, formats = {} }: Records,
  form: RecordForm,
  dialect: Dialect = USUAL_DIALECT,
  told: (share: number) => void = () => undefined,
): Promise<WrittenFile> {
  switch (form) {
    case 'csv': {
      const shown = (column: Column, record: number): string =>
        showCell(column, record, formats[column.id]);
      const cell = dialect.values === 'shown' ? shown : fullCell;
      const { text, guarded } = finish(recordsDelimited(table, all(table), cell, dialect));
      return { bytes: encoded(text, dialect.encoding), guarded };
    }
    case 'json':
      return writtenText(recordsAsJson(table));
    case 'xlsx':
    case 'ods': {
      const { workbookFile } = await import('./workbookFile');
      return written(workbookFile([recordsSheet(name, table, notes, formats)], form, told));
    }
    case 'arrow': {
      const { encodeFile } = await import('../table/arrowWrite');
      return written(encodeFile(table));
    }
    case 'parquet': {
      const { parquetFile } = await import('./parquetFile');
      return written(await parquetFile(table));
    }
  }
}

const all = ({ length }: Table): Int32Array => orderRead(length);

/** An array of objects; blanks are null, an unread cell is its text. */
function recordsAsJson({ columns, length }: Table): string {
  const records = Array.from({ length }, (_, i) =>
    JSON.stringify(Object.fromEntries(columns.map((column) => [column.name, jsonOf(column, i)]))),
  );
  return `[\n${records.join(',\n')}\n]\n`;
}

function jsonOf(column: Column, i: number): string | number | boolean | null {
  const text = fullCell(column, i);
  if (isText(column) || text === '' || isUnread(column, i)) return text === '' ? null : text;
  return plainOf(column, i) ?? text;
}

function plainOf({ type, values }: ScalarColumn, i: number): number | boolean | null {
  return type === 'number' ? values[i] : type === 'yesno' ? values[i] === 1 : null;
}
