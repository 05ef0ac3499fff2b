import { z } from 'zod';
import { fromParts } from '../core/ask/resultParts';
import { tableOfChunks } from '../core/table/arrowRead';
import { resultFile } from '../core/write/resultFile';
import { tableFile } from '../core/write/tableFile';
import type { WrittenFile } from '../core/write/written';
import { ToWriter, type FromWriter } from './writeMessages';

// The page's policy forbids code from text; Zod must not try.
z.config({ jitless: true });

const send = (message: FromWriter): void => postMessage(message);

const told = (share: number): void => send({ kind: 'told', share });

async function write(message: ToWriter): Promise<WrittenFile> {
  if (message.kind === 'result')
    return resultFile(fromParts(message.parts), message.form, message.dialect, told);
  const { name, notes, records, parts, formats, form, dialect } = message;
  const table = tableOfChunks(parts, records);
  return tableFile({ name, notes, table, formats }, form, dialect, told);
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  write(ToWriter.parse(event.data)).then(
    (file) => send({ kind: 'written', ...file }),
    (error: unknown) =>
      send({ kind: 'refused', message: error instanceof Error ? error.message : String(error) }),
  );
});
