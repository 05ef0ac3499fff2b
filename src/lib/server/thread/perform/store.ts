import { BadArrow } from '$lib/core/errors';
import { readFileSync } from 'node:fs';
import { newBench } from '$lib/core/bench/newBench';
import { checkPlainArrow } from '$lib/core/table/arrowCheck';
import { recordsIn, TableAssembler, tableOfChunks } from '$lib/core/table/arrowRead';
import { whyApart } from '$lib/core/table/append';
import type { Table } from '$lib/core/table/table';
import { once, type Accepted } from '../../storage/acceptedIntakes';
import { AddRefused } from '../../errors';
import { openDatabase, writing, type Database } from '../../storage/database';
import { findList } from '../../storage/lists';
import { followParts, type KeptParts } from '../../storage/readingParts';
import { findChunk, findReading, storeReading, type ReadingFacts } from '../../storage/readings';
import { bringBenches, tablesOfBenches } from '../bringBenches';
import type { ThreadTask } from '../tasks';

type StoreTask = Extract<ThreadTask, { task: 'store' }>;

/** What was sent must be what its recipe says, before any of it is stored. */
function assemble(chunks: readonly Uint8Array[], task: StoreTask): Table {
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

/** The list's reading that records are added to, and all of its chunks. */
interface AddedTo {
  readonly facts: ReadingFacts;
  readonly chunks: readonly Uint8Array[];
}

/** @throws AddRefused where the list has moved on since the file was compared with it */
async function addedTo(db: Database, { listId, addTo }: StoreTask): Promise<AddedTo | null> {
  if (addTo === null || listId === null) return null;
  const [facts, list] = [await findReading(db, addTo), await findList(db, listId)];
  if (!facts || facts.listId !== listId || list?.current_reading !== addTo)
    throw new AddRefused(
      'The list was refreshed meanwhile. Choose the file again, so that it is compared with the records that are there now.',
    );
  const chunks: Uint8Array[] = [];
  for (let n = 0; n < facts.chunks; n++) {
    const data = await findChunk(db, addTo, n);
    if (data) chunks.push(data);
  }
  return { facts, chunks };
}

/** The list with the records behind its own. @throws AddRefused where its columns are others */
function joined({ facts, chunks }: AddedTo, sent: readonly Uint8Array[], added: Table): Table {
  const before = tableOfChunks(chunks.slice(0, 1), recordsIn(chunks[0])).columns;
  const why = whyApart(before, added.columns);
  if (why)
    throw new AddRefused(
      `${why} Refresh the list with all of its files in place of adding this one.`,
    );
  return tableOfChunks([...chunks, ...sent], facts.records + added.length);
}

/**
 * Checks uploaded chunks and stores them as a reading, with the benches of a list that was there
 * brought to it: all of it or nothing, and once however often it is sent.
 */
export async function store(task: StoreTask): Promise<Accepted> {
  const chunks = task.chunkFiles.map((file) => new Uint8Array(readFileSync(file)));
  const sent = assemble(chunks, task);
  const db = openDatabase(task.database, task.limitBytes);
  try {
    const { listId } = task;
    const to = await addedTo(db, task);
    const table = to ? joined(to, chunks, sent) : sent;
    const kept: KeptParts | undefined = to ? { of: to.facts } : undefined;
    const setAside = task.setAside.map((number) => number + (to?.facts.records ?? 0));
    const bench =
      listId === null
        ? {
            name: 'Bench 1',
            docFor: (reading: number) =>
              JSON.stringify(newBench(table, reading, task.setAside, task.stated)),
          }
        : null;
    const tables = listId === null ? new Map() : await tablesOfBenches(db, listId);
    return await writing(() =>
      db.transaction().execute((tx) =>
        once(tx, task.intake, async () => {
          const stored = await storeReading(tx, { ...task, ...(kept && { kept }), bench }, chunks);
          const follow = kept ? { reading: kept.of.id, follow: followParts(kept) } : null;
          const lost =
            listId === null
              ? 0
              : await bringBenches(tx, listId, stored.reading, table, tables, setAside, follow);
          return { ...stored, lost };
        }),
      ),
    );
  } finally {
    await db.destroy();
  }
}
