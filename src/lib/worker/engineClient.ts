import { Trouble } from '../core/errors';
import type { ArgsOf, Do, ReplyOf } from '../engine/protocol';
import { Replies } from '../engine/replies';
import { FromEngine } from './fromEngine';
import type { z } from 'zod';
import type { ToEngine } from './toEngine';

const REPLIES: { readonly [K in Do]: z.ZodType<ReplyOf<K>> } = Replies;

/** A request that the engine refused, with its words. */
export class Refused extends Trouble {}

export interface Opened {
  readonly records: number;
}

interface Waiting {
  /** Checks what came and hands it on. */
  settle(value: unknown): void;
  reject(error: Error): void;
}

/** What the page is told while it waits. */
export interface EngineListener {
  progress(share: number): void;
  /** What was asked takes long. @param share what is done of it; null where that is not known */
  working(share: number | null): void;
  /** The worker ended by itself; `reopen` starts another. */
  died(): void;
}

/** The page's side of the engine in its worker. */
export class EngineClient {
  #worker: Worker;
  #next = 1;
  #opening: { resolve(opened: Opened): void; reject(error: Error): void } | null = null;
  readonly #waiting = new Map<number, Waiting>();

  constructor(readonly listener: EngineListener) {
    this.#worker = this.#start();
  }

  #start(): Worker {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', (event: MessageEvent<unknown>) =>
      this.#receive(FromEngine.parse(event.data)),
    );
    worker.addEventListener('error', () => {
      this.stop();
      this.listener.died();
    });
    return worker;
  }

  /** Loads a reading into the worker. */
  open(reading: number, base: string): Promise<Opened> {
    return new Promise((resolve, reject) => {
      this.#opening = { resolve, reject };
      this.#post({ kind: 'open', reading, base });
    });
  }

  /**
   * Asks of a session, by its token; a newer request in the same lane takes the place of an older one.
   * @throws Refused; its code is `superseded` when a newer one came
   */
  ask<K extends Do>(
    kind: K,
    args: Omit<ArgsOf<K>, 'token'>,
    { token, lane = kind }: { token?: number; lane?: string } = {},
  ): Promise<ReplyOf<K>> {
    const id = this.#next++;
    const schema: z.ZodType<ReplyOf<K>> = REPLIES[kind];
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, {
        settle(value) {
          const reply = schema.safeParse(value);
          if (reply.success) resolve(reply.data);
          else
            reject(
              new Refused(
                'badReply',
                `The calculation gave an answer this page cannot read: ${reply.error.message}`,
              ),
            );
        },
        reject,
      });
      const whole = token === undefined ? args : { ...args, token };
      this.#post({ kind: 'ask', id, lane, ask: kind, args: whole });
    });
  }

  /** Has the worker give up what is under way; each request is refused with the code `stopped`. */
  cancel(): void {
    this.#post({ kind: 'stop' });
  }

  stop(): void {
    this.#worker.terminate();
    const gone = new Refused(
      'workerDied',
      'The calculation was interrupted. Nothing was lost; it starts again.',
    );
    this.#opening?.reject(gone);
    for (const { reject } of this.#waiting.values()) reject(gone);
    this.#waiting.clear();
    this.#opening = null;
  }

  /** A new worker in the place of one that ended. */
  restart(): void {
    this.#worker = this.#start();
  }

  #post(message: ToEngine): void {
    this.#worker.postMessage(message);
  }

  #receive(message: FromEngine): void {
    switch (message.kind) {
      case 'progress':
        return this.listener.progress(message.share);
      case 'working':
        return this.listener.working(message.share);
      case 'opened':
        this.#opening?.resolve(message);
        this.#opening = null;
        return;
      case 'failed':
        this.#opening?.reject(new Refused('openFailed', message.message));
        this.#opening = null;
        return;
      case 'answer': {
        const waiting = this.#waiting.get(message.id);
        this.#waiting.delete(message.id);
        waiting?.settle(message.value);
        return;
      }
      case 'refusal': {
        const waiting = this.#waiting.get(message.id);
        this.#waiting.delete(message.id);
        waiting?.reject(new Refused(message.code, message.message));
      }
    }
  }
}
