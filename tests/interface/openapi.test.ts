import { writeFileSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { AskResult } from '$lib/core/ask/result';
import { TableAssembler } from '$lib/core/table/arrowRead';
import { fullCell } from '$lib/core/table/cell';
import { RECORD_FORMS } from '$lib/core/write/tableFile';
import { TestServer } from './support/server';

const server = new TestServer();

const Answer = z.object({
  content: z.record(z.string(), z.object({ schema: z.record(z.string(), z.unknown()) })).optional(),
});
const Operation = z.object({
  responses: z.record(z.string(), Answer),
  requestBody: z.object({ content: z.record(z.string(), z.unknown()) }).optional(),
});
const Document = z.object({
  paths: z.record(z.string(), z.record(z.string(), Operation)),
  components: z.object({ schemas: z.record(z.string(), z.unknown()) }),
});
let components: Record<string, unknown> = {};

/** Every operation of the document as `put /api/benches/{id}`. */
const operations = new Map<string, z.infer<typeof Operation>>();
/** Operations that were seen to succeed, each with the statuses it answered. */
const seen = new Map<string, Set<number>>();

const JSON_TYPE = 'application/json';

/** Calls an operation; its status and the type of what it answers must be among those documented. */
async function call(
  operation: string,
  inPath: readonly (string | number)[] = [],
  { body, query = '', type = JSON_TYPE }: { body?: unknown; query?: string; type?: string } = {},
): Promise<Response> {
  const documented = operations.get(operation);
  if (!documented) throw new Error(`${operation} is not in the document.`);
  const [method, path] = operation.split(' ');
  let at = 0;
  const where = path.replaceAll(/\{\w+\}/g, () => String(inPath[at++]));
  const response = await fetch(server.address + where + query, {
    method: method.toUpperCase(),
    ...(body !== undefined && {
      headers: { 'content-type': type },
      body: body instanceof ArrayBuffer || typeof body === 'string' ? body : JSON.stringify(body),
    }),
  });
  const { status } = response;
  expect(Object.keys(documented.responses), `${operation} answers ${status}`).toContain(
    String(status),
  );
  const [got] = (response.headers.get('content-type') ?? '').split(';');
  const content = documented.responses[status].content ?? {};
  if (Object.keys(content).length)
    expect(Object.keys(content), `${operation} ${status}`).toContain(got);
  else expect(await response.clone().text(), `${operation} ${status}`).toBe('');
  if (got.endsWith('json')) {
    const { schema } = content[got];
    const whole = JSON.stringify({ ...schema, $defs: components });
    const parsed = z
      .fromJSONSchema(JSON.parse(whole.replaceAll('#/components/schemas/', '#/$defs/')))
      .safeParse(await response.clone().json());
    expect(parsed.error?.message, `${operation} ${status}`).toBeUndefined();
  }
  seen.set(operation, (seen.get(operation) ?? new Set()).add(status));
  return response;
}
const given = async <T>(schema: z.ZodType<T>, response: Promise<Response>): Promise<T> =>
  schema.parse(await (await response).json());

beforeAll(async () => {
  await server.start();
  const { paths, components: found } = Document.parse(
    await (await fetch(`${server.address}/api/openapi.json`)).json(),
  );
  components = found.schemas;
  for (const [path, methods] of Object.entries(paths))
    for (const [method, operation] of Object.entries(methods))
      operations.set(`${method} ${path}`, operation);
});
afterAll(() => server.stop());

const Id = z.object({ id: z.int() });

const Accepted = z.object({ listId: z.int(), reading: z.int() });

describe('every operation answers as its document says', () => {
  let list = 0;
  let bench = 0;
  let reading = 0;
  let doc: unknown;

  it('lists and their benches', async () => {
    await call('get /api/openapi.json');
    const { lists } = await given(
      z.object({ lists: z.array(Id.extend({ name: z.string(), benches: z.array(Id) })) }),
      call('get /api/lists'),
    );
    const kiosks = lists.find(({ name }) => name.startsWith('Kiosk'));
    const made = await given(
      z.object({ listId: z.int(), reading: z.int(), bench: z.int() }),
      call('post /api/lists', [], {
        body: {
          name: 'All of it',
          bench: kiosks?.benches[0].id,
          make: { of: 'records', records: 'all', reshape: [] },
          frozen: true,
        },
      }),
    );
    ({ listId: list, bench, reading } = made);
    await call('patch /api/lists/{id}', [list], { body: { name: 'The whole of it' } });
    const ask = { body: { tallies: [{ kind: 'ledger' }] } };
    await call('post /api/lists/{id}/ask', [list], ask);
    await call('post /api/lists/{id}/ask', [list], { ...ask, query: '?as=csv' });
    // What a wish comes to is an ask that can be asked.
    const { readings } = await given(
      z.object({
        readings: z.array(
          z.object({ sentence: z.string(), notUnderstood: z.array(z.string()), ask: z.unknown() }),
        ),
      }),
      call('post /api/lists/{id}/wish', [list], { body: { wish: 'mean of Ice Cream by month' } }),
    );
    expect(readings.length).toBeGreaterThan(0);
    await call('post /api/lists/{id}/ask', [list], { body: readings[0].ask as object });
  });

  it('benches, their ledgers, reports and states', async () => {
    const saved = await given(
      z.object({ revision: z.int(), doc: z.record(z.string(), z.unknown()) }),
      call('get /api/benches/{id}', [bench]),
    );
    ({ doc } = saved);
    await call('post /api/lists/{id}/benches', [list], { body: { name: 'Another', doc } });
    const next = await given(
      z.object({ revision: z.int() }),
      call('put /api/benches/{id}', [bench], {
        body: { follows: saved.revision, doc: { ...saved.doc, sort: [{ column: 'Day' }] } },
      }),
    );
    expect(next.revision).toBe(saved.revision + 1);
    const late = await call('put /api/benches/{id}', [bench], {
      body: { follows: saved.revision, doc: { ...saved.doc, lead: null } },
    });
    expect(late.status).toBe(409);
    await call('patch /api/benches/{id}', [bench], { body: { name: 'Renamed' } });
    await call('get /api/benches/{id}/ledger', [bench]);
    await call('get /api/benches/{id}/ledger', [bench], { query: '?as=csv&values=shown' });
    await call('get /api/benches/{id}/report', [bench]);
    await call('get /api/benches/{id}/report', [bench], { query: '?as=json' });
    await call('get /api/benches/{id}/report', [bench], { query: '?as=xlsx' });
    for (const form of RECORD_FORMS)
      await call('get /api/benches/{id}/records', [bench], { query: `?as=${form}` });
    const state = await given(
      z.object({ revision: z.int() }),
      call('post /api/benches/{id}/states', [bench]),
    );
    await call('get /api/benches/{id}/states/{revision}', [bench, state.revision]);
  });

  it('readings and intakes', async () => {
    await call('get /api/lists/{id}/readings', [list]);
    await call('put /api/lists/{id}/readings', [list], { body: { reading } });
    const { recipe } = await given(
      z.object({ recipe: z.unknown() }),
      call('get /api/readings/{id}', [reading]),
    );
    const chunk = await (
      await call('get /api/readings/{id}/chunks/{n}', [reading, 0])
    ).arrayBuffer();
    const begin = (): Promise<{ id: string }> =>
      given(z.object({ id: z.string() }), call('post /api/intakes', []));
    const sent = { body: chunk, type: 'application/vnd.apache.arrow.stream' };
    const { id } = await begin();
    await call('put /api/intakes/{id}/chunks/{n}', [id, 0], sent);
    const body = {
      list: null,
      name: 'Sent',
      fileName: 'sent.csv',
      recipe,
      records: 365,
      chunks: 1,
      doubts: [],
      setAside: [],
    };
    const accepted = await call('post /api/intakes/{id}', [id], { body });
    expect(await accepted.clone().text()).toContain('bench');
    const first = Accepted.parse(await accepted.json());
    const again = await begin();
    await call('put /api/intakes/{id}/chunks/{n}', [again.id, 0], sent);
    const { listId, ...both } = await given(
      Accepted,
      call('post /api/intakes/{id}', [again.id], {
        body: { ...body, list: first.listId, addTo: first.reading },
      }),
    );
    const left = await given(
      z.object({ reading: z.int() }),
      call('post /api/lists/{id}/readings', [listId], {
        body: { reading: both.reading, without: 0 },
      }),
    );
    const [column] = z
      .object({ columns: z.array(z.object({ id: z.string() })) })
      .parse(recipe).columns;
    await call('patch /api/lists/{id}/columns', [listId], {
      body: { reading: left.reading, columns: [{ id: column.id, name: 'Told otherwise' }] },
    });
    const dropped = await begin();
    await call('delete /api/intakes/{id}', [dropped.id]);
  });

  it('databases that are kept under names, and readings of them', async () => {
    const kept = path.join(server.data, 'connections.json');
    writeFileSync(kept, '{', { mode: 0o600 });
    expect((await call('get /api/connections')).status).toBe(422);
    const file = path.join(server.data, 'ferry.sqlite');
    const db = new Sqlite(file);
    db.exec("create table fares (route text, fare real); insert into fares values ('Holm', 10.5)");
    db.close();
    writeFileSync(kept, JSON.stringify({ ferry: { kind: 'sqlite', file } }));
    expect(await (await call('get /api/connections')).json()).toEqual([
      { name: 'ferry', kind: 'sqlite' },
    ]);
    await call('get /api/connections/{name}/tables', ['ferry']);
    const begin = (body: object): Promise<{ id: string }> =>
      given(
        z.object({ id: z.string() }),
        call('post /api/connections/{name}/reads', ['ferry'], { body }),
      );
    const { id } = await begin({ query: 'select route, fare * 2 as twice from fares' });
    const chunk = await call('get /api/reads/{id}/chunks/{n}', [id, 0]);
    const assembler = new TableAssembler(1);
    assembler.push(new Uint8Array(await chunk.arrayBuffer()));
    const { columns } = assembler.finish();
    expect(columns.map((c) => [c.name, fullCell(c, 0)])).toEqual([
      ['route', 'Holm'],
      ['twice', '21'],
    ]);
    expect((await call('get /api/reads/{id}/chunks/{n}', [id, 5])).status).toBe(400);
    expect((await call('get /api/reads/{id}/chunks/{n}', [id, 1])).status).toBe(204);
    expect((await call('get /api/reads/{id}/chunks/{n}', [id, 2])).status).toBe(404);
    const ask = {
      tallies: [
        {
          kind: 'ledger',
          groups: [{ column: 'route' }],
          measures: [{ kind: 'sum', column: 'fare' }],
        },
      ],
    };
    const asked = await call('post /api/connections/{name}/ask', ['ferry'], {
      body: { table: 'fares', ask },
    });
    const { tallies } = AskResult.parse(await asked.json());
    expect(tallies[0].tables[0].rows.map(({ cells }) => cells)).toEqual([
      ['Grand total', 1, 10.5],
      ['Holm', 1, 10.5],
    ]);
    const measures = [{ kind: 'first', column: 'fare' }];
    const single = await call('post /api/connections/{name}/ask', ['ferry'], {
      body: { table: 'fares', ask: { tallies: [{ kind: 'ledger', measures }] } },
    });
    expect([single.status, await single.text()]).toEqual([
      422,
      expect.stringContaining('looks at single records'),
    ]);
    const left = await begin({ table: 'fares' });
    await call('delete /api/reads/{id}', [left.id]);
    const refused = await call('post /api/connections/{name}/reads', ['ferry'], {
      body: { query: 'drop table fares' },
    });
    expect([refused.status, (await refused.text()).includes(file)]).toEqual([422, false]);
  });

  it('what cannot be used, what is not there, and what cannot be done', async () => {
    for (const [operation, { requestBody }] of operations) {
      const places = [...operation.matchAll(/\{(\w+)\}/g)].length;
      if (places) {
        const odd = await call(operation, ['x', 'x'], { body: requestBody && {} });
        expect(odd.ok, operation).toBe(false);
        const gone = await call(operation, [999_999, 1], {
          body: requestBody && {
            name: 'x',
            reading: 1,
            follows: 1,
            doc,
            tallies: [{ kind: 'ledger' }],
          },
        });
        expect(gone.ok, operation).toBe(false);
      }
      if (requestBody && JSON_TYPE in requestBody.content)
        for (const body of ['{', '[]', '{}', '"x"', '{"name":""}']) {
          const bad = await call(operation, [operation.includes('/benches/{') ? bench : list, 0], {
            body,
          });
          expect(bad.ok, `${operation} of ${body}`).toBe(false);
        }
    }
  });

  it('what is deleted', async () => {
    await call('delete /api/benches/{id}', [bench]);
    await call('delete /api/lists/{id}', [list]);
    await call('delete /api/lists/{id}', [list]);
  });

  it('and each was seen to succeed and to fail', () => {
    const never = [...operations.keys()].filter(
      (operation) => ![...(seen.get(operation) ?? [])].some((status) => status < 300),
    );
    expect(never).toEqual([]);
    const unfailing = [...operations.keys()].filter(
      (operation) =>
        Object.keys(operations.get(operation)?.responses ?? {}).some((s) => Number(s) >= 400) &&
        ![...(seen.get(operation) ?? [])].some((status) => status >= 400),
    );
    expect(unfailing).toEqual([]);
  });
});
