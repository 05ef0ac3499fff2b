import { readFileSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import Papa from 'papaparse';
import { demoPath } from './demo';

const number = (text: string): number | null => {
  const t = text.trim().replaceAll(',', '');
  return /^-?\d+(\.\d+)?$/.test(t) ? Number(t) : null;
};
const word = (text: string): string | null => (['', 'n/a'].includes(text.trim()) ? null : text);

/**
 * The demo's sailings in SQLite, read without any code of ours: figures worked out here are
 * independent of the application. `n` is the record number from 0.
 */
export function sailingsInSql(): Sqlite.Database {
  const { data } = Papa.parse<string[]>(readFileSync(demoPath('sailings'), 'utf8').trimEnd());
  const db = new Sqlite(':memory:');
  db.exec(`create table s (n integer, sailed_on text, time text, route text, vessel text, direction text, weather text,
    boarded real, vehicles real, fares real, delay real, cause text, cancelled text)`);
  const insert = db.prepare(
    `insert into s values (${Array.from({ length: 13 }, () => '?').join(',')})`,
  );
  db.transaction(() => {
    data
      .slice(1)
      .forEach((r, n) =>
        insert.run(
          n,
          r[0],
          r[1],
          r[2].trim(),
          r[3],
          r[4],
          word(r[5]),
          number(r[6]),
          number(r[7]),
          number(r[8]),
          number(r[9]),
          word(r[10]),
          r[11],
        ),
      );
  })();
  return db;
}
