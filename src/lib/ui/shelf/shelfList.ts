import type { ListOrigin } from '../../core/bench/origin';

/** A list as the shelf shows it. */
export interface ShelfList {
  readonly id: number;
  readonly name: string;
  readonly records: number;
  readonly readAt: string;
  readonly fileName: string;
  readonly readings: number;
  readonly benches: readonly {
    readonly id: number;
    readonly name: string;
    readonly savedAt: string;
  }[];
  /** Where it comes from, if from another list. */
  readonly origin: ListOrigin | null;
  /** Names of the lists that are made of it, or take columns or values from it. */
  readonly feeds: readonly string[];
}

/** What the shelf can be sorted by. */
export type ShelfOrder = 'name' | 'records' | 'readAt';

/** The lists that hold every word typed, in the order asked for. */
export function onShelf(
  lists: readonly ShelfList[],
  text: string,
  order: ShelfOrder,
  descending: boolean,
): ShelfList[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const turn = descending ? -1 : 1;
  return lists
    .filter((list) => {
      const all = [list.name, list.fileName, ...list.feeds, ...list.benches.map((b) => b.name)];
      const found = [...all, list.origin?.bench?.list ?? ''].join(' ').toLowerCase();
      return words.every((word) => found.includes(word));
    })
    .sort(
      (a, b) =>
        turn *
        (order === 'records'
          ? a.records - b.records
          : order === 'name'
            ? a.name.localeCompare(b.name, 'en', { numeric: true })
            : a.readAt < b.readAt
              ? -1
              : Number(a.readAt > b.readAt)),
    );
}
