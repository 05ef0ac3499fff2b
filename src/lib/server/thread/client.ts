import { StorageFull, TaskFailed } from '../errors';
import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import { log } from '../log';
import { TaskResult, type Task } from './tasks';

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

  constructor(readonly script: string) {}

  perform(task: Task): Promise<unknown> {
    const worker = (this.#worker ??= this.#start());
    const id = this.#next++;
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      worker.postMessage({ id, task });
    });
  }

  async stop(): Promise<void> {
    await this.#worker?.terminate();
    this.#worker = null;
  }

  #start(): Worker {
    const worker = new Worker(this.script);
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
      for (const { reject } of this.#waiting.values())
        reject(
          new TaskFailed('threadDied', 'The work was interrupted. Nothing was changed; try again.'),
        );
      this.#waiting.clear();
    };
    worker.on('error', died);
    worker.on('exit', died);
    return worker;
  }
}
