import { DelimitedReader, proposeRecipe } from '$lib/core/read/delimited';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import type { ReadFile } from '$lib/worker/intakeSending';
import { TestServer } from '../../tests/interface/support/server';
import { Client } from './client';

/*
 * `npm run load [CLIENTS] [SECONDS]`: many at once ask, look, save and refresh one list; then damaged
 * chunks and patterns made to hold a server up come, while others go on asking. Every request must be
 * answered, and truly: anything else is named, and the run exits with 1.
 */

const [clients = 200, seconds = 30] = process.argv.slice(2).map(Number);

/** A small list, the same each time. */
function sailings(): ReadFile {
  const routes = ['Holm', 'Ness', 'Skerry', 'Inner Isles'];
  const lines = Array.from(
    { length: 2000 },
    (_, k) => `${routes[k % 4]},${k % 61},2025-${String((k % 12) + 1).padStart(2, '0')}-11`,
  );
  const bytes = new TextEncoder().encode(`route,delay,day\n${lines.join('\n')}\n`);
  const recipe = proposeRecipe(bytes, true);
  const reader = new DelimitedReader(recipe);
  reader.push(bytes, true);
  return { recipe, table: reader.finish().table, doubts: [] };
}

/** Numbers that are the same in every run (a linear congruential generator, Numerical Recipes). */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state % below;
  };
}

const asked = (): object => ({
  tallies: [
    {
      kind: 'ledger',
      groups: [{ column: 'route' }],
      measures: [{ kind: 'mean', column: 'delay' }],
    },
    { kind: 'percentile', column: 'delay', percentiles: [50, 90] },
  ],
});

/** An ask whose pattern backtracking would never end. */
function hostile(k: number): object {
  const many = 'a'.repeat(30 + (k % 10));
  const TESTS = [
    { test: 'regex', text: `^(${'a+'.repeat(1 + (k % 3))})+$` },
    { test: 'regex', text: `^(a|aa|a*)*b{${k % 9}}$` },
    { test: 'pattern', text: '*a'.repeat(40) },
    { test: 'regex', text: `(.*a){${20 + (k % 20)}}` },
  ];
  return {
    computed: [
      { name: 'long', expression: `'${many}!' || route` },
      { name: 'double', expression: 'long || long || long || long' },
    ],
    ladder: {
      rungs: [{ condition: { kind: 'leaf', column: 'double', test: TESTS[k % TESTS.length] } }],
    },
    tallies: [{ kind: 'ledger' }],
  };
}

/** What happened, by kind of request and status. */
class Book {
  readonly #times = new Map<string, number[]>();
  wrong = 0;

  /** @param may statuses that are true answers of a kind, besides 200 to 204 */
  constructor(readonly may: Readonly<Record<string, readonly number[]>>) {}

  readonly told = (what: string, status: number, ms: number): void => {
    const right = (status >= 200 && status <= 204) || (this.may[what] ?? []).includes(status);
    if (!right) this.wrong++;
    const key = `${what} ${status}${right ? '' : ' WRONG'}`;
    const times = this.#times.get(key);
    if (times) times.push(ms);
    else this.#times.set(key, [ms]);
  };

  write(title: string): void {
    const lines = [...this.#times].toSorted().map(([key, times]) => {
      times.sort((a, b) => a - b);
      const at = (p: number): string => times[Math.ceil(p * times.length) - 1].toFixed(0);
      return `  ${key.padEnd(24)}${String(times.length).padStart(7)}   median ${at(0.5)} ms, 99 % within ${at(0.99)}, slowest ${at(1)}`;
    });
    process.stdout.write(`${title}\n${lines.join('\n')}\n`);
  }
}

async function crowd(address: string, file: ReadFile): Promise<number> {
  const book = new Book({ save: [409] });
  const until = performance.now() + seconds * 1000;
  await Promise.all(
    Array.from({ length: clients }, async (_, k) => {
      const client = new Client(address, book.told);
      const next = numbers(k + 1);
      while (performance.now() < until)
        if (k < 2) await client.bring('refresh', file, 1);
        else {
          const act = next(10);
          if (act < 4) await client.ask('ask', 1, asked());
          else if (act < 7) await client.save(1);
          else await client.page(act === 9 ? '/' : '/benches/1');
        }
    }),
  );
  book.write(`${clients} clients for ${seconds} s`);
  return book.wrong;
}

async function hostility(address: string, file: ReadFile): Promise<number> {
  const book = new Book({ damaged: [400, 404, 409, 413, 422], hostile: [422] });
  const client = new Client(address, book.told);
  let going = true;
  const honest = (async () => {
    while (going) await client.ask('others', 1, asked());
  })();
  const chunk = encodeChunk(file.table, 0);
  const next = numbers(7);
  await Promise.all(
    Array.from({ length: 100 }, async (_, k) => {
      const bad = chunk.slice(0, chunk.length - next(3) * next(chunk.length >> 2));
      for (let n = 0; n < 1 + next(5); n++) bad[next(bad.length)] = next(256);
      await client.bring('damaged', file, null, bad);
      await client.ask('hostile', 1, hostile(k));
    }),
  );
  going = false;
  await honest;
  await client.page('/');
  book.write('100 damaged chunks and 100 hostile patterns, others asking meanwhile');
  return book.wrong;
}

const server = new TestServer({ TALLY_LOFT_DEMO: 'no' });
const address = await server.start();
try {
  const file = sailings();
  await new Client(address, () => undefined).bring('first', file, null);
  const wrong = (await crowd(address, file)) + (await hostility(address, file));
  if (wrong) process.stdout.write(`${wrong} requests were not answered as they should be.\n`);
  process.exitCode = wrong ? 1 : 0;
} finally {
  await server.stop();
}
