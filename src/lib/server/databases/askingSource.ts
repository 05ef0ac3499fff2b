import { recordsIn, tableOfChunks } from '$lib/core/table/arrowRead';
import type { Table } from '$lib/core/table/table';
import { Asking } from './asking';
import type { Connection } from './connections';
import type { DatabaseSource } from './reading';

/**
 * A database that is asked in a thread of its own for each question, which is ended when the time of its connection
 * is up, whatever it is at.
 * @param script the thread
 */
export const askingSource = (script: string, connection: Connection): DatabaseSource => ({
  async tables() {
    const asking = new Asking(script, connection, null);
    try {
      const said = await asking.next();
      return said.kind === 'tables' ? said.tables : [];
    } finally {
      void asking.end();
    }
  },
  async read(asked, _most, grouped) {
    const asking = new Asking(script, connection, asked, grouped);
    try {
      const said = await asking.next();
      return {
        columns: said.kind === 'columns' ? said.columns : [],
        parts: partsOf(asking),
        stop: () => asking.end(),
      };
    } catch (error) {
      void asking.end();
      throw error;
    }
  },
});

async function* partsOf(asking: Asking): AsyncGenerator<Table> {
  try {
    for (let bytes = await asking.part(); bytes; bytes = await asking.part())
      yield tableOfChunks([bytes], recordsIn(bytes));
  } finally {
    void asking.end();
  }
}
