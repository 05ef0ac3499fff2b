import { z } from 'zod';
import type { Bench } from '../../core/bench/document';
import { AnyBench } from '../../core/bench/upgrade';

const Saved = z.object({ revision: z.int(), savedAt: z.string() });
const Conflict = z.object({ revision: z.int(), doc: AnyBench });
const Problem = z.object({ detail: z.string() });

/** How long a bench rests before it is saved. */
const REST_MS = 600;
const RETRY_MS = 5000;

/** Saves a bench by itself, one save after another, and notices saves from elsewhere. */
export class Saver {
  revision = $state(0);
  state = $state<'saved' | 'saving' | 'waiting' | 'failed' | 'conflict'>('saved');
  problem = $state('');
  /** The state that was saved elsewhere, when it stands in the way. */
  theirs = $state.raw<{ revision: number; doc: Bench } | null>(null);
  #next: Bench | null = null;
  #timer: ReturnType<typeof setTimeout> | null = null;
  #busy = false;

  constructor(
    readonly url: string,
    revision: number,
  ) {
    this.revision = revision;
  }

  /** Saves this state once nothing has changed for a moment. */
  save(doc: Bench): void {
    this.#next = doc;
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
        'The server does not answer. Your changes stay on this page and are saved when it does.',
      );
    } finally {
      this.#busy = false;
    }
    // A failure and a conflict have set their own course.
    if (this.#next && !this.#stuck()) this.#after(REST_MS);
  }

  async #send(doc: Bench): Promise<void> {
    const response = await fetch(this.url, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ follows: this.revision, doc }),
    });
    if (response.ok) {
      this.revision = Saved.parse(await response.json()).revision;
      this.state = 'saved';
      this.problem = '';
      return;
    }
    if (response.status === 409) {
      this.theirs = Conflict.parse(await response.json());
      this.#next ??= doc;
      this.state = 'conflict';
      return;
    }
    const body = Problem.safeParse(await response.json().catch(() => null));
    this.#failed(doc, body.success ? body.data.detail : 'The bench could not be saved.');
  }

  #failed(doc: Bench, problem: string): void {
    this.#next ??= doc;
    this.state = 'failed';
    this.problem = problem;
    this.#after(RETRY_MS);
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
