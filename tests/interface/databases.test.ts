import { writeFileSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { hasPostgres, startPostgres, type PostgresServer } from '../support/postgres';
import { accept, previewRow, untilRead } from './support/intake';
import { journey } from './support/journey';
import { seenFoot } from './support/ledger';

const { server, page } = journey({ FERRY_PASSWORD: 'Skerry light 7' }, () => {
  const db = new Sqlite(file);
  db.exec(`create table berths (port text, berths integer, opened text);
    insert into berths values ('Holm', 3, '2021-04-01'), ('Ness', 2, '2019-11-30')`);
  db.close();
  keep({ pier: { kind: 'sqlite', file } });
});
const file = path.join(server.data, 'pier.sqlite');

function keep(connections: object): void {
  writeFileSync(path.join(server.data, 'connections.json'), JSON.stringify(connections), {
    mode: 0o600,
  });
}

const read = async (): Promise<string> => {
  await page.until('a table or a query', async () =>
    page.run<boolean>(`return !document.querySelector('[data-test=read-database]').disabled`),
  );
  await page.click('read-database');
  return untilRead(page);
};

describe('a SQLite file on the server', () => {
  it('is chosen on the shelf, and a table of it becomes a list', async () => {
    await page.go('/');
    await page.press('pier', '[data-test=databases]');
    expect(await read()).toContain('2 records, 3 columns');
    expect(await previewRow(page, 0)).toEqual(['Holm', '3', 'Thu 1 Apr 2021']);
    await accept(page);
    await page.until('the sum of berths', async () =>
      (await seenFoot(page, 'counted')).includes('5'),
    );
  });

  it('says what is wrong with a query, and reads on', async () => {
    await page.go('/intake?from=pier');
    await page.press('A query');
    await (await page.find('query')).sendKeys('SELECT port, gone FROM berths');
    await page.click('read-database');
    await page.untilText('fault', 'no such column: gone');
    await page.press('A query');
    await (await page.find('query')).sendKeys('SELECT port, berths * 2 AS twice FROM berths');
    expect(await read()).toContain('2 records, 2 columns');
    expect(await previewRow(page, 1)).toEqual(['Ness', '4']);
  });
});

describe('readings of a database over HTTP', () => {
  /** One after the other: the status of every part, behind the last one too. */
  async function parts(): Promise<number[]> {
    const json = { 'content-type': 'application/json', origin: server.address };
    const begun = await fetch(`${server.address}/api/connections/pier/reads`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ table: 'berths' }),
    });
    const { id } = z.object({ id: z.string() }).parse(await begun.json());
    const statuses: number[] = [];
    for (let n = 0; n < 2; n++) {
      const response = await fetch(`${server.address}/api/reads/${id}/chunks/${n}`);
      statuses.push(response.status);
      await response.arrayBuffer();
    }
    return statuses;
  }

  it('come to their end, however many are read and however short they are', async () => {
    // What the thread of a reading said last went down with it now and then, one time in twenty-five.
    for (let k = 0; k < 12; k++)
      expect(await Promise.all([parts(), parts()])).toEqual([
        [200, 204],
        [200, 204],
      ]);
  });
});

describe.runIf(hasPostgres)('a PostgreSQL server', () => {
  let postgres: PostgresServer;
  beforeAll(async () => {
    postgres = await startPostgres();
    await postgres.owner.query(`
      CREATE TABLE sailings (day date, route text, fares numeric(10,2), cancelled boolean);
      INSERT INTO sailings SELECT date '2026-01-01' + n, 'Route ' || n % 3, n * 1.25, n % 10 = 0
        FROM generate_series(1, 400) AS n`);
    keep({
      ferry: {
        kind: 'postgres',
        port: postgres.port,
        database: 'postgres',
        user: 'owner',
        password: { env: 'FERRY_PASSWORD' },
      },
    });
  });
  afterAll(() => postgres.stop());

  it('is read by a query, and again when its records have changed', async () => {
    await page.go('/intake?from=ferry');
    await page.press('A query');
    await (
      await page.find('query')
    ).sendKeys('SELECT day, route, fares FROM sailings WHERE NOT cancelled');
    expect(await read()).toContain('360 records, 3 columns');
    const bench = await accept(page);
    const fares = (): Promise<string[]> => seenFoot(page, 'counted');
    // By the formula of Gauss: all of 1 to 400, less the tens.
    const sum = 1.25 * ((400 * 401) / 2 - (10 * 40 * 41) / 2);
    await page.until('the sum of fares', async () =>
      (await fares()).join(' ').includes(sum.toLocaleString('en')),
    );
    await postgres.owner.query("UPDATE sailings SET fares = 1000 WHERE day = '2026-01-02'");
    await page.press('Refresh data');
    expect(await read()).toContain('360 records');
    await page.until('that it can be accepted', async () =>
      page.run<boolean>(`return !document.querySelector('[data-test=accept]').disabled`),
    );
    await page.click('accept');
    // Begun at the bench, it ends there: what moved opens by itself.
    expect(await page.untilText('warnings', 'The records explain every difference')).toContain(
      '0 records came, 0 went, 1 changed',
    );
    expect(new URL(await page.driver.getCurrentUrl()).pathname).toBe(`/benches/${bench}`);
    await page.click('tally-ledger');
    await page.until('the new sum', async () =>
      (await fares()).join(' ').includes((sum + 998.75).toLocaleString('en')),
    );
  });

  it('is stopped, at the database too, while it has given nothing yet', async () => {
    const active = async (): Promise<number> => {
      const { rows } = await postgres.owner.query(
        "SELECT 1 FROM pg_stat_activity WHERE application_name = 'Tally Loft' AND state = 'active'",
      );
      return rows.length;
    };
    await page.go('/intake?from=ferry');
    await page.press('A query');
    await (await page.find('query')).sendKeys('SELECT pg_sleep(50)');
    await page.click('read-database');
    await page.until('that it is asked', async () => (await active()) === 1);
    await page.press('Stop');
    await page.untilText('state', 'Stopped. Nothing was kept.');
    await page.until('that it has ended', async () => (await active()) === 0);
  });

  it('keeps its password and its address to itself', async () => {
    const told: string[] = [];
    for (const where of ['/', '/intake', '/api/connections', '/api/lists', '/api/readings/8'])
      told.push(await (await fetch(server.address + where)).text());
    expect(told.join('\n')).toContain('ferry');
    expect(told.join('\n')).not.toMatch(/Skerry light|FERRY_PASSWORD|"owner"/);
    expect(told.join('\n')).not.toContain(String(postgres.port));
  });
});
