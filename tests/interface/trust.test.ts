import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { z } from 'zod';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { encodeChunk } from '$lib/core/table/arrowWrite';
import { Page } from './support/browser';
import { readText } from '../support/demo';
import { TestServer } from './support/server';

const servers: TestServer[] = [];
async function serving(env: Record<string, string> = {}): Promise<TestServer> {
  const server = new TestServer({ TALLY_LOFT_DEMO: 'no', ...env });
  servers.push(server);
  await server.start();
  return server;
}
afterEach(async () => {
  for (const server of servers.splice(0)) await server.stop();
});

const { recipe, reading } = readText('route,n\nHolm,1\nNess,2\n');

const ARROW = { 'content-type': 'application/vnd.apache.arrow.stream' };
const JSON_BODY = { 'content-type': 'application/json' };

const Begun = z.object({ id: z.string() });
const Refreshed = z.object({ reading: z.int() });
const Readings = z.array(z.object({ id: z.int(), current: z.boolean() }));
const Saved = z.object({ revision: z.int(), doc: z.looseObject({ reading: z.int() }) });

/** Sends the columns of a list, to be accepted. */
async function begun(address: string, table = reading.table): Promise<{ id: string }> {
  const intake = await fetch(`${address}/api/intakes`, { method: 'POST' });
  const { id } = Begun.parse(await intake.json());
  await fetch(`${address}/api/intakes/${id}/chunks/0`, {
    method: 'PUT',
    headers: ARROW,
    body: new Uint8Array(encodeChunk(table, 0)),
  });
  return { id };
}

const accept = (
  address: string,
  id: string,
  list: number | null = null,
  name = 'List',
  records = reading.table.length,
): Promise<Response> =>
  fetch(`${address}/api/intakes/${id}`, {
    method: 'POST',
    headers: JSON_BODY,
    body: JSON.stringify({
      list,
      name,
      fileName: 'x.csv',
      records,
      chunks: 1,
      recipe,
      doubts: [],
      setAside: [],
    }),
  });

/** Sends a list as the intake page does. */
async function bringIn(address: string, name = 'List', table = reading.table): Promise<Response> {
  const { id } = await begun(address, table);
  return accept(address, id, null, name, table.length);
}

const lists = (server: TestServer): number => {
  const db = new Sqlite(path.join(server.data, 'tally-loft.sqlite'), { readonly: true });
  try {
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
    const orphans = db
      .prepare('select count(*) n from readings where id not in (select reading_id from chunks)')
      .get() as { n: number };
    expect(orphans.n).toBe(0);
    return (db.prepare('select count(*) n from lists').get() as { n: number }).n;
  } finally {
    db.close();
  }
};

/** Bytes of a database that lie in its log still. */
const walOf = (file: string): number =>
  existsSync(`${file}-wal`) ? statSync(`${file}-wal`).size : 0;

