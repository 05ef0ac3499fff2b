import { z } from 'zod';
import { questionOf } from '$lib/core/bench/askOf';
import type { Making, Origin } from '$lib/core/bench/origin';
import type { Application } from '../application';
import { codeOf } from '$lib/core/errors';
import { log } from '../log';
import { findBench, type Bench } from '../storage/benches';
import { databasePath } from '../storage/database';
import { findList } from '../storage/lists';
import { findOrigin, setMade } from '../storage/madeLists';
import { readingsOfLists } from '../storage/otherReadings';

/** What making lists needs of the application. */
interface Held extends Pick<Application, 'db'> {
  readonly config: Pick<Application['config'], 'dataFolder' | 'storageBytes'>;
  readonly thread: Pick<Application['thread'], 'perform'>;
}

/** One after another: lists that follow one another are never made at the same time. */
let last: Promise<unknown> = Promise.resolve();

/**
 * Brings a list that follows another up to date, those it follows first. A list that cannot be made
 * anew stays as it was, with the reason (see `findOrigin`). Lists read from files and frozen ones
 * are left alone.
 */
export function freshen(app: Held, listId: number): Promise<void> {
  const next = last.then(() => follow(app, listId, []));
  last = next.catch(() => undefined);
  return next;
}

/** The same for the other lists that a question names. */
export async function freshenNamed(
  app: Held,
  lists: Readonly<Record<string, { readonly list?: number | undefined }>>,
): Promise<void> {
  for (const { list } of Object.values(lists)) if (list !== undefined) await freshen(app, list);
}

/** A bench with its list, and the lists that it looks at, brought up to date. */
export async function freshBench(app: Held, id: number): Promise<Bench | undefined> {
  const bench = await findBench(app.db, id);
  if (!bench) return undefined;
  for (const source of sourcesOf(bench)) await freshen(app, source);
  return findBench(app.db, id);
}

async function follow(app: Held, listId: number, path: readonly number[]): Promise<void> {
  const { db } = app;
  const found = await findOrigin(db, listId);
  if (!found || found.origin.frozen !== null) return;
  const { origin, madeOf, fault } = found;
  if (path.includes(listId)) return;
  const bench = await findBench(db, origin.bench);
  if (!bench) {
    if (fault === null) await setMade(db, listId, '', GONE);
    return;
  }
  const sources = sourcesOf(bench);
  for (const source of sources) await follow(app, source, [...path, listId]);
  const circle = await circleFrom(app, listId);
  // The bench may have been brought to a newer reading just now.
  const now = circle ? null : await findBench(db, origin.bench);
  if (circle) {
    if (fault !== circle) await setMade(db, listId, '', circle);
    return;
  }
  if (!now) return;
  const others = await readingsOfLists(db, now.doc.lists);
  const key = keyOf(now, origin.make, others);
  if (key === madeOf) return;
  try {
    await app.thread.perform({
      task: 'make',
      database: databasePath(app.config.dataFolder),
      limitBytes: app.config.storageBytes,
      listId,
      name: '',
      origin,
      others,
      madeOf: key,
    });
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    // What does not fit is tried again when something changed; what failed here, at the next look.
    if (codeOf(error) === 'listRefused') await setMade(db, listId, key, why);
    else {
      log().error(error, 'a list that follows another could not be made anew');
      await setMade(db, listId, '', `${why} It stays as it was.`).catch(() => undefined);
    }
  }
}

const GONE = 'The bench that it follows is gone. It stays as it was.';

/** The lists that a bench looks at: its own, and those it takes columns or values from. */
const sourcesOf = (bench: Bench): number[] => [
  bench.listId,
  ...Object.values(bench.doc.lists).flatMap(({ list }) => (list === undefined ? [] : [list])),
];

const keyOf = (bench: Bench, making: Making, others: Readonly<Record<string, number>>): string =>
  JSON.stringify([bench.doc.reading, questionOf(bench.doc), others, making]);

/** A circle of lists that each follow the next, in words; null where there is none. */
async function circleFrom({ db }: Held, listId: number): Promise<string | null> {
  const seen = new Set<number>();
  const nameOf = async (id: number): Promise<string> => `“${(await findList(db, id))?.name ?? ''}”`;
  const walk = async (at: number, way: readonly string[]): Promise<readonly string[] | null> => {
    const made = await findOrigin(db, at);
    if (!made || made.origin.frozen !== null) return null;
    const bench = await findBench(db, made.origin.bench);
    if (!bench) return null;
    for (const source of sourcesOf(bench)) {
      const looks = source === bench.listId ? '' : `, which looks at ${await nameOf(source)}`;
      const step = `${await nameOf(at)} follows ${await nameOf(bench.listId)}, ${bench.name}${looks}`;
      if (source === listId) return [...way, step];
      if (seen.has(source)) continue;
      seen.add(source);
      const found = await walk(source, [...way, step]);
      if (found) return found;
    }
    return null;
  };
  const way = await walk(listId, []);
  return (
    way &&
    `It follows itself: ${way.join('; ')}. It stays as it was until one of them is taken out of the circle.`
  );
}

const Made = z.object({ listId: z.int(), reading: z.int(), bench: z.int() });

/** Makes a list of a bench and puts it on the shelf. @throws TaskFailed why it cannot be made */
export async function makeOf(
  app: Held,
  name: string,
  origin: Origin,
): Promise<z.infer<typeof Made> | null> {
  const bench = await findBench(app.db, origin.bench);
  if (!bench) return null;
  for (const source of sourcesOf(bench)) await freshen(app, source);
  const now = await findBench(app.db, origin.bench);
  if (!now) return null;
  const others = await readingsOfLists(app.db, now.doc.lists);
  return Made.parse(
    await app.thread.perform({
      task: 'make',
      database: databasePath(app.config.dataFolder),
      limitBytes: app.config.storageBytes,
      listId: null,
      name,
      origin,
      others,
      madeOf: keyOf(now, origin.make, others),
    }),
  );
}
