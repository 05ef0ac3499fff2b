import type { Task } from './task';

/**
 * A few results by key, the longest unused dropped first. Whoever makes one owns what it keeps.
 *
 * @example
 * const orders = new StepCache<Int32Array>(2);
 * const order = orders.once(key, () => sorted(table));
 */
export class StepCache<T> {
  readonly #kept = new Map<string, T>();

  constructor(readonly limit: number) {}

  get size(): number {
    return this.#kept.size;
  }

  get(key: string): T | undefined {
    const hit = this.#kept.get(key);
    if (hit !== undefined) {
      this.#kept.delete(key);
      this.#kept.set(key, hit);
    }
    return hit;
  }

  set(key: string, value: T): void {
    this.#kept.delete(key);
    this.#kept.set(key, value);
    if (this.#kept.size > this.limit) {
      const oldest = this.#kept.keys().next();
      if (!oldest.done) this.#kept.delete(oldest.value);
    }
  }

  /** What is kept under the key, or made now and kept. */
  once(key: string, make: () => T): T {
    let value = this.get(key);
    if (value === undefined) this.set(key, (value = make()));
    return value;
  }

  /** The same of what takes long to make. */
  *onceInSteps(key: string, make: () => Task<T>): Task<T> {
    let value = this.get(key);
    if (value === undefined) this.set(key, (value = yield* make()));
    return value;
  }
}
