import { BadArrow } from '$lib/core/errors';
import { readFileSync } from 'node:fs';
import { newBench } from '$lib/core/bench/newBench';
import { checkPlainArrow } from '$lib/core/table/arrowCheck';
import { TableAssembler } from '$lib/core/table/arrowRead';
import type { Table } from '$lib/core/table/table';
import { once, type Accepted } from '../../storage/acceptedIntakes';
import { openDatabase, writing } from '../../storage/database';
import { storeReading } from '../../storage/readings';
import { bringBenches, tablesOfBenches } from '../bringBenches';
import type { ThreadTask } from '../tasks';

/** What was sent must be what its recipe says, before any of it is stored. */
function assemble(
  chunks: readonly Uint8Array[],
  task: Extract<ThreadTask, { task: 'store' }>,
): Table {
  const there = chunks.reduce((n, chunk) => n + checkPlainArrow(chunk), 0);
  // Room is made for as many as there are, not for as many as are said.
  if (there !== task.records)
    throw new BadArrow(`The chunks hold ${there} records, not ${task.records}.`);
  const assembler = new TableAssembler(task.records);
  for (const chunk of chunks) assembler.push(chunk);
  const table = assembler.finish();
  const { columns } = task.recipe;
  const matches =
    table.columns.length === columns.length &&
    table.columns.every(
      (c, k) => c.id === columns[k].id && c.type === columns[k].type && c.name === columns[k].name,
    );
  if (!matches) throw new BadArrow('The columns sent are not those of the recipe.');
  return table;
}

/**
 * Checks uploaded chunks and stores them as a reading, with the benches of a list that was there
 * brought to it: all of it or nothing, and once however often it is sent.
 */
export async function store(task: Extract<ThreadTask, { task: 'store' }>): Promise<Accepted> {
  const chunks = task.chunkFiles.map((file) => new Uint8Array(readFileSync(file)));
  const table = assemble(chunks, task);
  const db = openDatabase(task.database, task.limitBytes);
  try {
    const { listId } = task;
    const bench =
      listId === null
        ? {
            name: 'Bench 1',
            docFor: (reading: number) => JSON.stringify(newBench(table, reading, task.setAside)),
          }
        : null;
    const tables = listId === null ? new Map() : await tablesOfBenches(db, listId);
    return await writing(() =>
      db.transaction().execute((tx) =>
        once(tx, task.intake, async () => {
          const stored = await storeReading(tx, { ...task, bench }, chunks);
          const lost =
            listId === null
              ? 0
              : await bringBenches(tx, listId, stored.reading, table, tables, task.setAside);
          return { ...stored, lost };
        }),
      ),
    );
  } finally {
    await db.destroy();
  }
}