describe('who may ask', () => {
  it('writes from another site are refused, also under a foreign name', async () => {
    const { address } = await serving();
    const port = Number(new URL(address).port);
    const ask = (headers: Record<string, string>, method = 'POST'): Promise<number> =>
      new Promise((resolve) => {
        request(
          {
            host: '127.0.0.1',
            port,
            path: method === 'GET' ? '/' : '/api/intakes',
            method,
            headers,
          },
          (r) => {
            r.resume();
            resolve(r.statusCode ?? 0);
          },
        ).end();
      });
    expect(await ask({ 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(await ask({ 'sec-fetch-site': 'same-site' })).toBe(403);
    expect(await ask({ origin: 'http://elsewhere.example' })).toBe(403);
    expect(await ask({ origin: `http://127.0.0.1:${port}` })).toBe(201);
    expect(await ask({})).toBe(201);
    expect(await ask({ host: 'elsewhere.example' }, 'GET')).toBe(421);
  });

  it('lets no inline script run but the framework’s own, and no eval', async () => {
    const server = await serving();
    const policy = (await fetch(server.address)).headers.get('content-security-policy') ?? '';
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'/);
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    const page = await Page.open(server.address);
    try {
      await page.go('/');
      // Later than the driver's own call, which the policy does not bind.
      const outcome = await page.driver.executeAsyncScript<string[]>(`
        const done = arguments[arguments.length - 1];
        setTimeout(() => {
          const out = [];
          try { (0, eval)('1'); out.push('eval ran'); } catch { out.push('no eval'); }
          const s = document.createElement('script'); s.textContent = 'window.bad = 1'; document.body.append(s);
          out.push(window.bad ? 'inline ran' : 'no inline');
          done(out);
        }, 50);`);
      expect(outcome).toEqual(['no eval', 'no inline']);
    } finally {
      await page.close();
    }
  });

  it('on another address a passphrase is asked for', async () => {
    const refused = spawnSync(process.execPath, ['scripts/serve.mjs'], {
      env: { ...process.env, TALLY_LOFT_HOST: '0.0.0.0' },
      encoding: 'utf8',
    });
    expect(refused.status).toBe(1);
    expect(refused.stderr).toContain('TALLY_LOFT_PASSPHRASE must be set');
    const server = await serving({
      TALLY_LOFT_HOST: '0.0.0.0',
      TALLY_LOFT_PASSPHRASE: 'tide and ledger',
    });
    const address = server.address.replace('0.0.0.0', '127.0.0.1');
    expect((await fetch(`${address}/`, { redirect: 'manual' })).headers.get('location')).toBe(
      '/enter',
    );
    const unknown = await fetch(`${address}/api/benches/1`);
    expect(unknown.status).toBe(401);
    expect(unknown.headers.get('cache-control')).toBe('no-store');
    expect(unknown.headers.get('x-content-type-options')).toBe('nosniff');
    const enter = (passphrase: string, more = {}): Promise<Response> =>
      fetch(`${address}/enter`, {
        method: 'POST',
        redirect: 'manual',
        headers: { origin: address, ...more },
        body: new URLSearchParams({ passphrase }),
      });
    expect((await enter('wrong words')).headers.get('set-cookie')).toBeNull();
    // Nobody who has not entered can make the server hold more than a passphrase.
    const long = await enter(`tide and ledger${' '.repeat(2_000_000)}`, {
      connection: 'close',
    });
    expect(long.headers.get('set-cookie')).toBeNull();
    const cookie = (await enter('tide and ledger')).headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/i);
    expect((await fetch(`${address}/`, { headers: { cookie: cookie.split(';')[0] } })).status).toBe(
      200,
    );
    expect(
      (
        await fetch(`${address}/`, {
          redirect: 'manual',
          headers: { cookie: 'tally-loft-session=9999999999999.x' },
        })
      ).status,
    ).toBe(303);
  });

  it('bad settings are named at the start', () => {
    const { status, stderr } = spawnSync(process.execPath, ['scripts/serve.mjs'], {
      env: { ...process.env, TALLY_LOFT_PORT: 'many', TALLY_LOFT_LOG: 'loud' },
      encoding: 'utf8',
    });
    expect(status).toBe(1);
    expect(stderr).toContain('TALLY_LOFT_PORT must be a whole number');
    expect(stderr).toContain('TALLY_LOFT_LOG must be');
  });
});

describe('what the server takes', () => {
  it('faults are problem details, and nothing half is kept', async () => {
    const server = await serving();
    expect((await bringIn(server.address)).status).toBe(201);
    const missing = await fetch(`${server.address}/api/benches/99`);
    expect(missing.status).toBe(404);
    expect(missing.headers.get('content-type')).toBe('application/problem+json');
    const wrong = await bringIn(server.address, '');
    expect(wrong.status).toBe(400);
    expect(await wrong.json()).toMatchObject({
      status: 400,
      detail: expect.stringContaining('needs a name'),
    });
    const other = readText('something,else\nx,1\ny,2\n').reading.table;
    expect((await bringIn(server.address, 'Lies', other)).status).toBe(422);
    expect(
      (
        await fetch(`${server.address}/api/benches/1`, {
          method: 'PUT',
          headers: JSON_BODY,
          body: '{"follows":1,"doc":{}}',
        })
      ).status,
    ).toBe(400);
    expect(
      (
        await fetch(`${server.address}/api/benches/1`, {
          method: 'PUT',
          headers: JSON_BODY,
          body: 'no json',
        })
      ).status,
    ).toBe(400);
    expect((await fetch(`${server.address}/api/readings/1/chunks/..%2f..%2fetc`)).status).toBe(400);
    expect(lists(server)).toBe(1);
  });

  it('reckons a saved bench on the server by the same code', async () => {
    const server = await serving();
    await bringIn(server.address);
    const overview = (await (await fetch(`${server.address}/api/benches/1/ledger`)).json()) as {
      foot: { cells: string[] }[];
    };
    expect(overview.foot[2].cells).toContain('3');
    const csv = await (await fetch(`${server.address}/api/benches/1/ledger?as=csv`)).text();
    expect(csv.split('\r\n')[0]).toContain('n');
    expect(csv).toContain('3');
  });

  it('more than the limit is refused', async () => {
    const server = await serving({ TALLY_LOFT_UPLOAD_MB: '1' });
    const { id } = (await (
      await fetch(`${server.address}/api/intakes`, { method: 'POST' })
    ).json()) as { id: string };
    const reply = await fetch(`${server.address}/api/intakes/${id}/chunks/0`, {
      method: 'PUT',
      headers: ARROW,
      body: new Uint8Array(3 * 1024 * 1024),
    });
    expect(reply.status).toBe(413);
  });

  it('a full disk (a small quota stands in) is said, and what was there stays', async () => {
    const server = await serving({ TALLY_LOFT_STORAGE_MB: '1' });
    expect((await bringIn(server.address)).status).toBe(201);
    const big = readText(
      `t,n\n${Array.from({ length: 60_000 }, (_, i) => `text number ${i} and more of it,${i}`).join('\n')}\n`,
    );
    const { id } = (await (
      await fetch(`${server.address}/api/intakes`, { method: 'POST' })
    ).json()) as { id: string };
    await fetch(`${server.address}/api/intakes/${id}/chunks/0`, {
      method: 'PUT',
      headers: ARROW,
      body: new Uint8Array(encodeChunk(big.reading.table, 0)),
    });
    const reply = await fetch(`${server.address}/api/intakes/${id}`, {
      method: 'POST',
      headers: JSON_BODY,
      body: JSON.stringify({
        list: null,
        name: 'Big',
        fileName: 'x',
        records: 60_000,
        chunks: 1,
        recipe: big.recipe,
        doubts: [],
        setAside: [],
      }),
    });
    expect(reply.status).toBe(507);
    expect(await reply.json()).toMatchObject({ detail: expect.stringContaining('no room left') });
    expect(lists(server)).toBe(1);
    // A save that needs more room than there is left fails as clearly, and the bench stays.
    const bench = (await (await fetch(`${server.address}/api/benches/1`)).json()) as {
      revision: number;
      doc: { tray: { view: { turned: string[] } }[] };
    };
    bench.doc.tray[0].view.turned = Array.from({ length: 900 }, (_, i) => `${i}`.padEnd(1000, 'x'));
    const save = await fetch(`${server.address}/api/benches/1`, {
      method: 'PUT',
      headers: JSON_BODY,
      body: JSON.stringify({ follows: bench.revision, doc: bench.doc }),
    });
    expect(save.status).toBe(507);
    expect(
      ((await (await fetch(`${server.address}/api/benches/1`)).json()) as { revision: number })
        .revision,
    ).toBe(bench.revision);
  });
});

describe('sent again', () => {
  it('an intake accepted twice, or five times at once, makes one list', async () => {
    const server = await serving();
    const { id } = await begun(server.address);
    const accepted = (): Promise<Response> => accept(server.address, id);
    const answers = await Promise.all(Array.from({ length: 5 }, accepted));
    const texts = await Promise.all(answers.map((a) => a.text()));
    expect(answers.map((a) => a.status)).toEqual(Array.from({ length: 5 }, () => 201));
    expect(new Set(texts).size).toBe(1);
    expect(lists(server)).toBe(1);
    // Also when the server was started anew in between, and has forgotten what was sent.
    await server.kill();
    await server.start();
    const later = await accept(server.address, id);
    expect([later.status, await later.text()]).toEqual([201, texts[0]]);
    expect(lists(server)).toBe(1);
  });

  it('refreshes beside saves: each is answered truly, and none fails', async () => {
    const server = await serving();
    const { address } = server;
    await bringIn(address);
    let going = true;
    const seen = new Set<number>();
    const saving = Array.from({ length: 6 }, async () => {
      while (going) {
        const { revision, doc } = Saved.parse(
          await (await fetch(`${address}/api/benches/1`)).json(),
        );
        const reply = await fetch(`${address}/api/benches/1`, {
          method: 'PUT',
          headers: JSON_BODY,
          body: JSON.stringify({ follows: revision, doc }),
        });
        seen.add(reply.status);
      }
    });
    for (let k = 0; k < 12; k++) {
      const { id } = await begun(address);
      const reply = await accept(address, id, 1);
      seen.add(reply.status);
      const { reading } = Refreshed.parse(await reply.json());
      const readings = Readings.parse(
        await (await fetch(`${address}/api/lists/1/readings`)).json(),
      );
      expect(readings.find((r) => r.current)?.id).toBe(reading);
      const { doc } = Saved.parse(await (await fetch(`${address}/api/benches/1`)).json());
      expect(doc.reading).toBe(reading);
    }
    going = false;
    await Promise.all(saving);
    // 409: a save that did not follow the newest, which is what it was told.
    expect([...seen].filter((status) => ![200, 201, 409].includes(status))).toEqual([]);
    expect(seen.has(201) && seen.has(200)).toBe(true);
  });
});

describe('what the application keeps', () => {
  it('can be read by its owner alone', async () => {
    const server = await serving();
    await bringIn(server.address);
    const rights = (name: string): string =>
      (statSync(path.join(server.data, name)).mode & 0o777).toString(8);
    expect(rights('.')).toBe('700');
    expect(rights('incoming')).toBe('700');
    for (const name of readdirSync(server.data).filter((n) => n.startsWith('tally-loft')))
      expect(rights(name), name).toBe('600');
  });

  it('a folder that holds other things keeps its own rights', async () => {
    const server = new TestServer({ TALLY_LOFT_DEMO: 'no' });
    servers.push(server);
    chmodSync(server.data, 0o755);
    writeFileSync(path.join(server.data, 'notes.txt'), 'not ours');
    await server.start();
    expect((statSync(server.data).mode & 0o777).toString(8)).toBe('755');
    expect((statSync(path.join(server.data, 'tally-loft.sqlite')).mode & 0o777).toString(8)).toBe(
      '600',
    );
  });
});

describe('killed at any moment', () => {
  it('during the first start: the demo is there whole once it starts again', async () => {
    const server = new TestServer();
    servers.push(server);
    const first = path.join(server.data, 'tally-loft.sqlite.first');
    for (const size of [1, 150_000, 600_000]) {
      const started = server.start().catch(() => null);
      while (!existsSync(first) || statSync(first).size + walOf(first) < size)
        await new Promise((resolve) => setTimeout(resolve, 2));
      await server.kill();
      await started;
      expect(existsSync(path.join(server.data, 'tally-loft.sqlite'))).toBe(false);
    }
    await server.start();
    expect(lists(server)).toBe(6);
    expect(existsSync(first)).toBe(false);
  });

  it('during intake: what was there is there, and no half list appears', async () => {
    const server = await serving();
    await bringIn(server.address);
    for (const wait of [0, 3, 8, 20, 45]) {
      const pending = bringIn(server.address, 'Doomed').catch(() => null);
      await new Promise((resolve) => setTimeout(resolve, wait));
      await server.kill();
      await pending;
      const there = lists(server);
      await server.start();
      expect(lists(server)).toBe(there);
      expect((await fetch(`${server.address}/api/benches/1`)).status).toBe(200);
      expect(readdirSync(path.join(server.data, 'incoming'))).toEqual([]);
    }
  });

  it('during saves: the bench is at a whole revision', async () => {
    const server = await serving();
    await bringIn(server.address);
    let follows = (
      (await (await fetch(`${server.address}/api/benches/1`)).json()) as { revision: number }
    ).revision;
    const { doc } = (await (await fetch(`${server.address}/api/benches/1`)).json()) as {
      doc: { lead: string | null };
    };
    const saving = (async () => {
      for (let k = 0; k < 500; k++) {
        doc.lead = `lead ${follows + 1}`;
        const reply = await fetch(`${server.address}/api/benches/1`, {
          method: 'PUT',
          headers: JSON_BODY,
          body: JSON.stringify({ follows, doc }),
        });
        follows = ((await reply.json()) as { revision: number }).revision;
      }
    })().catch(() => {});
    await new Promise((resolve) => setTimeout(resolve, 150));
    await server.kill();
    await saving;
    await server.start();
    const bench = (await (await fetch(`${server.address}/api/benches/1`)).json()) as {
      revision: number;
      doc: { lead: string };
    };
    // What was answered is kept; one more may have been written and not answered.
    expect(bench.revision).toBeGreaterThanOrEqual(follows);
    if (bench.revision > 1) expect(bench.doc.lead).toBe(`lead ${bench.revision}`);
  });
});

afterAll(async () => {
  for (const server of servers) await server.stop();
});
