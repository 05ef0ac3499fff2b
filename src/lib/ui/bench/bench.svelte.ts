import { openTally, type BenchDocument, type LedgerTally } from '../../core/bench/document';
import type { Distribution, Line, Overview, Place } from '../../engine/protocol';
import { EngineClient, Refused, type OpenedColumn } from '../../worker/engineClient';
import { History } from './history';
import { Saver } from './saver.svelte';

export interface BenchFacts {
  readonly id: number;
  readonly name: string;
  readonly listId: number;
  readonly listName: string;
  readonly readAt: string;
  readonly currentReading: number;
  readonly revision: number;
  readonly doc: BenchDocument;
}

/** What stands in the panel on the right. */
export type Side =
  | { kind: 'behind'; place: Place }
  | { kind: 'column'; column: string }
  | { kind: 'record'; record: number; column: string | null };

/** Lines fetched beyond those in view, on each side. */
const MARGIN = 14;

/** A bench on the page: its document, what the engine makes of it, and its way back to the server. */
export class BenchState {
  doc = $state.raw<BenchDocument>(undefined as never);
  overview = $state.raw<Overview | null>(null);
  heads = $state.raw<Distribution[]>([]);
  lines = $state.raw<{ from: number; lines: Line[] }>({ from: 0, lines: [] });
  columns = $state.raw<readonly OpenedColumn[]>([]);
  progress = $state(0);
  /** A fault to show, until the next thing works. */
  fault = $state('');
  /** What happened, for the status line and screen readers. */
  notice = $state('');
  side = $state.raw<Side | null>(null);
  canUndo = $state<string | null>(null);
  canRedo = $state<string | null>(null);
  /** Counts reckonings, for those who show something that depends on them. */
  reckonings = $state(0);
  busy = $state(false);
  readonly saver: Saver;
  readonly engine: EngineClient;
  readonly facts: BenchFacts;
  readonly #history = new History();
  #window = { from: 0, count: 60 };
  #seen = { first: 0, count: 0 };
  #looking = false;
  #deaths = 0;

  constructor(facts: BenchFacts) {
    this.facts = facts;
    this.doc = facts.doc;
    this.saver = new Saver(`/api/benches/${facts.id}`, facts.revision);
    this.engine = new EngineClient({
      progress: (share) => (this.progress = share),
      died: () => this.#revive(),
    });
  }

  get tally(): LedgerTally {
    return openTally(this.doc);
  }

  column(id: string | null | undefined): OpenedColumn | undefined {
    return this.columns.find((c) => c.id === id);
  }

  async open(): Promise<void> {
    try {
      const { columns } = await this.engine.open(this.doc.reading, location.origin);
      this.columns = columns;
      this.progress = 1;
      await this.reckon();
    } catch (error) {
      this.#fail(error);
    }
  }

  /** A worker that died is started anew, a few times; the document was never in it. */
  #revive(): void {
    this.#deaths++;
    if (this.#deaths > 3) {
      this.fault =
        'The calculation stopped several times. Reload the page; your changes are saved.';
      return;
    }
    this.notice = 'The calculation was interrupted and is starting again.';
    this.engine.restart();
    void this.open();
  }

  /** Changes the document: reckoned, saved, and undone as one step. */
  change(says: string, edit: (doc: BenchDocument) => BenchDocument): void {
    const before = this.doc;
    const after = edit(before);
    if (after === before) return;
    this.#history.record(says, before, after);
    this.#take(after, says);
  }

  undo(): void {
    const step = this.#history.undo();
    if (step) this.#take(step.doc, `Undone: ${step.says}`);
  }

  redo(): void {
    const step = this.#history.redo();
    if (step) this.#take(step.doc, `Done again: ${step.says}`);
  }

  /** Takes a document from elsewhere as one undoable change. */
  replace(doc: BenchDocument, says: string): void {
    const reopen = doc.reading !== this.doc.reading;
    this.#history.record(says, this.doc, doc);
    this.doc = doc;
    this.#marks(says);
    if (reopen) void this.open();
    else void this.reckon();
  }

  #take(doc: BenchDocument, says: string): void {
    const reopen = doc.reading !== this.doc.reading;
    this.doc = doc;
    this.saver.save(doc);
    this.#marks(says);
    if (reopen) void this.open();
    else void this.reckon();
  }

  #marks(says: string): void {
    this.notice = says;
    this.canUndo = this.#history.canUndo;
    this.canRedo = this.#history.canRedo;
  }

  async reckon(): Promise<void> {
    this.busy = true;
    try {
      const overview = await this.engine.ask<'reckon'>({
        do: 'reckon',
        doc: $state.snapshot(this.doc) as BenchDocument,
      });
      const from = Math.max(0, Math.min(this.#window.from, overview.lines - 1));
      // A lane of its own: scrolling meanwhile must not take its place.
      const lines = await this.engine.ask<'lines'>(
        { do: 'lines', from, count: this.#window.count },
        'drawn',
      );
      this.overview = overview;
      this.lines = { from, lines };
      this.fault = '';
      this.busy = false;
      this.reckonings++;
      this.heads = await this.engine.ask<'heads'>({ do: 'heads' });
    } catch (error) {
      this.#fail(error);
    }
  }

  /**
   * Has the lines around those in view at hand. One request is on its way at a time: while it is,
   * scrolling on only moves where the next one looks.
   */
  async look(first: number, count: number): Promise<void> {
    this.#window = { from: Math.max(0, first - MARGIN), count: count + 2 * MARGIN };
    this.#seen = { first, count };
    if (this.#looking || this.#atHand()) return;
    this.#looking = true;
    try {
      for (let asked = -1; !this.#atHand() && asked !== this.#window.from;) {
        const { from, count: wanted } = this.#window;
        asked = from;
        const lines = await this.engine.ask<'lines'>({ do: 'lines', from, count: wanted });
        this.lines = { from, lines };
      }
    } catch (error) {
      this.#fail(error);
    } finally {
      this.#looking = false;
    }
  }

  /** Whether the lines last looked at are there. */
  #atHand(): boolean {
    const { from, lines } = this.lines;
    const { first, count } = this.#seen;
    const total = this.overview?.lines ?? 0;
    return (
      first >= total || (first >= from && Math.min(total, first + count) <= from + lines.length)
    );
  }

  #fail(error: unknown): void {
    this.busy = false;
    if (error instanceof Refused && ['Superseded', 'WorkerDied', 'NotOpen'].includes(error.name))
      return;
    this.fault = error instanceof Error ? error.message : String(error);
  }

  stop(): void {
    this.engine.stop();
  }
}
