import { askOf } from '$lib/core/bench/askOf';
import { stand } from '$lib/core/ask/stand';
import { takingAll } from '$lib/core/prepare/reshape';
import { finish } from '$lib/core/steps/steps';
import { inOrder } from '$lib/core/table/recordOrder';
import { counted } from '$lib/core/table/format';
import { formOfName } from '$lib/core/write/forms';
import { RECORD_FORMS, tableFile, type RecordForm } from '$lib/core/write/tableFile';
import { dialectOf, type DialectOptions } from './dialect';
import { Failed, Misused } from './exit';
import { listName } from './input';
import { listsNamed, type ListOptions } from './listsNamed';
import { write } from './output';
import { readAs, type ReadOptions } from './readAs';
import { readBench } from './readBench';
import { readChecked } from './readChecked';

export interface RecordsOptions extends ReadOptions, ListOptions, DialectOptions {
  readonly data: string;
  readonly ask?: string;
  readonly out?: string;
  readonly format?: string;
}

/** Writes the records that count, in the order that is asked for. @throws Misused, Failed */
export async function records(options: RecordsOptions): Promise<void> {
  const form = formFor(options);
  const dialect = dialectOf(options);
  const { table } = await readChecked(options.data, readAs(options));
  const name = listName(options.data);
  if (options.ask === undefined) {
    const notes = [`${name}: ${counted(table.length, 'record')}`];
    return write(await tableFile({ name, table, notes }, form, dialect), options.out);
  }
  const others = await listsNamed(options.list);
  const on = finish(stand({ name, table, others }, askOf(readBench(options.ask))));
  const [fault] = on.faults;
  if (fault) throw new Failed(`${fault.path}: ${fault.message} ${fault.remedy}`.trim());
  const { base } = on;
  const kept = inOrder(base.order, base.counted);
  const notes = [`${name}: ${counted(kept.length, 'record')} counted`];
  write(
    await tableFile({ name, table: takingAll(base.table, kept), notes }, form, dialect),
    options.out,
  );
}

function formFor({ format, out }: RecordsOptions): RecordForm {
  const wanted = format ?? (out === undefined ? null : formOfName(out)) ?? 'csv';
  const form = RECORD_FORMS.find((one) => one === wanted);
  if (!form)
    throw new Misused(`Records are written as one of ${RECORD_FORMS.join(', ')}, not “${wanted}”.`);
  return form;
}
