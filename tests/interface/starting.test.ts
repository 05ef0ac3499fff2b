import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { TestServer } from './support/server';

let server: TestServer | null = null;
const rest: string[] = [];
afterEach(async () => {
  await server?.stop();
  server = null;
  for (const name of rest.splice(0)) rmSync(name, { recursive: true, force: true });
});

/** Starts a server that is not expected to run: how it ended, and what it said. */
function started(env: Record<string, string>): { code: number | null; said: string } {
  const { status, stderr } = spawnSync(process.execPath, ['scripts/serve.mjs'], {
    env: { ...process.env, TALLY_LOFT_PORT: '0', TALLY_LOFT_LOG: 'error', ...env },
    encoding: 'utf8',
    timeout: 20_000,
  });
  return { code: status, said: stderr };
}
const none = { TALLY_LOFT_DEMO: 'no' };

describe('a server that cannot start says why in one sentence', () => {
  it('where another runs on its data, of which it touches nothing', async () => {
    server = new TestServer(none);
    await server.start();
    writeFileSync(path.join(server.data, 'incoming', 'on its way'), '');
    const { code, said } = started({ ...none, TALLY_LOFT_DATA: server.data });
    expect(code).toBe(1);
    expect(said).toMatch(
      /^Tally Loft cannot start: Another Tally Loft runs on the data folder .*\n$/,
    );
    expect(readdirSync(path.join(server.data, 'incoming'))).toEqual(['on its way']);
  });

  it('where the folder is a file, or what is in it is no database', () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-start-'));
    rest.push(folder);
    const file = path.join(folder, 'data');
    writeFileSync(file, '');
    expect(started({ ...none, TALLY_LOFT_DATA: file })).toEqual({
      code: 1,
      said: expect.stringMatching(/^Tally Loft cannot start: “.*data” is a file\. .*\n$/),
    });
    writeFileSync(path.join(folder, 'tally-loft.sqlite'), 'no database '.repeat(500));
    expect(started({ ...none, TALLY_LOFT_DATA: folder })).toEqual({
      code: 1,
      said: expect.stringMatching(
        /^Tally Loft cannot start: “.*” is no database of Tally Loft.*\n$/,
      ),
    });
  });
});

describe('a server that runs', () => {
  it('ends within 5 s when it is asked to, and leaves its data closed', async () => {
    server = new TestServer(none);
    await server.start();
    expect(await server.end()).toBe(0);
    expect(existsSync(path.join(server.data, 'tally-loft.sqlite-wal'))).toBe(false);
    await server.start();
    expect((await fetch(`${server.address}/api/lists`)).status).toBe(200);
  });

  it('notices at the next save that its database is gone', async () => {
    server = new TestServer();
    await server.start();
    const bench = `${server.address}/api/benches/1`;
    const { revision, doc } = await (await fetch(bench)).json();
    const save = (): Promise<Response> =>
      fetch(bench, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ follows: revision, doc }),
      });
    const file = path.join(server.data, 'tally-loft.sqlite');
    renameSync(file, `${file}.moved`);
    const begun = await save();
    const { title, detail } = await begun.json();
    expect([begun.status, title, detail]).toEqual([
      503,
      'The database is gone',
      expect.stringContaining('Nothing was saved'),
    ]);
    renameSync(`${file}.moved`, file);
    expect((await save()).status).toBe(200);
  });

  it('is backed up while it runs, and restored when it does not', async () => {
    server = new TestServer(none);
    await server.start();
    const run = (...args: string[]): { status: number | null; text: string } => {
      const { status, stdout, stderr } = spawnSync(
        process.execPath,
        ['scripts/backup.mjs', ...args],
        {
          env: { ...process.env, TALLY_LOFT_DATA: server?.data },
          encoding: 'utf8',
        },
      );
      return { status, text: stdout + stderr };
    };
    const copy = path.join(server.data, 'copy.sqlite');
    expect(run('backup', copy)).toEqual({
      status: 0,
      text: expect.stringContaining('All data of'),
    });
    expect(run('restore', copy)).toEqual({
      status: 1,
      text: expect.stringContaining('Another Tally Loft runs'),
    });
    await server.end();
    expect(run('restore', copy)).toEqual({
      status: 0,
      text: expect.stringContaining('What was there is kept as'),
    });
    await server.start();
    expect((await fetch(`${server.address}/api/lists`)).status).toBe(200);
  });
});
