import { fromParts } from '$lib/core/ask/resultParts';
import { tableOfChunks } from '$lib/core/table/arrowRead';
import { counted } from '$lib/core/table/format';
import { resultFile } from '$lib/core/write/resultFile';
import { tableFile } from '$lib/core/write/tableFile';
import { engineOf } from './ledger';
import type { Task } from '../tasks';

/** What a stored bench hands over, by the same requests as its page. */
export async function file({
  database,
  doc,
  others,
  what,
}: Extract<Task, { task: 'file' }>): Promise<Uint8Array> {
  const engine = await engineOf(database, doc.reading, others);
  const { token } = engine.now('stand', { doc });
  if (what.of === 'report') {
    const tallies = doc.tray.filter(({ apart }) => !apart).map(({ id }) => id);
    return resultFile(
      fromParts(engine.now('asked', { token, tallies }).parts),
      what.form,
      what.dialect,
    );
  }
  const tally = doc.open;
  const { records, parts } = engine.now('countedRecords', { token, tally });
  const notes = [`${counted(records, 'record')} counted`];
  return tableFile(
    { name: 'Records', notes, table: tableOfChunks(parts, records) },
    what.form,
    what.dialect,
  );
}
