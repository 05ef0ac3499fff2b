import { OverLimit } from '../../errors';
import { answerAsk } from '$lib/core/ask/answerAsk';
import type { AskResult } from '$lib/core/ask/result';
import type { Recipe } from '$lib/core/read/recipe';
import { StepCache } from '$lib/core/task/cache';
import type { Task } from '$lib/core/task/task';
import type { Table } from '$lib/core/table/table';
import { wishedAsks, type WishedAsk } from '$lib/core/ask/wishedAsks';
import { resultFile } from '$lib/core/write/resultFile';
import { askingSource } from '../../databases/askingSource';
import { answerLeftThere, leftThere } from '../../databases/leftThere';
import { openDatabase, type Database } from '../../storage/database';
import { loadTable } from '../load';
import { tookTooLong } from '../limits';
import type { ThreadTask } from '../tasks';

/** Tables asked lately, the longest unused dropped first. */
const tables = new StepCache<{ table: Table; recipe: Recipe; listName: string }>(3);

async function tableOf(db: Database, database: string, reading: number) {
  const key = `${database}|${reading}`;
  const known = tables.get(key);
  if (known) return known;
  const loaded = await loadTable(db, reading);
  tables.set(key, loaded);
  return loaded;
}

/** Answers an ask about a stored reading, within a time and a size. */
export async function answer(task: Extract<ThreadTask, { task: 'answer' }>): Promise<Uint8Array> {
  const db = openDatabase(task.database);
  try {
    const { table, recipe, listName } = await tableOf(db, task.database, task.reading);
    const others = await othersOf(db, task);
    const { result } = within(
      answerAsk({ name: listName, table, recipe, others }, task.ask),
      task.limitMs,
    );
    return await writtenWithin(result, task);
  } finally {
    await db.destroy();
  }
}

/** Answers an ask about a list that stays in its database, which groups its records. */
export async function answerLeft(
  task: Extract<ThreadTask, { task: 'answerLeft' }>,
): Promise<Uint8Array> {
  const db = openDatabase(task.database);
  try {
    const others = await othersOf(db, task);
    const { connection, name, asked } = task;
    const source = askingSource(task.script, connection);
    const from = { form: connection.kind, connection: name };
    const list = await leftThere('table' in asked ? asked.table : name, source, asked, from);
    return await writtenWithin(await answerLeftThere(list, task.ask, others), task);
  } finally {
    await db.destroy();
  }
}

/** The other lists of an ask, by their names. */
async function othersOf(
  db: Database,
  { database, others }: { readonly database: string; readonly others: Record<string, number> },
): Promise<Map<string, Table>> {
  const tables = new Map<string, Table>();
  for (const [name, reading] of Object.entries(others))
    tables.set(name, (await tableOf(db, database, reading)).table);
  return tables;
}

/** A result as it was asked for. @throws OverLimit */
async function writtenWithin(
  result: AskResult,
  {
    as,
    dialect,
    limitBytes,
  }: Pick<Extract<ThreadTask, { task: 'answer' }>, 'as' | 'dialect' | 'limitBytes'>,
): Promise<Uint8Array> {
  const { bytes } = await resultFile(result, as, dialect);
  if (bytes.length > limitBytes)
    throw new OverLimit(
      `The answer is over ${Math.round(limitBytes / 1024 / 1024)} MB. Ask for fewer tallies, longer periods, wider bands or only the top of a ranking.`,
    );
  return bytes;
}

/** The asks that a wish about a stored reading may mean, the likeliest first. */
export async function wish(task: Extract<ThreadTask, { task: 'wish' }>): Promise<WishedAsk[]> {
  const db = openDatabase(task.database);
  try {
    const { table, listName } = await tableOf(db, task.database, task.reading);
    return within(wishedAsks(task.wish, table, listName), task.limitMs);
  } finally {
    await db.destroy();
  }
}

/** Runs the work until it is done, or its time is up. @throws OverLimit */
function within<T>(steps: Task<T>, limitMs: number): T {
  const until = performance.now() + limitMs;
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() > until) throw new OverLimit(tookTooLong(limitMs));
  }
}
