import { parentPort, workerData } from 'node:worker_threads';
import { openSqlite } from './sqlite';
import { SqliteTask, type FromSqlite } from './sqliteMessages';

/*
 * A thread for one question to one SQLite file: its statements run to their end without a pause, which
 * would hold up the server. What it writes is asked for piece by piece.
 */

const send = (message: FromSqlite): void => parentPort?.postMessage(message);

/** Whoever takes the pieces is asked for the next one. */
const wanted = (): Promise<unknown> => new Promise((go) => parentPort?.once('message', go));

async function work(): Promise<void> {
  const { file, asked } = SqliteTask.parse(workerData);
  const database = openSqlite(file);
  try {
    if (asked === null) return send({ kind: 'tables', tables: [...database.tables] });
    const { columns, text } = database.read(asked);
    send({ kind: 'columns', columns: [...columns] });
    for (const bytes of text) {
      await wanted();
      send({ kind: 'text', bytes });
    }
    send({ kind: 'whole' });
  } finally {
    database.close();
  }
}

work().catch((error: unknown) =>
  send({ kind: 'fault', message: error instanceof Error ? error.message : String(error) }),
);
