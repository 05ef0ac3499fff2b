import type { ListSource } from '../core/ask/question';
import type { Table } from '../core/table/table';

/** Other lists that benches name, fetched when first needed and kept while they are named. */
export class OtherLists {
  #key = '{}';
  #tables = new Map<string, Table>();

  /** @param load a list's table; null where the source is no stored list, or has no reading */
  constructor(readonly load: (source: ListSource) => Promise<Table | null>) {}

  /** The lists by their names; null where nothing changed. A list that cannot be had is not there. */
  async of(
    lists: Readonly<Record<string, ListSource>>,
  ): Promise<ReadonlyMap<string, Table> | null> {
    const key = JSON.stringify(lists);
    if (key === this.#key) return null;
    const tables = new Map<string, Table>();
    for (const [name, source] of Object.entries(lists)) {
      const table = await this.load(source).catch(() => null);
      if (table) tables.set(name, table);
    }
    this.#key = key;
    this.#tables = tables;
    return this.#tables;
  }
}
