import { readFileSync } from 'node:fs';
import { parentPort } from 'node:worker_threads';
import { moveBench } from '$lib/core/bench/move';
import { newBench } from '$lib/core/bench/newBench';
import type { BenchDocument } from '$lib/core/bench/document';
import { HEAD_BYTES } from '$lib/core/read/decode';
import { DelimitedReader, proposeRecipe } from '$lib/core/read/delimited';
import { examine } from '$lib/core/read/examine';
import type { Recipe } from '$lib/core/read/recipe';
import { answerAsk } from '$lib/core/ask/answer';
import { BadAsk } from '$lib/core/ask/badAsk';
import { finish, type Steps } from '$lib/core/steps/steps';
import { resultsAsDelimited } from '$lib/core/write/resultFile';
import { StepCache } from '$lib/engine/cache';
import { BadArrow } from '$lib/core/table/arrowFacts';
import { TableAssembler } from '$lib/core/table/arrowRead';
import { chunkCount, encodeChunk } from '$lib/core/table/arrowWrite';
import type { Table } from '$lib/core/table/table';
import { Engine } from '$lib/engine/engine';
import { benchesOf, saveBench } from '../storage/benches';
import { openDatabase, type Database } from '../storage/database';
import {
  findChunk,
  findReading,
  setCurrentReading,
  storeReading,
  type StoredReading,
} from '../storage/readings';
import { Task, type TaskResult } from './tasks';

/** The table of a stored reading. */
async function loadTable(
  db: Database,
  reading: number,
): Promise<{ table: Table; recipe: Recipe; listName: string }> {
  const facts = await findReading(db, reading);
  if (!facts) throw new Error(`There is no reading ${reading}.`);
  const assembler = new TableAssembler(facts.records);
  for (let n = 0; n < facts.chunks; n++) {
    const data = await findChunk(db, reading, n);
    if (data) assembler.push(data);
  }
  return { table: assembler.finish(), recipe: facts.recipe, listName: facts.listName };
}

