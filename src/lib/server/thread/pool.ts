import { OverLimit } from '../errors';
import { WorkThread } from './client';
import { TOO_MUCH_MEMORY, tookTooLong } from './limits';
import type { ThreadTask } from './tasks';

/** Asks that may wait for a thread; more are refused at once. */
const MOST_WAITING = 200;
/** A task looks at the clock itself, at its pauses; after this much more it is ended from outside. */
const GRACE_MS = 1000;
const WATCH_MS = 100;

export interface PoolLimits {
  readonly threads: number;
  /** How long one task may take, from when it begins. */
  readonly taskMs: number;
  /** What one task may hold. */
  readonly memoryMb: number;
}

/** A thread of the pool, and since when it has been at work. */
interface Member {
  readonly thread: WorkThread;
  since: number | null;
}

/**
 * A few threads for work that only reads. A task has a thread to itself, so that it can be ended from
 * outside, whatever it is at, without harm to another; the server itself is never held up.
 */
export class ReadingPool {
  readonly #members: Member[];
  readonly #queue: ((member: Member) => void)[] = [];
  #watch: NodeJS.Timeout | null = null;
  /** What the process held when nothing was asked. */
  #restingBytes = 0;

  constructor(
    script: string,
    readonly limits: PoolLimits,
  ) {
    this.#members = Array.from({ length: limits.threads }, () => ({
      thread: new WorkThread(script, limits.memoryMb),
      since: null,
    }));
  }

  /** @throws OverLimit when it took too long or too much, or too many others wait already */
  async perform(task: ThreadTask): Promise<unknown> {
    const member = await this.#free();
    this.#watchMemory();
    const late = setTimeout(
      () => member.thread.end(new OverLimit(tookTooLong(this.limits.taskMs))),
      this.limits.taskMs + GRACE_MS,
    );
    try {
      return await member.thread.perform(task);
    } finally {
      clearTimeout(late);
      member.since = null;
      this.#queue.shift()?.(member);
      this.#rest();
    }
  }

  async stop(): Promise<void> {
    this.#rest(true);
    await Promise.all(this.#members.map(({ thread }) => thread.stop()));
  }

  #free(): Promise<Member> {
    const free = this.#members.find(({ since }) => since === null);
    if (free) {
      // Taken at once: whoever asks next finds another.
      free.since = performance.now();
      return Promise.resolve(free);
    }
    if (this.#queue.length >= MOST_WAITING)
      throw new OverLimit('Too many asks are waiting already. Try again in a moment.');
    return new Promise((resolve) => {
      this.#queue.push((member) => {
        member.since = performance.now();
        resolve(member);
      });
    });
  }

  #watchMemory(): void {
    if (this.#watch) return;
    this.#restingBytes = process.memoryUsage.rss();
    this.#watch = setInterval(() => this.#weigh(), WATCH_MS);
    this.#watch.unref();
  }

  /** Columns lie outside the heap that a thread's own limit watches: the oldest task gives way. */
  #weigh(): void {
    const busy = this.#members.filter(({ since }) => since !== null);
    const room = this.limits.memoryMb * 1024 * 1024 * Math.max(1, busy.length);
    if (process.memoryUsage.rss() - this.#restingBytes <= room) return;
    const [oldest] = busy.sort((a, b) => (a.since ?? 0) - (b.since ?? 0));
    oldest?.thread.end(new OverLimit(TOO_MUCH_MEMORY));
  }

  #rest(always = false): void {
    if (!this.#watch || (!always && this.#members.some(({ since }) => since !== null))) return;
    clearInterval(this.#watch);
    this.#watch = null;
  }
}
