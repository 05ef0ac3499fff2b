import { readdirSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { AskResult } from '$lib/core/ask/result';
import { sailingsInSql } from '../support/sql';
import { TestServer } from './support/server';

const server = new TestServer();
let sailings = 0;
let vessels = 0;

const Lists = z.object({ lists: z.array(z.object({ id: z.int(), name: z.string() })) });
const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  faults: z
    .array(z.object({ path: z.string(), message: z.string(), remedy: z.string() }))
    .optional(),
});

const post = (where: string, body: unknown): Promise<Response> =>
  fetch(server.address + where, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });

beforeAll(async () => {
  await server.start();
  const { lists } = Lists.parse(await (await fetch(`${server.address}/api/lists`)).json());
  sailings = lists.find((l) => l.name.startsWith('Sailings'))?.id ?? 0;
  vessels = lists.find((l) => l.name === 'Vessels')?.id ?? 0;
});
afterAll(() => server.stop());

const byRoute = {
  tallies: [
    {
      kind: 'crosstab',
      down: [{ column: 'Route', loose: true }],
      across: [{ column: 'Cancelled' }],
      measures: [{ kind: 'sum', column: 'Boarded' }],
    },
  ],
};

describe('an ask over HTTP', () => {
  it('answers as JSON and as CSV', async () => {
    const response = await post(`/api/lists/${sailings}/ask`, byRoute);
    expect([response.status, response.headers.get('content-type')]).toEqual([
      200,
      'application/json',
    ]);
    const result = AskResult.parse(await response.json());
    const want = sailingsInSql()
      .prepare(
        `select route, sum(case when cancelled = 'no' then boarded end),
        coalesce(sum(case when cancelled = 'yes' then boarded end), 0), sum(boarded) from s group by 1 order by 1`,
      )
      .raw()
      .all();
    expect(result.tallies[0].tables[0].rows.slice(1).map((r) => r.cells)).toEqual(want);
    const csv = await post(`/api/lists/${sailings}/ask?as=csv`, byRoute);
    expect(csv.headers.get('content-type')).toMatch(/^text\/csv/);
    expect((await csv.text()).split('\r\n').length).toBe(want.length + 3);
  });

  it('joins another stored list', async () => {
    const response = await post(`/api/lists/${sailings}/ask`, {
      lists: { fleet: { list: vessels } },
      joins: [{ list: 'fleet', on: [{ column: 'Vessel' }], bring: [{ column: 'Passengers' }] }],
      tallies: [{ kind: 'ledger', measures: [{ kind: 'values', column: 'Passengers' }] }],
    });
    const result = AskResult.parse(await response.json());
    expect(Number(result.tallies[0].tables[0].rows[0].cells[1])).toBeGreaterThan(10_000);
  });

  it('faults are problem details with every path, and never a result', async () => {
    const bad = await post(`/api/lists/${sailings}/ask`, {
      lists: { gone: { list: 9999 } },
      tallies: [{ kind: 'ledger' }],
    });
    expect([bad.status, bad.headers.get('content-type')]).toEqual([
      422,
      'application/problem+json',
    ]);
    expect(Problem.parse(await bad.json()).faults?.map((f) => f.path)).toEqual(['lists.gone.list']);
    const two = Problem.parse(
      await (
        await post(`/api/lists/${sailings}/ask`, {
          tallies: [{ kind: 'ledger', groups: [{ column: 'x' }], sort: [{ column: 'y' }] }],
        })
      ).json(),
    );
    expect(two.faults?.map((f) => f.path)).toEqual([
      'tallies[0].groups[0].column',
      'tallies[0].sort[0].column',
    ]);
    expect((await post(`/api/lists/${sailings}/ask`, '{')).status).toBe(400);
    expect((await post('/api/lists/9999/ask', byRoute)).status).toBe(404);
    const refused = await post(`/api/lists/${sailings}/ask`, {
      tallies: [
        {
          kind: 'crosstab',
          down: [{ column: 'Route' }],
          across: [{ column: 'Fares taken' }],
          measures: [{ kind: 'records' }],
        },
      ],
    });
    expect(refused.status).toBe(422);
    expect(Problem.parse(await refused.json()).detail).toMatch(
      /^tallies\[0\]: This makes .* columns across/,
    );
    const file = await post(`/api/lists/${sailings}/ask`, {
      lists: { f: { file: '/etc/passwd' } },
      tallies: [{ kind: 'ledger' }],
    });
    expect(Problem.parse(await file.json()).faults?.[0].message).toBe('The server opens no files.');
  });

  it('limits size and time', async () => {
    const small = new TestServer({ TALLY_LOFT_ANSWER_MB: '1' });
    await small.start();
    try {
      const body = JSON.stringify({ tallies: [{ kind: 'ledger', records: true }] });
      const response = await fetch(`${small.address}/api/lists/${sailings}/ask`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      });
      expect(response.status).toBe(422);
      expect(Problem.parse(await response.json())).toMatchObject({
        title: 'Over the limit',
        detail: expect.stringContaining('over 1 MB') as string,
      });
    } finally {
      await small.stop();
    }
    const hurried = new TestServer({ TALLY_LOFT_ASK_SECONDS: '1' });
    await hurried.start();
    try {
      const heavy = {
        kind: 'ledger',
        groups: [{ column: 'Fares taken' }, { column: 'Boarded' }],
        measures: [
          { kind: 'median', column: 'Delay' },
          { kind: 'mode', column: 'Weather' },
        ],
      };
      const response = await fetch(`${hurried.address}/api/lists/${sailings}/ask`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ tallies: Array.from({ length: 200 }, () => heavy) }),
      });
      expect(response.status).toBe(422);
      expect(Problem.parse(await response.json()).detail).toMatch(
        /took longer than 1 s and was stopped/,
      );
      expect((await fetch(`${hurried.address}/api/lists`)).status).toBe(200);
    } finally {
      await hurried.stop();
    }
    const large = await post(`/api/lists/${sailings}/ask`, `{"x":"${'x'.repeat(5_000_000)}"}`);
    expect(large.status).toBe(413);
  });

  it('one ask that takes all it can holds up no other, and is ended', async () => {
    const small = new TestServer({ TALLY_LOFT_ASK_SECONDS: '20', TALLY_LOFT_ASK_MEMORY_MB: '512' });
    await small.start();
    try {
      const ask = (body: unknown): Promise<Response> =>
        fetch(`${small.address}/api/lists/${sailings}/ask`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        });
      // A text doubled twenty times comes to megabytes in each of 17,631 records.
      const doubled = Array.from({ length: 20 }, (_, k) => ({
        name: `t${k}`,
        expression: k === 0 ? 'CAST("Fares taken" AS VARCHAR)' : `t${k - 1} || t${k - 1}`,
      }));
      let ended = false;
      const hostile = ask({
        computed: doubled,
        tallies: [{ kind: 'ledger', measures: [{ kind: 'distinct', column: 't19' }] }],
      }).finally(() => (ended = true));
      for (let k = 0; k < 5; k++) expect((await ask(byRoute)).status).toBe(200);
      expect(ended).toBe(false);
      const response = await hostile;
      expect(response.status).toBe(422);
      expect(Problem.parse(await response.json()).detail).toContain('was stopped');
      expect((await ask(byRoute)).status).toBe(200);
    } finally {
      await small.stop();
    }
  });

  it('refuses a write from another site', async () => {
    const response = await fetch(`${server.address}/api/lists/${sailings}/ask`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: 'http://elsewhere.example' },
      body: JSON.stringify(byRoute),
    });
    expect(response.status).toBe(403);
  });
});

