import type { DeclaredColumn } from '$lib/core/read/decode/declared';
import type { AskedOf } from '$lib/core/read/decode/source';
import type { Table } from '$lib/core/table/table';
import type { Grouped } from './grouped';

/** A table or a query of a database on its way in. */
export interface DatabaseReading {
  readonly columns: readonly DeclaredColumn[];
  /**
   * Its records, a part of them in each table, none where there are none. Leaving them before their end
   * ends the reading at the database.
   * @throws DatabaseFault
   */
  readonly parts: AsyncIterable<Table>;
  /** Ends it at the database while a part is waited for, which then fails. */
  stop(): Promise<void>;
}

/** A database that is kept under a name. It is opened for each question, to be read only. */
export interface DatabaseSource {
  /** Tables and views, in the order of their names. @throws DatabaseFault */
  tables(): Promise<string[]>;
  /**
   * @param most records of a part
   * @param grouped in place of its records: their groups, with what columns come to in each
   * @throws DatabaseFault where there is no such table, or the query cannot be used
   */
  read(asked: AskedOf, most: number, grouped?: Grouped): Promise<DatabaseReading>;
}

/** A name as SQL quotes it. */
export const quotedName = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** A query without what would end it: it is put in brackets. */
export const queryText = (query: string): string => query.trim().replace(/(\s*;)+$/, '');
