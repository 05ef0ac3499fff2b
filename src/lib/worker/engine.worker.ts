import { z } from 'zod';
import { codeOf, Trouble } from '../core/errors';
import type { ListSource } from '../core/ask/question';
import type { Task } from '../core/task/task';
import { partsHandedOver } from '../core/table/bytes';
import { Engine } from '../engine/engine';
import { SHOWN } from '../engine/handlers/shown';
import type { ArgsOf, Do, ReplyOf } from '../engine/protocol';
import { Requests } from '../engine/requests';
import { Scheduler } from '../engine/scheduler';
import { fetched, fetchReading } from './fetchReading';
import type { FromEngine } from './fromEngine';
import { OtherLists } from './otherLists';
import { ToEngine } from './toEngine';
import { pause } from './pause';

// The page's policy forbids code from text; Zod must not try.
z.config({ jitless: true });

const send = (message: FromEngine, handedOver: Transferable[] = []): void =>
  postMessage(message, { transfer: handedOver });

const scheduler = new Scheduler(
  [
    'resolve',
    'ledger',
    'drawn',
    'lines',
    'answer',
    'rows',
    'behind',
    'behindRecords',
    'movedRecords',
    'elsewhere',
    'try',
    'values',
    'facts',
    'footing',
    'heads',
    'shape',
    'questions',
    'sketch',
    'fact',
  ],
  pause,
  () => performance.now(),
  ({ share }) => send({ kind: 'working', share }),
);
let engine: Engine | null = null;
let others: OtherLists | null = null;

/** How long the first figures are left alone. */
const QUIET_MS = 2000;

const Readings = z.array(z.object({ id: z.int(), current: z.boolean() }));

/** The reading that another list is taken from: the one named, or its current one. */
async function readingOf({ list, reading }: ListSource, base: string): Promise<number | null> {
  if (reading !== undefined) return reading;
  if (list === undefined) return null;
  const all = Readings.parse(await (await fetched(`${base}/api/lists/${list}/readings`)).json());
  return all.find((r) => r.current)?.id ?? null;
}

async function open(reading: number, base: string): Promise<void> {
  const { facts, table } = await fetchReading(reading, base, (share) =>
    send({ kind: 'progress', share }),
  );
  engine = new Engine(
    { name: facts.listName, table, recipe: facts.recipe, others: new Map() },
    SHOWN,
  );
  others = new OtherLists(async (source) => {
    const from = await readingOf(source, base);
    return from === null ? null : (await fetchReading(from, base)).table;
  });
  send({ kind: 'opened', records: table.length });
  // In a quiet moment, so that it is there when the server is not.
  const opened = engine;
  setTimeout(() => void learnMore(opened).catch(() => undefined), QUIET_MS);
}

/** What a page asks for only by an act comes when it is first asked for: the first ledger stands sooner. */
async function learnMore(engine: Engine): Promise<void> {
  const later = await import('../engine/handlers/later').catch(() => {
    throw new Trouble(
      'notOpen',
      'A part of the program could not be fetched. See that the server runs, and try again.',
    );
  });
  engine.learn(later.LATER);
}

/** Checks what a request carries, and answers it in its turn, however long what it needs is fetched. */
async function answer<K extends Do>(kind: K, raw: unknown, lane: string): Promise<unknown> {
  const schema: z.ZodType<ArgsOf<K>> = Requests[kind];
  const args = schema.parse(raw);
  const opened = engine;
  if (!opened) throw new Trouble('notOpen', 'The list is still being opened.');
  const named = kind === 'resolve' ? Requests.resolve.parse(raw).doc.lists : null;
  return scheduler.postWhen(lane, prepared(opened, kind, args, named));
}

/** A request's work, once its lists and the part that answers it are at hand. */
async function prepared<K extends Do>(
  engine: Engine,
  kind: K,
  args: ArgsOf<K>,
  named: Readonly<Record<string, ListSource>> | null,
): Promise<Task<ReplyOf<K>>> {
  const tables = named && others && (await others.of(named));
  if (!engine.answers(kind)) await learnMore(engine);
  return (function* () {
    // Not before its turn: lists of an older session may come after those of a newer one.
    if (tables) engine.setOthers(tables);
    return yield* engine.answer(kind, args);
  })();
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  const message = ToEngine.parse(event.data);
  if (message.kind === 'open') {
    open(message.reading, message.base).catch((error: unknown) =>
      send({ kind: 'failed', message: error instanceof Error ? error.message : String(error) }),
    );
    return;
  }
  if (message.kind === 'stop') {
    scheduler.stop();
    return;
  }
  const { id, lane, ask, args } = message;
  answer(ask, args, lane).then(
    (value) => send({ kind: 'answer', id, ok: true, value }, partsHandedOver(value)),
    (error: unknown) => {
      const text = error instanceof Error ? error.message : String(error);
      send({ kind: 'refusal', id, ok: false, code: codeOf(error), message: text });
    },
  );
});
