import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fullCell } from '$lib/core/table/cell';
import { isText } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { readConnections } from '$lib/server/databases/connections';
import { postgresSource } from '$lib/server/databases/postgres';
import { DatabaseFault } from '$lib/server/errors';
import { BY_ITSELF, readList, type ReadAs } from '../../cli/input';
import { connected, hasPostgres, startPostgres, type PostgresServer } from '../support/postgres';

const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-databases-'));
const file = path.join(folder, 'connections.json');
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function keep(connections: unknown): void {
  writeFileSync(file, typeof connections === 'string' ? connections : JSON.stringify(connections));
  chmodSync(file, 0o600);
}

describe('connections', () => {
  it('are none where there is no file', () => {
    expect(readConnections(path.join(folder, 'gone.json')).size).toBe(0);
  });

  it('are not taken from a file that others can read', () => {
    keep({});
    chmodSync(file, 0o640);
    expect(() => readConnections(file)).toThrow(/can be read by others.*chmod 600/);
    chmodSync(file, 0o600);
    expect(readConnections(file).size).toBe(0);
  });

  it.each([
    ['{"a": {"kind": "postgres", "password": "Skerry', /is not JSON/],
    [{ a: { kind: 'oven' } }, /a\.kind/],
    [{ a: { kind: 'postgres', database: 'x' } }, /a\.user/],
    [{ a: { kind: 'sqlite', file: 'x', passwort: 'Skerry' } }, /a: .*passwort/],
    [{ '../a': { kind: 'sqlite', file: 'x' } }, /must be a name/],
  ])('%j is refused, and nothing of a password is told', (given, words) => {
    keep(given);
    const read = (): unknown => readConnections(file);
    expect(read).toThrow(words);
    expect(read).not.toThrow(/Skerry/);
  });
});

