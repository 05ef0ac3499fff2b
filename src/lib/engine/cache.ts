/** A few results by key, the longest unused dropped first. */
export class StepCache<T> {
  readonly #kept = new Map<string, T>();

  constructor(readonly limit: number) {}

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
}
