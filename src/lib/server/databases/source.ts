import type { Connection } from './connections';
import { postgresSource } from './postgres';
import type { DatabaseSource } from './reading';
import { sqliteSource } from './sqliteSource';

/** The database of a connection. @param script the thread that reads SQLite files */
export const sourceOf = (connection: Connection, script: string): DatabaseSource =>
  connection.kind === 'postgres' ? postgresSource(connection) : sqliteSource(connection, script);
