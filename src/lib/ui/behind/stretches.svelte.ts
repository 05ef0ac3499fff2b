/** Records that are listed a stretch at a time. */
interface Stretch {
  readonly records: readonly unknown[];
}

/** Records that come stretch by stretch, those at hand in one. */
export class Stretches<T extends Stretch> {
  /** What is at hand; null before the first came, and where the figure is gone. */
  found = $state.raw<T | null>(null);

  /**
   * @param ask for a stretch, from a record on
   * @param joined what is at hand with one more stretch behind it
   */
  constructor(
    readonly ask: (from: number) => Promise<T>,
    readonly joined: (before: T, next: T) => T,
  ) {}

  /** Begins anew: the records are those of another figure. */
  begin(): void {
    this.ask(0).then(
      (first) => (this.found = first),
      // A newer one is on its way, or the figure is gone: the panel behind it says so.
      () => (this.found = null),
    );
  }

  async more(): Promise<void> {
    const before = this.found;
    if (!before) return;
    const next = await this.ask(before.records.length);
    if (this.found === before) this.found = this.joined(before, next);
  }
}
