import { readdirSync } from 'node:fs';
import { afterAll, afterEach, beforeAll } from 'vitest';
import { Page } from './browser';
import { TestServer } from './server';

const CLIENT = 'build/client';

/** All scripts and styles of the page, by their addresses. */
const parts = (): string[] =>
  readdirSync(`${CLIENT}/_app/immutable`, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(js|css)$/.test(file))
    .map((file) => `/_app/immutable/${file}`);

/**
 * A server with data of its own and a page on it, for all tests of a file: both are there before the
 * first of them and gone after the last, whatever failed.
 * @param env settings of the server
 * @param before what must stand in its data folder before it starts
 * @example const { server, page } = journey({ TALLY_LOFT_DEMO: 'no' });
 */
export function journey(
  env: Record<string, string> = {},
  before: (data: string) => void = () => undefined,
): { readonly server: TestServer; readonly page: Page } {
  const server = new TestServer(env);
  const page = new Page();
  beforeAll(async () => {
    before(server.data);
    await begin(await server.start());
  });
  async function begin(address: string): Promise<void> {
    // Now and then a browser never gets one of the scripts or styles, nor does any later page of it: another does.
    for (let tries = 1; ; tries++) {
      await page.open(address);
      const absent = await page.fetchAll(parts());
      if (absent.length === 0 || tries === 3) return;
      process.stderr.write(`A browser was begun anew, as it never got ${absent.join(', ')}.\n`);
      await page.quit();
    }
  }
  // What a journey waited for in vain says little of why: what the page showed and said is told with it.
  afterEach(async ({ task }) => {
    if (task.result?.state !== 'fail') return;
    const told = await page.troubles();
    for (const error of task.result.errors ?? []) error.message += `\n${told}`;
  });
  afterAll(async () => {
    await page.close();
    await server.stop();
  });
  return { server, page };
}
