import { afterAll, beforeAll } from 'vitest';
import { Page } from './browser';
import { TestServer } from './server';

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
    await page.open(await server.start());
  });
  afterAll(async () => {
    await page.close();
    await server.stop();
  });
  return { server, page };
}