describe('the OpenAPI document', () => {
  it('names every route and method there is, and no other', async () => {
    const document = z
      .object({
        openapi: z.string(),
        paths: z.record(z.string(), z.record(z.string(), z.unknown())),
        components: z.object({ schemas: z.record(z.string(), z.unknown()) }),
      })
      .parse(await (await fetch(`${server.address}/api/openapi.json`)).json());
    expect(document.openapi).toMatch(/^3\.1/);
    const routes = readdirSync('src/routes/api', { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('+server.ts'))
      .flatMap((file) => {
        const where = `/api/${file.replace(/\/?\+server\.ts$/, '').replaceAll(/\[(\w+)\]/g, '{$1}')}`;
        const text = readFileSync(`src/routes/api/${file}`, 'utf8');
        return [...text.matchAll(/export const (GET|POST|PUT|PATCH|DELETE)/g)].map(
          ([, method]) => `${method.toLowerCase()} ${where}`,
        );
      });
    const documented = Object.entries(document.paths).flatMap(([where, operations]) =>
      Object.keys(operations).map((method) => `${method} ${where}`),
    );
    expect(documented.sort()).toEqual(routes.sort());
    // Every reference leads somewhere.
    for (const [, name] of JSON.stringify(document).matchAll(/"#\/components\/schemas\/([^"]+)"/g))
      expect(document.components.schemas).toHaveProperty([name]);
  });

  it('its routes answer as it says', async () => {
    for (const where of ['/api/lists', `/api/lists/${sailings}/readings`, '/api/openapi.json']) {
      const response = await fetch(server.address + where);
      expect([where, response.status, response.headers.get('content-type')]).toEqual([
        where,
        200,
        'application/json',
      ]);
    }
    const missing = await fetch(`${server.address}/api/benches/9999`);
    expect([missing.status, missing.headers.get('content-type')]).toEqual([
      404,
      'application/problem+json',
    ]);
    expect((await fetch(`${server.address}/api/readings/x`)).status).toBe(400);
  });
});
