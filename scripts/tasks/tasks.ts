// Does the analyst's tasks in the running application, by pointer and by keys, and counts the acts.
// Run: npm run tasks; -- 7 12 for some of them
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { z } from 'zod';
import { Page } from '../../tests/interface/support/browser';
import { choose, untilRead } from '../../tests/interface/support/intake';
import { openTray } from '../../tests/interface/support/tally';
import { TestServer } from '../../tests/interface/support/server';
import { Hand } from './hand';
import { questionTasks } from './questions';
import { recordTasks } from './records';
import type { Task, Way } from './task';

const Benches = z.object({
  lists: z.array(
    z.object({ id: z.int(), name: z.string(), benches: z.array(z.object({ id: z.int() })) }),
  ),
});

const wanted = process.argv.slice(2).map(Number);
const tasks = [...recordTasks, ...questionTasks]
  .filter(({ number }) => wanted.length === 0 || wanted.includes(number))
  .sort((a, b) => a.number - b.number);

const server = new TestServer();
const page = await Page.open(await server.start());

/** A bench of a list as the demo has it, whatever was done before. */
async function begin(list: string): Promise<void> {
  const [, file] = /^intake: (.+)$/.exec(list) ?? [];
  if (file !== undefined) {
    await choose(page, path.join(process.cwd(), `demo/${file}.csv`));
    await untilRead(page);
    return;
  }
  const { lists } = Benches.parse(await (await fetch(`${server.address}/api/lists`)).json());
  const of = lists.find(({ name }) => name === list);
  if (!of) throw new Error(`The demo has no list “${list}”.`);
  const given: unknown = await (
    await fetch(`${server.address}/api/benches/${of.benches[0].id}`)
  ).json();
  const { doc } = z.object({ doc: z.unknown() }).parse(given);
  const made = await fetch(`${server.address}/api/lists/${of.id}/benches`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Task', doc }),
  });
  const { id } = z.object({ id: z.int() }).parse(await made.json());
  await openTray(page, `/benches/${id}`);
}

async function acts({ list }: Task, way: Way): Promise<string> {
  await begin(list);
  const hand = new Hand(page);
  try {
    await way(hand);
    const [fault] = await page.all('[data-test=fault]');
    if (fault) throw new Error(`The page says: ${await fault.getText()}`);
    return String(hand.acts);
  } catch (error) {
    process.stderr.write(`${String(error)}\n`);
    return 'not done';
  }
}

const ABOUT = `# The analyst's tasks

Done in the running application by \`npm run tasks\`, each from a bench of the demo as it comes, by pointer (typing where words are asked for) and by keys alone. An act is a click, a drag, a key (or several pressed together) or one run of typing; looking costs nothing. Each task ends where its answer stands on the page, which is looked for.

| # | task | meant | by pointer | by keys |
| --- | --- | --- | --- | --- |
`;

const lines: string[] = [];
try {
  for (const task of tasks) {
    const [pointer, keys] = [await acts(task, task.pointer), await acts(task, task.keys)];
    const line = `| ${task.number} | ${task.words} | ${task.most} | ${pointer} | ${keys} |`;
    process.stdout.write(`${line}\n`);
    lines.push(line);
  }
  if (wanted.length === 0) {
    const file = path.join(process.cwd(), 'docs/tasks.md');
    const text = `${ABOUT}${lines.join('\n')}\n`;
    writeFileSync(file, await format(text, { ...(await resolveConfig(file)), parser: 'markdown' }));
  }
} finally {
  await page.close();
  await server.stop();
}