describe.runIf(hasPostgres)('a PostgreSQL server', () => {
  let server: PostgresServer;
  const connection = (): Record<string, unknown> => ({
    kind: 'postgres',
    port: server.port,
    database: 'ferry',
    user: 'reader',
    password: { env: 'FERRY_PASSWORD' },
  });
  const source = (change: object = {}) => {
    keep({ ferry: { ...connection(), ...change } });
    const kept = readConnections(file).get('ferry');
    if (kept?.kind !== 'postgres') throw new Error('no connection');
    return postgresSource(kept, { FERRY_PASSWORD: 'only to read' });
  };

  beforeAll(async () => {
    server = await startPostgres();
    const { owner } = server;
    await owner.query('CREATE DATABASE ferry');
    await owner.query("CREATE ROLE reader LOGIN PASSWORD 'only to read'");
    await owner.end();
    const ferry = await connected(server.port, 'ferry');
    await ferry.query(`
      CREATE TABLE sailings (
        day date, at timestamptz, left_at timestamp, clock time, route text, "fares (£)" numeric(12,2),
        boarded int, ticket bigint, cancelled boolean, share float8, price money, note text);
      INSERT INTO sailings VALUES
        ('2024-01-31', '2024-01-31 23:30:00+02', '2024-01-31 23:30:15', '23:30', 'Holm, north', 10.25, 1, 7, true, 0.1, '1234.50', 'said "no"'),
        ('2024-02-29', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, ''),
        ('infinity', '2024-06-01 00:00:00+00', NULL, '06:05:04.25', E'two\\nlines', -3, -2, 8, false, 1e-7, '-2', '007');
      CREATE TABLE tickets (number bigint);
      INSERT INTO tickets VALUES (9007199254740993), (NULL), (1);
      CREATE SCHEMA pier; CREATE TABLE pier.berths (name text); INSERT INTO pier.berths VALUES ('A');
      CREATE VIEW "long one" AS SELECT n, 'x' || n AS name FROM generate_series(1, 100000) AS n;
      CREATE TABLE secret (word text);
      GRANT SELECT ON sailings, tickets, "long one" TO reader;
      GRANT USAGE ON SCHEMA pier TO reader; GRANT SELECT ON pier.berths TO reader;
    `);
    await ferry.end();
    process.env.FERRY_PASSWORD = 'only to read';
    process.env.TALLY_LOFT_CONNECTIONS = file;
  });
  afterAll(async () => {
    delete process.env.TALLY_LOFT_CONNECTIONS;
    delete process.env.FERRY_PASSWORD;
    await server.stop();
  });

  const read = async (database: ReadAs['database'], as: Partial<ReadAs> = {}) => {
    keep({ ferry: connection() });
    const list = await readList('connection:ferry', { ...BY_ITSELF, database, ...as });
    const { table } = list.reading;
    return {
      ...list,
      columns: table.columns.map((column) => [
        column.name,
        column.type,
        column.unit,
        ...Array.from({ length: table.length }, (_, i) => fullCell(column, i)),
      ]),
      unread: table.columns.flatMap((c) => (isText(c) ? [] : [...c.unread.values()])),
    };
  };

  it('gives a table with its types, nothing guessed', async () => {
    const { columns, unread, recipe } = await read({ table: 'sailings' });
    expect(columns).toEqual([
      ['day', 'date', '', '2024-01-31', '2024-02-29', 'infinity'],
      ['at', 'datetime', 'UTC', '2024-01-31T21:30', '', '2024-06-01T00:00'],
      ['left_at', 'datetime', '', '2024-01-31T23:30:15', '', ''],
      ['clock', 'time', '', '23:30', '', '06:05:04.250'],
      ['route', 'text', '', 'Holm, north', '', 'two\nlines'],
      ['fares', 'number', '£', '10.25', '', '-3'],
      ['boarded', 'number', '', '1', '', '-2'],
      ['ticket', 'number', '', '7', '', '8'],
      ['cancelled', 'yesno', '', 'yes', '', 'no'],
      ['share', 'number', '', '0.1', '', '1e-7'],
      ['price', 'number', '', '1234.5', '', '-2'],
      ['note', 'text', '', 'said "no"', '', '007'],
    ]);
    expect(unread).toEqual(['infinity']);
    expect(recipe.source).toEqual({ form: 'postgres', connection: 'ferry', part: 'sailings' });
  });

  it('keeps blank records of one column, and every digit of a long number', async () => {
    expect((await read({ table: 'tickets' })).columns).toEqual([
      ['number', 'text', '', '9007199254740993', '', '1'],
    ]);
  });

  it('gives what a query comes to, columns of one name apart, and reads it again by its recipe', async () => {
    const query = 'SELECT route, boarded AS n, boarded * 2 AS n FROM sailings ORDER BY 2 -- all';
    const first = await read({ query });
    expect(first.columns).toEqual([
      ['route', 'text', '', 'two\nlines', 'Holm, north', ''],
      ['n', 'number', '', '-2', '1', ''],
      ['n (2)', 'number', '', '-4', '2', ''],
    ]);
    expect((await read(undefined, { recipe: first.recipe })).columns).toEqual(first.columns);
  });

  it('reads 100,000 records piece by piece, all of them', async () => {
    const { reading } = await read({ table: 'long one' });
    expect(reading.table.length).toBe(100_000);
    expect(fullCell(reading.table.columns[1], 99_999)).toBe('x100000');
  });

  it('gives numbers of every size and scale as the server writes them', async () => {
    const { reading } = await read({
      query: `SELECT v, v::text AS written FROM (
        SELECT (random() - 0.5)::numeric * 10::numeric ^ (n % 24 - 8) AS v FROM generate_series(1, 3000) AS n
        UNION ALL SELECT round(((random() - 0.5) * 10 ^ (n % 15))::numeric, n % 7) FROM generate_series(1, 3000) AS n
        UNION ALL SELECT unnest('{0, 0.00, 10000, -10000, 1e30, 0.00012, 99999999.9999, 123456789012345, NaN}'::numeric[])
      ) AS made`,
    });
    const [v, written] = reading.table.columns;
    let unread = 0;
    for (let i = 0; i < reading.table.length; i++) {
      const text = fullCell(written, i);
      if (isText(v) || v.unread.has(i)) {
        unread++;
        // Nothing is lost of what a double does not hold.
        expect(fullCell(v, i)).toBe(text);
      } else expect(v.values[i], text).toBe(Number(text));
    }
    expect(unread).toBeGreaterThan(0);
  });

  it('names the tables that the user may read, those of other schemas with their schema', async () => {
    expect(await source().tables()).toEqual(['long one', 'pier.berths', 'sailings', 'tickets']);
    expect((await read({ table: 'pier.berths' })).columns).toEqual([['name', 'text', '', 'A']]);
  });

  it.each([
    [{ table: 'gone' }, /no table “gone”.*“sailings”/],
    [{ table: 'secret' }, /no table “secret”/],
    [{ query: 'DELETE FROM sailings' }, /The database says/],
    [{ query: 'SELECT 1; DROP TABLE tickets' }, /The database says/],
    [{ query: "SELECT 1) TO PROGRAM 'touch /tmp/x' --" }, /The database says/],
    [{ query: "SELECT nextval('gone')" }, /The database says: .*gone/],
    [{ query: "SELECT set_config('transaction_read_only', 'off', false)" }, /The database says/],
    [{ query: 'SELECT 1 / (boarded - 1) FROM sailings' }, /division by zero/],
    [{ query: 'SELECT boarded FROM sailings WHERE' }, /The database says.*at character/],
  ])('%j is refused with what the database says', async (database, words) => {
    await expect(read(database)).rejects.toThrow(words);
  });

  it('stops what takes longer than the connection allows, at the server', async () => {
    const slow = await source({ seconds: 1 }).read({ query: 'SELECT pg_sleep(30)' }, 10);
    await expect(recordsOf(slow.parts)).rejects.toThrow(/longer than the 1 s/);
  });

  it('ends at the server what is left before its end', async () => {
    const endless = await source().read(
      {
        query: 'SELECT a.name, b.n FROM "long one" a, "long one" b',
      },
      1000,
    );
    let records = 0;
    for await (const part of endless.parts) if ((records += part.length) > 10_000) break;
    const owner = await connected(server.port, 'ferry');
    const busy = async (): Promise<number> => {
      const { rows } = await owner.query(
        "SELECT 1 FROM pg_stat_activity WHERE application_name = 'Tally Loft' AND state = 'active'",
      );
      return rows.length;
    };
    for (let tries = 0; tries < 50 && (await busy()) > 0; tries++)
      await new Promise((soon) => setTimeout(soon, 100));
    expect(await busy()).toBe(0);
    await owner.end();
  });

  it('tells neither password nor address when it is not admitted or not reached', async () => {
    for (const [change, words] of [
      [{ password: 'Skerry' }, /does not admit this user/],
      [{ port: 1 }, /does not answer/],
      [{ database: 'gone' }, /no such database/],
    ] as const) {
      const tables = source(change).tables();
      await expect(tables).rejects.toThrow(DatabaseFault);
      await expect(tables).rejects.toThrow(words);
      await expect(tables).rejects.not.toThrow(/Skerry|127\.0\.0\.1|only to read/);
    }
    await expect(
      readList('connection:none', { ...BY_ITSELF, database: { table: 'x' } }),
    ).rejects.toThrow(/There is no connection “none”.*“ferry”/);
  });
});

async function recordsOf(parts: AsyncIterable<Table>): Promise<number> {
  let records = 0;
  for await (const part of parts) records += part.length;
  return records;
}
