import { parentPort, workerData } from 'node:worker_threads';
import { Trouble } from '$lib/core/errors';
import { CHUNK_RECORDS } from '$lib/core/table/arrowFacts';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import { AskTask, ToAsking, type FromAsking } from './askMessages';
import { sourceOf } from './sourceOf';

/*
 * A thread for one question to one database: what it gives is taken apart here, where it holds up nobody.
 * Each part is asked for.
 */

const send = (message: FromAsking): void => parentPort?.postMessage(message);

const said = (): Promise<ToAsking> =>
  new Promise((go) => parentPort?.once('message', (message) => go(ToAsking.parse(message))));

/** Ends what is under way at the database; nothing where nothing is. */
let stop = (): Promise<void> => Promise.resolve();
/** Whoever asks has left: it does not wait for the part that is under way. */
const left = new Promise<void>((go) => {
  parentPort?.on('message', (message) => {
    if (ToAsking.parse(message) !== 'leave') return;
    void stop().catch(() => undefined);
    go();
  });
});

async function work(): Promise<void> {
  const { connection, asked, grouped } = AskTask.parse(workerData);
  const source = sourceOf(connection);
  if (asked === null) return send({ kind: 'tables', tables: await source.tables() });
  const reading = await source.read(asked, CHUNK_RECORDS, grouped);
  stop = () => reading.stop();
  send({ kind: 'columns', columns: [...reading.columns] });
  let wanted = await said();
  for await (const part of reading.parts) {
    if (wanted === 'leave') break;
    send({ kind: 'part', bytes: encodeChunk(part, 0) });
    wanted = await said();
    if (wanted === 'leave') break;
  }
  stop = () => Promise.resolve();
  send({ kind: 'whole' });
}

work()
  .catch((error: unknown) =>
    send({
      kind: 'fault',
      message: error instanceof Error ? error.message : String(error),
      ours: !(error instanceof Trouble),
    }),
  )
  // What a thread said last can be lost with it: it stays until nobody asks it any more.
  .then(() => left)
  .finally(() => parentPort?.close());