/** What was sent must be what its recipe says, before any of it is stored. */
function assemble(chunks: readonly Uint8Array[], task: Extract<Task, { task: 'store' }>): Table {
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

type Kept = StoredReading & { readonly lost: number };

async function store(task: Extract<Task, { task: 'store' }>): Promise<Kept> {
  const chunks = task.chunkFiles.map((file) => new Uint8Array(readFileSync(file)));
  const table = assemble(chunks, task);
  const db = openDatabase(task.database, task.limitBytes);
  try {
    const bench =
      task.listId === null
        ? {
            name: 'Bench 1',
            docFor: (reading: number) => JSON.stringify(newBench(table, reading, task.setAside)),
          }
        : null;
    const stored = await storeReading(db, { ...task, bench }, chunks);
    const lost =
      task.listId === null ? 0 : await bringBenches(db, stored.listId, stored.reading, table);
    return { ...stored, lost };
  } finally {
    await db.destroy();
  }
}

/** Makes a reading current, and brings every bench of the list to it. @returns records not found again */
async function move({
  database,
  limitBytes,
  listId,
  reading,
}: Extract<Task, { task: 'move' }>): Promise<{ lost: number }> {
  const db = openDatabase(database, limitBytes);
  try {
    const { table } = await loadTable(db, reading);
    await setCurrentReading(db, listId, reading);
    return { lost: await bringBenches(db, listId, reading, table) };
  } finally {
    await db.destroy();
  }
}

async function bringBenches(
  db: Database,
  listId: number,
  reading: number,
  to: Table,
): Promise<number> {
  const tables = new Map<number, Table>();
  let lost = 0;
  for (const bench of await benchesOf(db, listId)) {
    if (bench.doc.reading === reading) continue;
    const from = tables.get(bench.doc.reading) ?? (await loadTable(db, bench.doc.reading)).table;
    tables.set(bench.doc.reading, from);
    const moved = moveBench(bench.doc, from, to, reading);
    lost += moved.lost;
    await saveBench(db, bench.id, bench.revision, moved.doc);
  }
  return lost;
}

async function demo(task: Extract<Task, { task: 'demo' }>): Promise<StoredReading> {
  const bytes = new Uint8Array(readFileSync(task.file));
  const recipe = proposeRecipe(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES);
  const reader = new DelimitedReader(recipe);
  reader.push(bytes, true);
  const reading = reader.finish();
  const { doubts, totals } = examine(recipe, reading);
  const { table } = reading;
  const docFor = (id: number): string => {
    const doc = newBench(
      table,
      id,
      totals.map((t) => t.record),
    );
    const keys = task.groups.filter((column) => table.columns.some((c) => c.id === column));
    if (keys.length) arrangeDemo(doc, keys);
    return JSON.stringify(doc);
  };
  const db = openDatabase(task.database, task.limitBytes);
  try {
    return await storeReading(
      db,
      {
        listId: null,
        listName: task.listName,
        fileName: task.file.split(/[\\/]/).pop() ?? '',
        records: table.length,
        recipe,
        doubts,
        bench: { name: 'Bench 1', docFor },
      },
      Array.from({ length: chunkCount(table) }, (_, n) => encodeChunk(table, n)),
    );
  } finally {
    await db.destroy();
  }
}

/** The demo's first bench is grouped, so that a newcomer sees a ledger at once. */
function arrangeDemo(doc: BenchDocument, keys: readonly string[]): void {
  const { spec, view } = doc.tallies[0];
  spec.groups = keys.map((column) => ({
    column,
    loose: true,
    order: { by: 'label', descending: false },
  }));
  spec.measures = spec.measures.map((m) =>
    m.column === 'delay' ? { kind: 'mean', column: 'delay' } : m,
  );
  view.showDown = keys.length;
}

/** The table asked last stays in memory for the next question. */
let held: { key: string; engine: Engine } | null = null;

async function ask(task: Extract<Task, { task: 'ask' }>): Promise<unknown[]> {
  const key = `${task.database}|${task.reading}`;
  if (held?.key !== key) {
    const db = openDatabase(task.database);
    try {
      const { table, recipe, listName } = await loadTable(db, task.reading);
      held = { key, engine: new Engine(table, recipe, listName) };
    } finally {
      await db.destroy();
    }
  }
  const { engine } = held;
  return [{ do: 'reckon' as const, doc: task.doc }, ...task.requests].map((request) =>
    finish(engine.answer(request)),
  );
}

/** Tables asked lately, the longest unused dropped first. */
const tables = new StepCache<{ table: Table; listName: string }>(3);

async function tableOf(db: Database, database: string, reading: number) {
  const key = `${database}|${reading}`;
  const known = tables.get(key);
  if (known) return known;
  const { table, listName } = await loadTable(db, reading);
  const loaded = { table, listName };
  tables.set(key, loaded);
  return loaded;
}

/** An answer that took longer, or came out larger, than the server allows. */
class OverLimit extends Error {
  override name = 'OverLimit';
}

async function answer(task: Extract<Task, { task: 'answer' }>): Promise<string> {
  const db = openDatabase(task.database);
  try {
    const { table, listName } = await tableOf(db, task.database, task.reading);
    const others = new Map<string, Table>();
    for (const [name, reading] of Object.entries(task.others))
      others.set(name, (await tableOf(db, task.database, reading)).table);
    const { result } = within(answerAsk({ name: listName, table, others }, task.ask), task.limitMs);
    const text =
      task.as === 'json' ? JSON.stringify(result) : resultsAsDelimited(result.tallies).text;
    if (Buffer.byteLength(text) > task.limitBytes)
      throw new OverLimit(
        `The answer is over ${Math.round(task.limitBytes / 1024 / 1024)} MB. Ask for fewer tallies, longer periods, wider bands or only the top of a ranking.`,
      );
    return text;
  } finally {
    await db.destroy();
  }
}

/** Runs the work until it is done, or its time is up. @throws OverLimit */
function within<T>(steps: Steps<T>, limitMs: number): T {
  const until = performance.now() + limitMs;
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() > until)
      throw new OverLimit(
        `The ask took longer than ${Math.round(limitMs / 1000)} s and was stopped. Ask for less at a time, or set TALLY_LOFT_ASK_SECONDS.`,
      );
  }
}

async function perform(task: Task): Promise<unknown> {
  switch (task.task) {
    case 'store':
      return store(task);
    case 'demo':
      return demo(task);
    case 'move':
      return move(task);
    case 'ask':
      return ask(task);
    case 'answer':
      return answer(task);
  }
}

parentPort?.on('message', async (message: { id: number; task: unknown }) => {
  let result: TaskResult;
  try {
    result = { ok: true, value: await perform(Task.parse(message.task)) };
  } catch (error) {
    const { name, message: text } = error instanceof Error ? error : new Error(String(error));
    result = {
      ok: false,
      name,
      message: text,
      ...(error instanceof BadAsk && { faults: [...error.faults] }),
    };
  }
  parentPort?.postMessage({ id: message.id, result });
});
