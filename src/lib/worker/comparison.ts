import { keyColumnsOf, overlapOf, type Overlap } from '../core/read/overlap';
import { lostMonths, lostMonthsWords } from '../core/read/lostMonths';
import type { Doubt } from '../core/read/doubts';
import { takingAll } from '../core/prepare/reshape';
import { finish, type Task } from '../core/task/task';
import { recordPlace } from '../core/table/recordNumber';
import type { Table } from '../core/table/table';
import { fetchReading } from './fetchReading';
import type { Compared } from './intakeMessages';
import type { ReadFile } from './intakeSending';
import { pause } from './pause';

/** A file that was read, set beside the list that it refreshes or is added to. */
export class ListComparison {
  #list: { readonly reading: number; readonly table: Promise<Table> } | null = null;
  #keys: readonly (readonly string[])[] | null = null;
  #last: { readonly table: Table; readonly overlap: Overlap } | null = null;

  /** @param key the columns that tell a record; empty compares all columns */
  async compare(
    file: Table,
    { base, reading, key }: { base: string; reading: number; key: readonly string[] },
  ): Promise<Compared> {
    const list = await this.#tableOf(reading, base);
    const overlap = await pausing(overlapOf(list, file, key));
    this.#keys ??= await pausing(keyColumnsOf(list));
    const lost = await pausing(lostMonths(list, file));
    this.#last = { table: file, overlap };
    return {
      key: [...key],
      keys: this.#keys.map((key) => [...key]),
      already: overlap.records.length,
      differing: overlap.differing,
      first: overlap.first.map((record) => ({ ...record })),
      lost: lost ? lostMonthsWords(lost) : '',
    };
  }

  /** The file without the records that the list has already. @throws Error where it was not compared */
  newOf(file: ReadFile, setAside: readonly number[]): { file: ReadFile; setAside: number[] } {
    if (this.#last?.table !== file.table)
      throw new Error('The file has not been compared with the list yet.');
    const already = new Set(this.#last.overlap.records);
    if (already.size === 0) return { file, setAside: [...setAside] };
    const kept: number[] = [];
    for (let number = 1; number <= file.table.length; number++)
      if (!already.has(number)) kept.push(number);
    const now = new Map(kept.map((number, k) => [number, k + 1]));
    const table = finish(takingAll(file.table, Int32Array.from(kept, recordPlace)));
    return {
      file: { ...file, table, doubts: file.doubts.flatMap((doubt) => doubtOf(doubt, now)) },
      setAside: setAside.flatMap((number) => now.get(number) ?? []),
    };
  }

  #tableOf(reading: number, base: string): Promise<Table> {
    if (this.#list?.reading !== reading) {
      const table = fetchReading(reading, base).then((fetched) => fetched.table);
      this.#list = { reading, table };
      // What could not be fetched is fetched again the next time.
      table.catch(() => (this.#list = null));
      this.#keys = null;
    }
    return this.#list.table;
  }
}

/** A doubt by other numbers; none where all records that it names are left out. */
function doubtOf(doubt: Doubt, now: ReadonlyMap<number, number>): Doubt[] {
  const places = doubt.places.flatMap((place) => {
    const record = now.get(place.record);
    return record === undefined ? [] : [{ ...place, record }];
  });
  return doubt.places.length && places.length === 0 ? [] : [{ ...doubt, places }];
}

/** Long work with room for newer messages between its parts. */
async function pausing<T>(task: Task<T>): Promise<T> {
  for (;;) {
    const next = task.next();
    if (next.done) return next.value;
    await pause();
  }
}
