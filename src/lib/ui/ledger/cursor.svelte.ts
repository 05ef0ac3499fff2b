import { placeAfter, type Place } from '../components/placeAfter';

/** Where the keys act, and the lines chosen from there. */
export class Cursor {
  active = $state.raw<Place>({ line: 0, column: -1 });
  #anchor = $state<number | null>(null);

  /** The lines chosen, first and last; null where only the active one is. */
  readonly range = $derived.by(() => {
    if (this.#anchor === null) return null;
    const ends = [this.#anchor, this.active.line];
    return { from: Math.min(...ends), to: Math.max(...ends) };
  });

  /** @param extend keeps what is chosen and goes on to the place */
  put(place: Place, extend = false): void {
    if (!extend) this.#anchor = null;
    else this.#anchor ??= this.active.line;
    this.active = place;
  }

  letGo(): void {
    this.#anchor = null;
  }

  /** The place a key leads to, within so many lines and columns; −1 is the column of groups. */
  after(key: string, lines: number, columns: number, page: number): Place | null {
    return placeAfter(key, this.active, { lines, columns, first: -1, page });
  }
}
