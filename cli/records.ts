import { benchWithIds } from '$lib/core/bench/benchWithIds';
import { recordsOrder } from '$lib/core/bench/recordsOrder';
import { resolve } from '$lib/core/ask/resolve';
import { takingAll } from '$lib/core/prepare/reshape';
import { finish } from '$lib/core/task/task';
import { inOrder } from '$lib/core/table/recordOrder';
import { isText } from '$lib/core/table/column';
import { counted } from '$lib/core/table/format';
import type { Table } from '$lib/core/table/table';
import { formOfName } from '$lib/core/write/forms';
import { RECORD_FORMS, tableFile, type RecordForm } from '$lib/core/write/tableFile';
import { dialectOf, type DialectOptions } from './dialect';
import { Failed, Misused } from './exit';
import { listName } from './input';
import { listsNamed, type ListOptions } from './listsNamed';
import { note, writeFile } from './output';
import { readAs, type ReadOptions } from './readAs';
import { readAsBench, readBench } from './readBench';
import { readWithAdded, type AddOptions } from './addFiles';

export interface RecordsOptions extends ReadOptions, AddOptions, ListOptions, DialectOptions {
  readonly data: string;
  readonly ask?: string;
  readonly out?: string;
  readonly format?: string;
}

/** Writes the records that count, in the order that is asked for. @throws Misused, Failed */
export async function records(options: RecordsOptions): Promise<void> {
  const form = formFor(options);
  const dialect = dialectOf(options);
  const bench = options.ask === undefined ? null : readBench(options.ask);
  const as = readAs(options);
  const { table } = await readWithAdded(options, bench ? readAsBench(as, bench) : as);
  const name = listName(options.data);
  if (!bench) {
    const notes = [`${name}: ${counted(table.length, 'record')}`];
    sayUnread(table, form);
    return writeFile(await tableFile({ name, table, notes }, form, dialect), options.out);
  }
  const others = await listsNamed(options.list, bench.recipes);
  const asked = bench.doc;
  const on = finish(resolve({ name, table, others }, asked));
  const [fault] = on.faults;
  if (fault) throw new Failed(`${fault.path}: ${fault.message} ${fault.remedy}`.trim());
  const { input } = on;
  const doc = benchWithIds(asked, input.table.columns);
  const kept = inOrder(finish(recordsOrder(input, doc)), input.counted);
  const notes = [`${name}: ${counted(kept.length, 'record')} counted`];
  const taken = finish(takingAll(input.table, kept));
  sayUnread(taken, form);
  const { formats } = doc;
  writeFile(await tableFile({ name, table: taken, notes, formats }, form, dialect), options.out);
}

/** Parquet has no place for the text of a cell that is unread. */
function sayUnread({ columns }: Table, form: RecordForm): void {
  const unread = columns.reduce((n, c) => n + (isText(c) ? 0 : c.unread.size), 0);
  if (form === 'parquet' && unread)
    note(
      `${counted(unread, 'unread cell')} ${unread === 1 ? 'is' : 'are'} blank in the Parquet file, which has no place for ${unread === 1 ? 'its' : 'their'} text.`,
    );
}

function formFor({ format, out }: RecordsOptions): RecordForm {
  const wanted = format ?? (out === undefined ? null : formOfName(out)) ?? 'csv';
  const form = RECORD_FORMS.find((one) => one === wanted);
  if (!form)
    throw new Misused(`Records are written as one of ${RECORD_FORMS.join(', ')}, not “${wanted}”.`);
  return form;
}
