import { z } from 'zod';
import { fromParts } from '../core/ask/resultParts';
import { tableOfChunks } from '../core/table/arrowRead';
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
    return resultFile(fromParts(message.parts), message.form, message.dialect, told);
  if (message.kind === 'text') return encoded(message.text, message.encoding);
  const { name, notes, records, parts, form, dialect } = message;
  return tableFile({ name, notes, table: tableOfChunks(parts, records) }, form, dialect, told);
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  write(ToWriter.parse(event.data)).then(
    (bytes) => send({ kind: 'written', bytes }),
    (error: unknown) =>
      send({ kind: 'refused', message: error instanceof Error ? error.message : String(error) }),
  );
});
