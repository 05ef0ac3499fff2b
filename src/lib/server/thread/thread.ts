import { BadAsk, codeOf } from '$lib/core/errors';
import { parentPort } from 'node:worker_threads';
import { answer, answerLeft, wish } from './perform/ask';
import { demo } from './perform/demo';
import { file } from './perform/file';
import { ledger } from './perform/ledger';
import { make } from './perform/make';
import { move } from './perform/move';
import { redescribe } from './perform/redescribe';
import { report } from './perform/report';
import { store } from './perform/store';
import { takeOut } from './perform/takeOut';
import { ThreadTask, type TaskResult } from './tasks';

async function perform(task: ThreadTask): Promise<unknown> {
  switch (task.task) {
    case 'store':
      return store(task);
    case 'demo':
      return demo(task);
    case 'move':
      return move(task);
    case 'takeOut':
      return takeOut(task);
    case 'redescribe':
      return redescribe(task);
    case 'make':
      return make(task);
    case 'ledger':
      return ledger(task);
    case 'report':
      return report(task);
    case 'file':
      return file(task);
    case 'answer':
      return answer(task);
    case 'answerLeft':
      return answerLeft(task);
    case 'wish':
      return wish(task);
  }
}

parentPort?.on('message', async (message: { id: number; task: unknown }) => {
  let result: TaskResult;
  try {
    result = { ok: true, value: await perform(ThreadTask.parse(message.task)) };
  } catch (error) {
    result = {
      ok: false,
      code: codeOf(error),
      message: error instanceof Error ? error.message : String(error),
      ...(error instanceof BadAsk && { faults: [...error.faults] }),
    };
  }
  parentPort?.postMessage({ id: message.id, result });
});
