import type { DeclaredColumn } from '$lib/core/read/unfold/declared';
import type { AskedOf } from '$lib/core/read/unfold/source';

/** A table or a query of a database on its way in. */
export interface DatabaseReading {
  readonly columns: readonly DeclaredColumn[];
  /**
   * Its records as delimited text (RFC 4180, UTF-8), heads first, as they come. Leaving it before its end
   * ends the reading at the database.
   * @throws DatabaseFault
   */
  readonly text: AsyncIterable<Uint8Array>;
}

/** A database that is kept under a name. It is opened for each question, to be read only. */
export interface DatabaseSource {
  /** Tables and views, in the order of their names. @throws DatabaseFault */
  tables(): Promise<string[]>;
  /** @throws DatabaseFault where there is no such table, or the query cannot be used */
  read(asked: AskedOf): Promise<DatabaseReading>;
}

/** Characters of an identifier of SQL. */
export const quotedName = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** A query without what would end it: it is put in brackets. */
export const queryText = (query: string): string => query.trim().replace(/(\s*;)+$/, '');

/** A line of heads. A second cell keeps the records of one column from being empty lines. */
export const headsLine = (columns: readonly DeclaredColumn[]): string =>
  `${columns.map(({ name }) => `"${name.replaceAll('"', '""')}"`).join(',')}${columns.length === 1 ? ',' : ''}\n`;
