/** A line of the ledger and a column on it; −1 is the column of groups. */
export interface Place {
  readonly line: number;
  readonly column: number;
}

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

  /** The place a key leads to, within so many lines and columns; null for other keys. */
  after(key: string, lines: number, columns: number, page: number): Place | null {
    const { line, column } = this.active;
    const to: Record<string, readonly [number, number]> = {
      ArrowDown: [line + 1, column],
      ArrowUp: [line - 1, column],
      ArrowRight: [line, column + 1],
      ArrowLeft: [line, column - 1],
      PageDown: [line + page, column],
      PageUp: [line - page, column],
      Home: [0, column],
      End: [lines - 1, column],
    };
    if (!Object.hasOwn(to, key)) return null;
    return {
      line: Math.max(0, Math.min(lines - 1, to[key][0])),
      column: Math.max(-1, Math.min(columns - 1, to[key][1])),
    };
  }
}
