import { OverLimit, StorageFull, TaskFailed } from '../errors';
import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import { log } from '../log';
import { checkStillThere } from '../storage/database';
import { TOO_MUCH_MEMORY } from './limits';
import { TaskResult, type ThreadTask } from './tasks';

const Message = z.object({ id: z.number(), result: TaskResult });

interface Waiting {
  resolve(value: unknown): void;
  reject(error: Error): void;
}

/** One thread, started when first needed and again after it died. */
export class WorkThread {
  #worker: Worker | null = null;
  #next = 1;
  readonly #waiting = new Map<number, Waiting>();

  /** @param heapMb what it may hold besides columns; more ends it, and never the server */
  constructor(
    readonly script: string,
    readonly heapMb?: number,
  ) {}

  /** @throws StorageGone */
  async perform(task: ThreadTask): Promise<unknown> {
    checkStillThere();
    const worker = (this.#worker ??= this.#start());
    const id = this.#next++;
    return await new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      worker.postMessage({ id, task });
    });
  }

  /** Ends it from outside, whatever it is at. What it was to answer fails with this error. */
  end(why: Error): void {
    const worker = this.#worker;
    this.#worker = null;
    this.#fail(why);
    void worker?.terminate();
  }

  async stop(): Promise<void> {
    const worker = this.#worker;
    this.#worker = null;
    await worker?.terminate();
  }

  #fail(why: Error): void {
    for (const { reject } of this.#waiting.values()) reject(why);
    this.#waiting.clear();
  }

  #start(): Worker {
    const worker = new Worker(this.script, {
      resourceLimits: this.heapMb === undefined ? {} : { maxOldGenerationSizeMb: this.heapMb },
    });
    worker.unref();
    worker.on('message', (raw) => {
      const { id, result } = Message.parse(raw);
      const waiting = this.#waiting.get(id);
      this.#waiting.delete(id);
      if (result.ok) waiting?.resolve(result.value);
      else
        waiting?.reject(
          result.code === 'storageFull'
            ? new StorageFull()
            : new TaskFailed(result.code, result.message, result.faults),
        );
    });
    const died = (why: unknown): void => {
      if (this.#worker !== worker) return;
      this.#worker = null;
      log().error({ why: String(why) }, 'the work thread ended');
      this.#fail(
        outOfMemory(why)
          ? new OverLimit(TOO_MUCH_MEMORY)
          : new TaskFailed(
              'threadDied',
              'The work was interrupted. Nothing was changed; try again.',
            ),
      );
    };
    worker.on('error', died);
    worker.on('exit', died);
    return worker;
  }
}

const outOfMemory = (why: unknown): boolean =>
  why instanceof Error && 'code' in why && why.code === 'ERR_WORKER_OUT_OF_MEMORY';
