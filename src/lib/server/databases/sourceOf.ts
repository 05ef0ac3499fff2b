import type { Connection } from './connections';
import { postgresSource } from './postgres';
import type { DatabaseSource } from './reading';
import { openSqlite } from './sqlite';

/** What a connection leads to, whatever database it is. @throws DatabaseFault */
export const sourceOf = (connection: Connection): DatabaseSource =>
  connection.kind === 'postgres' ? postgresSource(connection) : sqliteSource(connection.file);

/** A SQLite file as any other database. @throws DatabaseFault */
export function sqliteSource(file: string): DatabaseSource {
  const database = openSqlite(file);
  return {
    tables: () => Promise.resolve([...database.tables]),
    read(asked, most, grouped) {
      const { columns, parts } = database.read(asked, most, grouped);
      return Promise.resolve({
        columns,
        parts: (async function* () {
          yield* parts;
        })(),
        // Its statements do not pause: the thread itself is ended.
        stop: () => Promise.resolve(),
      });
    },
  };
}
