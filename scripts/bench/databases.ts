import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { mkdtempSync, rmSync, chmodSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { from as copyFrom } from 'pg-copy-streams';
import { OpenedFile } from '$lib/core/read/opened';
import { declaredTable } from '$lib/core/read/decode/declared';
import { NO_PARTS } from '$lib/core/read/decode/source';
import type { Table } from '$lib/core/table/table';
import { tableFile } from '$lib/core/write/tableFile';
import { postgresSource } from '$lib/server/databases/postgres';
import { hasPostgres, startPostgres } from '../../tests/support/postgres';
import type { Meter } from './meter';

const ROUNDS = 7;

/** The made list in a PostgreSQL server, read against the server's own COPY of it to a file. */
export async function benchDatabases(table: Table, { atMost }: Meter): Promise<void> {
  if (!hasPostgres) return;
  const server = await startPostgres();
  const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-copy-'));
  chmodSync(folder, 0o777);
  try {
    const { owner, port, password } = server;
    await owner.query(`CREATE TABLE made (day date, clock time, route text, vessel text, weather text,
      cause text, boarded int, vehicles int, fares numeric(12,2), delay int, fuel float8, cancelled boolean)`);
    const { bytes: csv } = await tableFile({ name: 'Made', table, notes: [] }, 'csv');
    const into = owner.query(copyFrom('COPY made FROM STDIN (FORMAT csv, HEADER true)'));
    await pipeline(Readable.from([Buffer.from(csv)]), into);
    const source = postgresSource({
      kind: 'postgres',
      host: '127.0.0.1',
      port,
      database: 'postgres',
      user: 'owner',
      password,
      tls: false,
      seconds: 600,
    });
    const ratios: number[] = [];
    for (let k = 0; k < ROUNDS; k++) {
      const own = await took(async () => {
        const { columns: declared, parts } = await source.read({ table: 'made' }, Infinity);
        for await (const part of parts) {
          const opened = OpenedFile.unfolded({
            source: { form: 'postgres', part: 'made' },
            choices: NO_PARTS,
            doubts: [],
            content: { kind: 'typed', table: declaredTable(part, declared), declared },
          });
          opened.typed(opened.propose());
        }
      });
      const copied = path.join(folder, 'made.csv');
      ratios.push(own / (await took(() => owner.query(`COPY made TO '${copied}' (FORMAT csv)`))));
    }
    ratios.sort((a, b) => a - b);
    atMost(
      'reading 1,000,000 records of a PostgreSQL server',
      ratios[ROUNDS >> 1],
      1.5,
      'the server’s own COPY of them to a file',
    );
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function took(work: () => Promise<unknown>): Promise<number> {
  globalThis.gc?.();
  const start = performance.now();
  await work();
  return performance.now() - start;
}
