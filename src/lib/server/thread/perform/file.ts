import { tableOfChunks } from '$lib/core/table/arrowRead';
import { counted } from '$lib/core/table/format';
import { resultFile } from '$lib/core/write/resultFile';
import { reportResult } from '$lib/engine/reportResult';
import { tableFile } from '$lib/core/write/tableFile';
import { engineOf } from './ledger';
import type { ThreadTask } from '../tasks';

/** What a stored bench hands over, by the same requests as its page. */
export async function file({
  database,
  doc,
  others,
  what,
}: Extract<ThreadTask, { task: 'file' }>): Promise<Uint8Array> {
  const engine = await engineOf(database, doc.reading, others);
  const { token } = engine.now('resolve', { doc });
  if (what.of === 'report') {
    const { form, dialect } = what;
    const { bytes } = await resultFile(
      reportResult(engine, token, doc, form, dialect),
      form,
      dialect,
    );
    return bytes;
  }
  const { records, parts } = engine.now('countedRecords', { token });
  const notes = [`${counted(records, 'record')} counted`];
  const written = await tableFile(
    { name: 'Records', notes, table: tableOfChunks(parts, records), formats: doc.formats },
    what.form,
    what.dialect,
  );
  return written.bytes;
}
