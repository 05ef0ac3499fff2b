import type { Bench } from '../../core/bench/document';
import { setTally } from '../../core/bench/edits';
import { openLedger, type LedgerItem } from '../../core/bench/tray';
import type { Tally } from '../../core/tally/specs';
import type {
  ArgsOf,
  Counts,
  Distribution,
  Do,
  LedgerPage,
  Line,
  Place,
  ReplyOf,
} from '../../engine/protocol';
import { EngineClient, Refused } from '../../worker/engineClient';
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
  readonly doc: Bench;
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
  doc = $state.raw<Bench>(undefined as never);
  counts = $state.raw<Counts | null>(null);
  ledger = $state.raw<LedgerPage | null>(null);
  /** Why the open ledger has no figures; empty where it has. */
  refused = $state('');
  footing = $state.raw<ReplyOf<'footing'> | null>(null);
  heads = $state.raw<Distribution[]>([]);
  lines = $state.raw<{ from: number; lines: Line[] }>({ from: 0, lines: [] });
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

  /** The ledger that is open. */
  get item(): LedgerItem {
    const item = openLedger(this.doc);
    if (!item) throw new Error('This bench has no ledger.');
    return item;
  }

  get columns(): Counts['columns'] {
    return this.counts?.columns ?? [];
  }

  column(id: string | null | undefined): Counts['columns'][number] | undefined {
    return this.columns.find((c) => c.id === id);
  }

  /** Asks of the figures on the page; what newer ones replaced is refused. */
  ask<K extends Do>(kind: K, args: Omit<ArgsOf<K>, 'token'>, lane?: string): Promise<ReplyOf<K>> {
    return this.#askOf(this.counts?.token ?? 0, kind, args, lane);
  }

  #askOf<K extends Do>(
    token: number,
    kind: K,
    args: Omit<ArgsOf<K>, 'token'>,
    lane?: string,
  ): Promise<ReplyOf<K>> {
    return this.engine.ask(kind, args, { token, ...(lane !== undefined && { lane }) });
  }

  /** Puts another spec in the place of a tally. */
  retell(says: string, id: string, tally: Tally): void {
    this.change(says, (doc) => setTally(doc, id, tally));
  }

  async open(): Promise<void> {
    try {
      await this.engine.open(this.doc.reading, location.origin);
      this.progress = 1;
      await this.compute();
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
  change(says: string, edit: (doc: Bench) => Bench): void {
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
  replace(doc: Bench, says: string): void {
    const reopen = doc.reading !== this.doc.reading;
    this.#history.record(says, this.doc, doc);
    this.doc = doc;
    this.#marks(says);
    if (reopen) void this.open();
    else void this.compute();
  }

  #take(doc: Bench, says: string): void {
    const reopen = doc.reading !== this.doc.reading;
    this.doc = doc;
    this.saver.save(doc);
    this.#marks(says);
    if (reopen) void this.open();
    else void this.compute();
  }

  #marks(says: string): void {
    this.notice = says;
    this.canUndo = this.#history.canUndo;
    this.canRedo = this.#history.canRedo;
  }

  /** Stands the bench, and shows its figures once all of them are there. */
  async compute(): Promise<void> {
    this.busy = true;
    try {
      const counts = await this.engine.ask('stand', {
        doc: $state.snapshot(this.doc) as Bench,
      });
      const { token } = counts;
      const tally = this.item.id;
      let ledger: LedgerPage;
      try {
        ledger = await this.#askOf(token, 'ledger', { tally });
      } catch (error) {
        if (!(error instanceof Refused) || error.name !== 'TallyRefused') throw error;
        // What counts stands all the same, and the sentence can be changed.
        this.#show(counts, null, error.message);
        return;
      }
      const from = Math.max(0, Math.min(this.#window.from, ledger.lines - 1));
      const { count } = this.#window;
      // A lane of its own: scrolling meanwhile must not take its place.
      const lines = await this.#askOf(token, 'lines', { tally, from, count }, 'drawn');
      this.lines = { from, lines };
      this.#show(counts, ledger, '');
      const footing = await this.#askOf(token, 'footing', { tally });
      if (this.counts?.token === token) this.footing = footing;
      const heads = await this.#askOf(token, 'heads', { tally });
      if (this.counts?.token === token) this.heads = heads;
    } catch (error) {
      this.#fail(error);
    }
  }

  #show(counts: Counts, ledger: LedgerPage | null, refused: string): void {
    this.counts = counts;
    this.ledger = ledger;
    // Whether these foot is not known yet; what older ones did says nothing of them.
    this.footing = null;
    this.refused = refused;
    this.fault = '';
    this.busy = false;
    this.reckonings++;
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
        const tally = this.item.id;
        const token = this.counts?.token;
        const lines = await this.ask('lines', { tally, from, count: wanted });
        // Lines of older figures never stand beside newer ones: ask those instead.
        if (this.counts?.token !== token) {
          asked = -1;
          continue;
        }
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
    const total = this.ledger?.lines ?? 0;
    return (
      first >= total || (first >= from && Math.min(total, first + count) <= from + lines.length)
    );
  }

  #fail(error: unknown): void {
    this.busy = false;
    if (
      error instanceof Refused &&
      ['Superseded', 'WorkerDied', 'NotOpen', 'Engine:stale'].includes(error.name)
    )
      return;
    this.fault = error instanceof Error ? error.message : String(error);
  }

  stop(): void {
    this.engine.stop();
  }
}
