import { removeMade, setComputed, type MadePlace } from '../../core/bench/madeEdits';
import type { Making } from '../../core/prepare/computedColumn';
import {
  followsOrder,
  idOfComputed,
  type AcrossSpec,
  type ComputedSpec,
  type WindowSpec,
} from '../../core/prepare/specs';
import type { ReplyOf } from '../../engine/protocol';
import type { BenchState } from '../bench/bench.svelte';
import { proposedName } from './proposedName';

/** How a column is made. */
export type Way = 'worked out' | 'across columns' | 'within groups';

/** A column in the making, or a made one being changed: shown as it is typed, kept when it is kept. */
export class MadeDraft {
  unit = $state('');
  way = $state<Way>('worked out');
  expression = $state('');
  across = $state.raw<AcrossSpec>({ measure: 'sum', columns: [] });
  window = $state.raw<WindowSpec>({
    figure: 'rank',
    of: undefined,
    by: [],
    order: [],
    descending: true,
  });
  /** What it comes to; null before the first answer. */
  reply = $state.raw<ReplyOf<'draft'> | null>(null);
  /** Its place among the computed columns; null: a new one. */
  readonly at: number | null;
  readonly #bench: BenchState;
  /** The name somebody gave it; null: it follows from how the column is made. */
  #given = $state<string | null>(null);
  /** The example that was taken; it has a name as long as nothing of it is changed. */
  #example = $state.raw<{ readonly expression: string; readonly name: string } | null>(null);
  /** Counts the looks; an older one that comes late is dropped. */
  #turn = 0;

  constructor(bench: BenchState, at: number | null) {
    this.#bench = bench;
    this.at = at;
    const spec = at === null ? undefined : bench.doc.computed[at];
    if (!spec) return;
    this.#given = spec.name;
    this.unit = spec.unit;
    this.expression = spec.expression ?? '';
    if (spec.across) {
      this.way = 'across columns';
      this.across = spec.across;
    }
    if (spec.window) {
      this.way = 'within groups';
      this.window = spec.window;
    }
  }

  get name(): string {
    if (this.#given !== null) return this.#given;
    const example = this.#example?.expression === this.expression ? this.#example.name : null;
    return this.#freeName(example ?? proposedName(this.#made, (id) => this.#nameOf(id)));
  }

  get spec(): ComputedSpec {
    return { name: this.name.trim() || 'New column', unit: this.unit.trim(), ...this.#made };
  }

  get #made(): Making {
    const { way, expression, across, window } = this;
    return way === 'worked out'
      ? { expression }
      : way === 'across columns'
        ? { across }
        : { window: followsOrder(window.figure) ? window : { ...window, order: [] } };
  }

  #nameOf(id: string): string {
    return this.#bench.columns.find((c) => c.id === id)?.name ?? id;
  }

  /** Whether there is enough of it to say what is wrong. */
  get isBegun(): boolean {
    const { way, expression, across, window } = this;
    if (way === 'worked out') return expression.trim() !== '';
    return way === 'across columns' ? across.columns.length > 0 : window.of !== undefined;
  }

  get isNew(): boolean {
    return this.at === null;
  }

  get canKeep(): boolean {
    return this.name.trim() !== '' && this.reply?.fault === null;
  }

  rename(name: string): void {
    this.#given = name;
  }

  /** Takes an example, with the name that it goes by. */
  take(expression: string, words: string): void {
    this.expression = expression;
    this.#example = { expression, name: words[0].toUpperCase() + words.slice(1) };
  }

  /**
   * Has the engine look at it: the first records at once, then all of them. What was typed since takes
   * the place of what is asked.
   */
  async look(): Promise<void> {
    const asked = { spec: $state.snapshot(this.spec), at: this.at };
    const turn = ++this.#turn;
    try {
      const first = await this.#bench.ask('draft', { ...asked, whole: false }, 'draft');
      // Late answers never take the place of newer ones.
      if (turn !== this.#turn) return;
      this.reply = first;
      if (!first.column) return;
      const all = await this.#bench.ask('draft', { ...asked, whole: true }, 'draft of all');
      if (turn === this.#turn) this.reply = all;
    } catch {
      // Typed on meanwhile: the newer one is being looked at.
    }
  }

  keep(): void {
    if (!this.canKeep) return;
    const { spec, at } = this;
    const words = at === null ? `Make the column ${spec.name}` : `Change the column ${spec.name}`;
    this.#bench.change(words, (doc) => setComputed(doc, at, spec));
    // What can be asked of it next stands in its own panel.
    const { computed } = this.#bench.doc;
    const made = at === null ? computed.at(-1) : computed[at];
    this.#bench.side = made ? { kind: 'column', column: idOfComputed(made) } : null;
  }

  takeOut(): void {
    if (this.at === null) return;
    const place: MadePlace = { of: 'computed', at: this.at };
    this.#bench.change(`Take out the column ${this.name}`, (doc) => removeMade(doc, place));
    this.#bench.side = null;
  }

  #freeName(wanted: string): string {
    const taken = new Set(this.#bench.columns.map((c) => c.name.toLowerCase()));
    let name = wanted;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${wanted} ${n}`;
    return name;
  }
}
