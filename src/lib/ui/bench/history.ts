import type { Bench } from '../../core/bench/document';

/** One change that can be undone, with words for it. */
interface Change {
  readonly label: string;
  readonly before: Bench;
  readonly after: Bench;
  /** Changes in a row with the same word are one: the steps of a drag. */
  readonly drag?: string | undefined;
}

const MOST = 300;

/** Undo and redo over whole documents, which share what they have in common. */
export class History {
  readonly #done: Change[] = [];
  readonly #undone: Change[] = [];

  record(label: string, before: Bench, after: Bench, drag?: string): void {
    const last = this.#done.at(-1);
    if (drag !== undefined && last?.drag === drag) {
      this.#done[this.#done.length - 1] = { ...last, after };
      this.#undone.length = 0;
      return;
    }
    this.#done.push({ label, before, after, drag });
    if (this.#done.length > MOST) this.#done.shift();
    this.#undone.length = 0;
  }

  undo(): { label: string; doc: Bench } | null {
    const change = this.#done.pop();
    if (!change) return null;
    this.#undone.push(change);
    return { label: change.label, doc: change.before };
  }

  redo(): { label: string; doc: Bench } | null {
    const change = this.#undone.pop();
    if (!change) return null;
    this.#done.push(change);
    return { label: change.label, doc: change.after };
  }

  /** What follows is no longer a step of the same drag. */
  endDrag(): void {
    const last = this.#done.pop();
    if (last) this.#done.push({ ...last, drag: undefined });
  }

  get canUndo(): string | null {
    return this.#done.at(-1)?.label ?? null;
  }

  get canRedo(): string | null {
    return this.#undone.at(-1)?.label ?? null;
  }
}
