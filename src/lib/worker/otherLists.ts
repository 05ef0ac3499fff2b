import type { ListSource } from '../core/ask/question';
import type { Table } from '../core/table/table';

/** Other lists that benches name, fetched when first needed and kept while they are named. */
export class OtherLists {
  #key = '';
  #tables: Promise<ReadonlyMap<string, Table>> = Promise.resolve(new Map());

  /** @param load a list's table; null where the source is no stored list, or has no reading */
  constructor(readonly load: (source: ListSource) => Promise<Table | null>) {}

  /** The lists by their names: the same map as long as the same are named. A list that cannot be had is not there. */
  of(lists: Readonly<Record<string, ListSource>>): Promise<ReadonlyMap<string, Table>> {
    const key = JSON.stringify(lists);
    if (key !== this.#key) {
      this.#key = key;
      this.#tables = this.#load(lists);
    }
    return this.#tables;
  }

  async #load(lists: Readonly<Record<string, ListSource>>): Promise<ReadonlyMap<string, Table>> {
    const tables = new Map<string, Table>();
    for (const [name, source] of Object.entries(lists)) {
      const table = await this.load(source).catch(() => null);
      if (table) tables.set(name, table);
    }
    return tables;
  }
}
