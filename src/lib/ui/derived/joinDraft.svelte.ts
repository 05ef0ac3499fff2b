import { removeMade, setJoin } from '../../core/bench/madeEdits';
import { broughtAs, idOfBrought, type JoinSpec } from '../../core/prepare/specs';
import type { ReplyOf } from '../../engine/protocol';
import type { BenchState } from '../bench/bench.svelte';

type Brought = JoinSpec['bring'][number];
type Key = JoinSpec['on'][number];

/** Columns from another list in the making, or those of a bench being changed. */
export class JoinDraft {
  list = $state('');
  on = $state.raw<readonly Key[]>([]);
  bring = $state.raw<readonly Brought[]>([]);
  loose = $state(true);
  /** The other list's columns and likely keys; null before it is at hand. */
  other = $state.raw<ReplyOf<'other'> | null>(null);
  /** How the keys meet; null before the first answer. */
  reply = $state.raw<ReplyOf<'match'> | null>(null);
  /** Its place among the bench's joins; null: a new one. */
  readonly at: number | null;
  readonly #bench: BenchState;

  constructor(bench: BenchState, at: number | null) {
    this.#bench = bench;
    this.at = at;
    const spec = at === null ? undefined : bench.doc.joins[at];
    if (!spec) return;
    this.list = spec.list;
    this.on = spec.on;
    this.bring = spec.bring;
    this.loose = spec.loose;
    void this.#open();
  }

  get spec(): JoinSpec {
    const { list, on, bring, loose } = this;
    return { list, on: [...on], bring: [...bring], loose };
  }

  get canKeep(): boolean {
    return this.bring.length > 0 && this.reply?.fault === null;
  }

  /** Takes another list, and the keys it likely meets by. */
  async choose(list: string): Promise<void> {
    this.list = list;
    this.bring = [];
    this.reply = null;
    await this.#open();
    const [likely] = this.other?.keys ?? [];
    this.on = likely ? [{ column: likely.column, with: likely.with }] : [];
  }

  async #open(): Promise<void> {
    const { list } = this;
    this.other = null;
    await this.#bench.lend(list);
    try {
      this.other = await this.#bench.ask('other', { list }, 'other');
    } catch (error) {
      this.#bench.fault = error instanceof Error ? error.message : String(error);
    }
  }

  turn(column: string, on: boolean): void {
    this.bring = on
      ? [...this.bring, { column, ...this.#named(column) }]
      : this.bring.filter((b) => b.column !== column);
  }

  change(column: string, change: Partial<Brought>): void {
    this.bring = this.bring.map((b) => (b.column === column ? { ...b, ...change } : b));
  }

  /** Another name where this list has one of it already. */
  #named(id: string): { as?: string } {
    const name = this.other?.columns.find((c) => c.id === id)?.name ?? id;
    const taken = this.#bench.columns.some((c) => c.name.toLowerCase() === name.toLowerCase());
    return taken ? { as: `${name} of ${this.list}` } : { as: name };
  }

  /** Looks how the keys meet; what was changed since takes the place of what is asked. */
  async look(): Promise<void> {
    const { spec, at } = this;
    if (!this.other || spec.on.length === 0) {
      this.reply = null;
      return;
    }
    try {
      this.reply = await this.#bench.ask('match', { spec: $state.snapshot(spec), at }, 'match');
    } catch {
      // Changed meanwhile: the newer one is being looked at.
    }
  }

  keep(): void {
    if (!this.canKeep) return;
    const { spec, at, list } = this;
    const source = this.#bench.lists.sourceOf(list);
    const names = spec.bring.map(broughtAs);
    this.#bench.change(`Bring ${names.join(', ')} from ${list}`, (doc) =>
      setJoin(doc, at, spec, source),
    );
    const place = at ?? this.#bench.doc.joins.length - 1;
    const [first] = this.#bench.doc.joins[place]?.bring ?? [];
    this.#bench.side = first ? { kind: 'column', column: idOfBrought(first) } : null;
  }

  takeOut(): void {
    const { at, list } = this;
    if (at === null) return;
    this.#bench.change(`Take out the columns from ${list}`, (doc) =>
      removeMade(doc, { of: 'joins', at }),
    );
    this.#bench.side = null;
  }

  leave(): void {
    // As a panel goes, its states still read as they were before: the document is looked at after that.
    queueMicrotask(() => void this.#bench.lend(null));
  }
}
