import { z } from 'zod';
import type { Bench } from '../../core/bench/document';
import { AnyBench } from '../../core/bench/upgrade';
import { dropUnsent, keepAtLeaving, keepUnsent, type Waiting } from './outbox';

const SavedReply = z.object({ revision: z.int(), savedAt: z.string() });
const Conflict = z.object({ revision: z.int(), doc: AnyBench });
const Problem = z.object({ detail: z.string() });

/** A state as text, its keys in the order of the schema: equal states are equal texts. */
const written = (doc: Bench): string => JSON.stringify(AnyBench.safeParse(doc).data ?? doc);

/** Whether what stands in the way of a state, as the server told it, is that very state: it was saved before. */
export const isSavedAlready = (conflict: unknown, doc: Bench): boolean => {
  const newest = Conflict.safeParse(conflict).data;
  return newest !== undefined && written(newest.doc) === written(doc);
};

/** How long a bench rests before it is saved. */
const REST_MS = 600;
const RETRY_MS = 5000;

/** The bench that is saved: its number, and what the analyst knows it by. */
export interface Saved {
  readonly id: number;
  readonly name: string;
}

/**
 * Saves a bench by itself, one save after another, and notices saves from elsewhere. Until a state is
 * saved it is kept in this browser as well.
 */
export class Saver {
  revision = $state(0);
  state = $state<'saved' | 'saving' | 'waiting' | 'failed' | 'conflict' | 'apart'>('saved');
  /** An earlier state is shown: what is changed in it stays on the page. */
  apart = $state(false);
  problem = $state('');
  /** The state that was saved elsewhere, when it stands in the way. */
  theirs = $state.raw<{ revision: number; doc: Bench } | null>(null);
  #next: Bench | null = null;
  /** States that were sent and never answered for, by this page or the one before: what is saved may be one of them. */
  readonly #unanswered = new Map<string, Bench>();
  /** The newest state that was changed here. */
  #newest: Bench | null = null;
  #timer: ReturnType<typeof setTimeout> | null = null;
  #busy = false;

  constructor(
    readonly of: Saved,
    revision: number,
    apart: boolean,
  ) {
    this.revision = revision;
    this.apart = apart;
  }

  /**
   * Saves this state once nothing has changed for a moment.
   * @param looked only what is looked at changed: nothing that an earlier state would lose
   */
  save(doc: Bench, looked = false): void {
    if (this.apart) {
      if (!looked) this.state = 'apart';
      return;
    }
    this.#next = doc;
    this.#newest = doc;
    void keepUnsent(this.#waiting(doc));
    if (this.state === 'conflict') return;
    this.state = 'waiting';
    this.#after(REST_MS);
  }

  /** Saves what waits at once. */
  async flush(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    if (this.#busy || !this.#next || this.state === 'conflict') return;
    const doc = this.#next;
    this.#next = null;
    this.#busy = true;
    this.state = 'saving';
    try {
      await this.#send(doc);
    } catch {
      this.#failed(
        doc,
        'The server does not answer. Your changes are kept in this browser, and saved when it does.',
      );
    } finally {
      this.#busy = false;
    }
    // A failure and a conflict have set their own course.
    if (this.#next && !this.#stuck()) this.#after(REST_MS);
  }

  async #send(doc: Bench): Promise<void> {
    const own = written(doc);
    this.#unanswered.set(own, doc);
    const response = await fetch(`/api/benches/${this.of.id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ follows: this.revision, doc }),
    });
    if (response.ok) {
      this.#saved(SavedReply.parse(await response.json()).revision);
      return;
    }
    if (response.status === 409) {
      const newest = Conflict.parse(await response.json());
      const there = written(newest.doc);
      if (this.#unanswered.delete(there)) {
        // The page before was left while it was saving: what is there is this bench's own.
        if (there === own) return this.#saved(newest.revision);
        this.revision = newest.revision;
        return this.#send(doc);
      }
      this.theirs = newest;
      this.#next ??= doc;
      this.state = 'conflict';
      return;
    }
    const body = Problem.safeParse(await response.json().catch(() => null));
    this.#failed(doc, body.success ? body.data.detail : 'The bench could not be saved.');
  }

  #saved(revision: number): void {
    this.revision = revision;
    // What was changed while this was on its way is not saved by it.
    this.state = this.#next ? 'waiting' : 'saved';
    this.problem = '';
    this.#unanswered.clear();
    // What was changed meanwhile follows this revision now.
    if (this.#next) void keepUnsent(this.#waiting(this.#next));
    else void dropUnsent(this.of.id);
  }

  #failed(doc: Bench, problem: string): void {
    this.#next ??= doc;
    this.state = 'failed';
    this.problem = problem;
    this.#after(RETRY_MS);
  }

  /** Saves whatever waits, and waits until that is done or cannot be. */
  async settle(): Promise<void> {
    do {
      await this.flush();
      while (this.#busy) await new Promise((resolve) => setTimeout(resolve, 20));
    } while (this.#next && !this.#stuck());
  }

  /** From here on what is shown is the bench itself. */
  join(): void {
    this.apart = false;
    this.state = 'saved';
  }

  /** Goes on from a state that was kept in this browser: it followed this revision, and may have been saved. */
  follow({ follows, doc, sent }: Pick<Waiting, 'follows' | 'doc' | 'sent'>): void {
    this.revision = follows;
    for (const state of [...sent, doc]) this.#unanswered.set(written(state), state);
  }

  /** The page is being left: what is not saved is kept in this browser before it is gone. */
  leave(): void {
    if (this.apart || !this.unsaved || !this.#newest) return;
    keepAtLeaving(this.#waiting(this.#newest));
  }

  #waiting(doc: Bench): Waiting {
    const { id: bench, name } = this.of;
    return { bench, name, follows: this.revision, doc, sent: [...this.#unanswered.values()] };
  }

  /** Puts this page's state on top of the one saved elsewhere. */
  keepMine(doc: Bench): void {
    if (!this.theirs) return;
    this.revision = this.theirs.revision;
    this.theirs = null;
    this.state = 'waiting';
    this.#next = doc;
    void this.flush();
  }

  /** Takes the state saved elsewhere; gives it back for the page to show. */
  takeTheirs(): Bench | null {
    if (!this.theirs) return null;
    const { revision, doc } = this.theirs;
    this.revision = revision;
    this.theirs = null;
    this.#next = null;
    this.state = 'saved';
    void dropUnsent(this.of.id);
    return doc;
  }

  #stuck(): boolean {
    return this.state === 'failed' || this.state === 'conflict';
  }

  get unsaved(): boolean {
    return this.state !== 'saved';
  }

  #after(ms: number): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), ms);
  }
}
