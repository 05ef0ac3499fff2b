import { z } from 'zod';
import { arrowTable } from '../core/read/unfold/arrowFile';
import { encoded } from '../core/write/dialect';
import { resultFile } from '../core/write/resultFile';
import { tableFile } from '../core/write/tableFile';
import { ToWriter, type FromWriter } from './writeMessages';

// The page's policy forbids code from text; Zod must not try.
z.config({ jitless: true });

const send = (message: FromWriter): void => postMessage(message);

const told = (share: number): void => send({ kind: 'told', share });

async function write(message: ToWriter): Promise<Uint8Array> {
  if (message.kind === 'result')
    return resultFile(message.result, message.form, message.dialect, told);
  if (message.kind === 'text') return encoded(message.text, message.encoding);
  const { name, notes, arrow, form, dialect } = message;
  return tableFile({ name, notes, table: arrowTable(arrow, Infinity) }, form, dialect, told);
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  write(ToWriter.parse(event.data)).then(
    (bytes) => send({ kind: 'written', bytes }),
    (error: unknown) =>
      send({ kind: 'refused', message: error instanceof Error ? error.message : String(error) }),
  );
});
