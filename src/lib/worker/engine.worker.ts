import { z } from 'zod';
import { Recipe } from '../core/read/recipe';
import { TableAssembler } from '../core/table/arrowRead';
import { Engine } from '../engine/engine';
import { Scheduler } from '../engine/scheduler';
import type { FromEngine } from './fromEngine';
import { ToEngine } from './toEngine';
import { pause } from './pause';

// The page's policy forbids code from text; Zod must not try.
z.config({ jitless: true });

const scheduler = new Scheduler(
  ['reckon', 'drawn', 'lines', 'behind', 'behindRecords', 'try', 'values', 'facts', 'heads'],
  pause,
  () => performance.now(),
);
let engine: Engine | null = null;

const send = (message: FromEngine): void => postMessage(message);

const Facts = z.object({ listName: z.string(), records: z.int(), chunks: z.int(), recipe: Recipe });

async function fetched(url: string): Promise<Response> {
  const response = await fetch(url);
  if (!response.ok)
    throw new Error(`The list could not be fetched (${response.status}). Reload the page.`);
  return response;
}

async function open(reading: number, base: string): Promise<void> {
  const facts = Facts.parse(await (await fetched(`${base}/api/readings/${reading}`)).json());
  const assembler = new TableAssembler(facts.records);
  for (let n = 0; n < facts.chunks; n++) {
    const bytes = await (
      await fetched(`${base}/api/readings/${reading}/chunks/${n}`)
    ).arrayBuffer();
    assembler.push(new Uint8Array(bytes));
    send({ kind: 'progress', share: (n + 1) / facts.chunks });
  }
  const table = assembler.finish();
  engine = new Engine(table, facts.recipe, facts.listName);
  send({
    kind: 'opened',
    records: table.length,
    columns: table.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })),
  });
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  const message = ToEngine.parse(event.data);
  if (message.kind === 'open') {
    open(message.reading, message.base).catch((error: unknown) =>
      send({ kind: 'failed', message: error instanceof Error ? error.message : String(error) }),
    );
    return;
  }
  const { id, lane, request } = message;
  if (!engine)
    return send({
      kind: 'refusal',
      id,
      ok: false,
      name: 'NotOpen',
      message: 'The list is still being opened.',
    });
  scheduler.post(lane, engine.answer(request)).then(
    (value) => send({ kind: 'answer', id, ok: true, value }),
    (error: unknown) => {
      const { name, message: text } = error instanceof Error ? error : new Error(String(error));
      send({ kind: 'refusal', id, ok: false, name, message: text });
    },
  );
});
