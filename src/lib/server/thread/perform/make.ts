import { setGroups } from '$lib/core/bench/edits';
import { makeList, recipeOfMade, type MadeList } from '$lib/core/bench/madeList';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import type { Making } from '$lib/core/bench/origin';
import { finish } from '$lib/core/task/task';
import { chunkCount, encodeChunk } from '$lib/core/table/arrowWrite';
import { sameTable } from '$lib/core/table/sameTable';
import type { Table } from '$lib/core/table/table';
import { findBench } from '../../storage/benches';
import { openDatabase, writing, type Database } from '../../storage/database';
import { findList } from '../../storage/lists';
import { setMade, setOrigin } from '../../storage/madeLists';
import { storeReading } from '../../storage/readings';
import { bringBenches, tablesOfBenches } from '../bringBenches';
import { loadTable } from '../load';
import type { ThreadTask } from '../tasks';

type Make = Extract<ThreadTask, { task: 'make' }>;

/** What became of it: `reading` is null where nothing was to be changed. */
export interface Made {
  readonly listId: number;
  readonly reading: number | null;
  readonly bench: number | null;
}

/**
 * Makes a list of a bench, anew or for the first time: a new reading of it, with its benches brought
 * along, all of it or nothing. Where it comes out as it was, nothing is stored.
 */
export async function make(task: Make): Promise<Made> {
  const db = openDatabase(task.database, task.limitBytes);
  try {
    const made = await madeOf(db, task);
    const { table } = made;
    const { listId } = task;
    if (listId !== null && (await standsAlready(db, listId, table))) {
      await setMade(db, listId, task.madeOf, null);
      return { listId, reading: null, bench: null };
    }
    const chunks = Array.from({ length: chunkCount(table) }, (_, n) => encodeChunk(table, n));
    const given = {
      listId,
      listName: task.name,
      fileName: made.words.slice(0, 500),
      records: table.length,
      recipe: recipeOfMade(table),
      doubts: [],
      bench:
        listId === null
          ? {
              name: 'Bench 1',
              docFor: (id: number) => JSON.stringify(firstBench(table, task.origin.make, id)),
            }
          : null,
    };
    const tables = listId === null ? new Map() : await tablesOfBenches(db, listId);
    return await writing(() =>
      db.transaction().execute(async (tx) => {
        const stored = await storeReading(tx, given, chunks);
        if (listId === null) await setOrigin(tx, stored.listId, task.origin);
        else await bringBenches(tx, listId, stored.reading, table, tables);
        await tx
          .updateTable('lists')
          .set({ made_of: task.madeOf, made_fault: null })
          .where('id', '=', stored.listId)
          .execute();
        return stored;
      }),
    );
  } finally {
    await db.destroy();
  }
}

async function madeOf(db: Database, task: Make): Promise<MadeList> {
  const bench = await findBench(db, task.origin.bench);
  if (!bench) throw new Error(`There is no bench ${task.origin.bench}.`);
  const { table, recipe, listName } = await loadTable(db, bench.doc.reading);
  const others = new Map<string, Table>();
  for (const [name, reading] of Object.entries(task.others))
    others.set(name, (await loadTable(db, reading)).table);
  return finish(makeList({ name: listName, table, recipe, others }, bench.doc, task.origin.make));
}

/** Whether the newest reading of the list holds just this. */
async function standsAlready(db: Database, listId: number, table: Table): Promise<boolean> {
  const reading = (await findList(db, listId))?.current_reading ?? null;
  return reading !== null && sameTable((await loadTable(db, reading)).table, table);
}

/** The first bench of it: a stacked list is grouped by what was stacked. */
function firstBench(table: Table, making: Making, reading: number): Bench {
  const doc = newBench(table, reading);
  const last = making.of === 'records' ? making.reshape.at(-1) : undefined;
  const column = last?.do === 'stack' ? table.columns.find((c) => c.name === last.name) : undefined;
  if (!column) return doc;
  return setGroups(doc, [
    { column: column.id, loose: false, order: { by: 'label', descending: false } },
  ]);
}
