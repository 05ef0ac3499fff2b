import { existsSync } from 'node:fs';
import path from 'node:path';
import type { DatabaseForm } from '$lib/core/read/decode/source';
import { readConfig, type Config } from './config';
import { readConnections, type Connection } from './databases/connections';
import { DatabaseReads } from './databases/reads';
import { BadConfig } from './errors';
import { Incoming } from './intake/incoming';
import { log, setLogLevel } from './log';
import { PassphraseGate } from './security/passphrase';
import { databasePath, migrate, openDatabase, type Database } from './storage/database';
import { checkDatabase } from './storage/checkDatabase';
import { keepPrivate, makeFirst, makeFolder } from './storage/dataFolder';
import { lockFolder, type FolderLock } from './storage/folderLock';
import { WorkThread } from './thread/client';
import { ReadingPool } from './thread/pool';

/** Everything the server holds while it runs. */
export interface Application {
  readonly config: Config;
  readonly db: Database;
  /** Work that writes, one task after another. */
  readonly thread: WorkThread;
  /** Work that only reads. */
  readonly pool: ReadingPool;
  readonly incoming: Incoming;
  readonly gate: PassphraseGate | null;
  readonly databases: Databases;
  readonly lock: FolderLock;
}

export interface KeptDatabase {
  readonly name: string;
  readonly kind: DatabaseForm;
}

/** The databases that are kept under names. */
export interface Databases {
  readonly reads: DatabaseReads;
  /** Their names and kinds; nothing of how they are reached. @throws BadConfig */
  names(): KeptDatabase[];
  /** The same for a page, with what is wrong with the file of connections. */
  shown(): { databases: KeptDatabase[]; fault: string };
  /** null where there is none of the name. @throws BadConfig */
  find(name: string): Connection | null;
}

/** The file of connections is read at each question, so that a change holds at once. */
function databasesOf({ connectionsFile, uploadBytes }: Config, script: string): Databases {
  const names = (): KeptDatabase[] =>
    [...readConnections(connectionsFile)].map(([name, { kind }]) => ({ name, kind }));
  return {
    reads: new DatabaseReads(script, uploadBytes),
    names,
    shown() {
      try {
        return { databases: names(), fault: '' };
      } catch (error) {
        if (!(error instanceof BadConfig)) throw error;
        return { databases: [], fault: error.message };
      }
    },
    find: (name) => readConnections(connectionsFile).get(name) ?? null,
  };
}

let running: Application | null = null;

/** The application; it is started before the first request. */
export function application(): Application {
  if (!running) throw new Error('The application has not been started.');
  return running;
}

/** Files of the demo: their list's name, and what its first bench groups by. */
const DEMO: readonly (readonly [file: string, name: string, groups: readonly string[]])[] = [
  ['delay-bands.csv', 'Delay bands', []],
  ['statement.csv', 'Quarterly statement 2025', ['section']],
  ['monthly-fares.csv', 'Monthly fares', ['route']],
  ['kiosks.csv', 'Kiosk sales 2025', []],
  ['vessels.csv', 'Vessels', []],
  ['sailings.csv', 'Sailings 2023–26', ['route', 'vessel']],
];

/** Opens the data, brings it up to date, and on the first run loads the demo. */
export async function start(
  env: Readonly<Record<string, string | undefined>>,
): Promise<Application> {
  if (running) return running;
  const config = readConfig(env);
  setLogLevel(config.logLevel);
  const file = databasePath(config.dataFolder);
  const root = env.TALLY_LOFT_ROOT ?? process.cwd();
  const script = path.join(root, 'build/node/thread.js');
  const thread = new WorkThread(script);
  makeFolder(config.dataFolder);
  const lock = lockFolder(config.dataFolder);
  keepPrivate(config.dataFolder);
  if (existsSync(file)) {
    const { wasOpen } = checkDatabase(file);
    if (wasOpen)
      log().info(
        'the server before did not close its database; it was looked through and is whole',
      );
  } else
    await makeFirst(config.dataFolder, async (made) => {
      const db = openDatabase(made, config.storageBytes);
      await migrate(db);
      await db.destroy();
      if (config.demo) await loadDemo(made, config, thread, path.join(root, 'demo'));
    });
  const db = openDatabase(file, config.storageBytes);
  const done = await migrate(db);
  if (done.length) log().info({ migrations: done }, 'the database was brought up to date');
  running = {
    config,
    db,
    thread,
    pool: new ReadingPool(script, {
      threads: config.askThreads,
      taskMs: config.askMs,
      memoryMb: config.askMemoryMb,
    }),
    incoming: new Incoming(path.join(config.dataFolder, 'incoming'), config.uploadBytes),
    databases: databasesOf(config, path.join(root, 'build/node/askThread.js')),
    gate: config.passphrase ? new PassphraseGate(config.passphrase) : null,
    lock,
  };
  return running;
}

/** Closes the data, so that the next start finds them closed. Asks that run are given up. */
export async function stop(): Promise<void> {
  const ending = running;
  running = null;
  if (!ending) return;
  await ending.db.destroy();
  ending.lock.release();
}

async function loadDemo(
  database: string,
  config: Config,
  thread: WorkThread,
  folder: string,
): Promise<void> {
  for (const [file, listName, groups] of DEMO)
    await thread.perform({
      task: 'demo',
      database,
      limitBytes: config.storageBytes,
      file: path.join(folder, file),
      listName,
      groups: [...groups],
    });
  log().info({ lists: DEMO.length }, 'the demo data was loaded');
}
