import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AskResult } from '$lib/core/ask/result';
import { demoPath } from '../support/demo';
import { sailingsInSql } from '../support/sql';

/** The built command line, as a shell would run it. */
function tally(args: readonly string[], input = ''): { code: number; out: string; notes: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['build/node/tally.js', ...args], {
    input,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  return { code: status ?? -1, out: stdout, notes: stderr };
}

const sailings = demoPath('sailings');
const ask = {
  ladder: {
    rungs: [
      {
        condition: { kind: 'leaf', column: 'Cancelled', test: { test: 'is', values: ['no'] } },
      },
    ],
  },
  tallies: [
    {
      kind: 'ledger',
      groups: [{ column: 'Route', loose: true }],
      measures: [{ kind: 'sum', column: 'Fares taken' }],
    },
  ],
};

let folder: string;
let asked: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-cli-'));
  asked = path.join(folder, 'ask.json');
  writeFileSync(asked, JSON.stringify(ask));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('files that are added', () => {
  const HEAD = 'job,done on,workshop,hours\n';
  const JANUARY = `${HEAD}101,2024-01-08,North,2.5\n102,2024-01-19,South,1\n103,2024-01-30,North,4\n`;
  const FEBRUARY = `${HEAD}103,2024-01-30,North,4\n104,2024-02-02,South,3\n102,2024-02-03,South,9\n`;
  const written = (name: string, text: string): string => {
    const file = path.join(folder, name);
    writeFileSync(file, text);
    return file;
  };
  const hours = (...more: string[]): ReturnType<typeof tally> =>
    tally([
      'reckon',
      '--data',
      written('january.csv', JANUARY),
      '--wish',
      'hours by workshop',
      '--format',
      'csv',
      '--add',
      written('february.csv', FEBRUARY),
      ...more,
    ]);

  it('stand behind the first without what is there already, whole or by a key', () => {
    const whole = hours();
    expect(whole.code).toBe(0);
    expect(whole.out).toMatch(/^North,.*\b6\.5,/m);
    expect(whole.out).toMatch(/^South,.*\b13,/m);
    expect(whole.notes).toContain(
      'february: 2 records added, 1 left out that the list has already.',
    );
    const byJob = hours('--key', 'job');
    expect(byJob.out).toMatch(/^South,.*\b4,/m);
    expect(byJob.notes).toContain('1 record added, 2 left out');
    expect(byJob.notes).toContain('1 of them with other values');
  });

  it('say which key there is not, and which would be one', () => {
    const { code, notes } = hours('--key', 'ticket');
    expect(code).toBe(2);
    expect(notes).toContain('There is no column “ticket” to tell records by. There would be “job”');
  });

  it('of other columns are none', () => {
    const other = written('march.csv', 'job,done on,workshop,euros\n105,2024-03-01,North,12\n');
    const { code, notes } = hours('--add', other);
    expect(code).not.toBe(0);
    expect(notes).toContain('hours');
  });
});

describe('tally reckon', () => {
  it('has a database group its own records, and says what needs them here', () => {
    const file = path.join(folder, 'jobs.sqlite');
    const db = new Sqlite(file);
    db.exec(
      "create table jobs (workshop text, hours real); insert into jobs values ('North', 2.5), ('South', 4), ('North', null), ('north ', 1)",
    );
    db.close();
    const asking = (measure: object): string => {
      const to = path.join(folder, 'jobs.json');
      const tally = { kind: 'ledger', groups: [{ column: 'workshop', loose: true }] };
      writeFileSync(to, JSON.stringify({ tallies: [{ ...tally, measures: [measure] }] }));
      return to;
    };
    const args = ['reckon', '--data', file, '--format', 'csv', '--ask'];
    const sums = asking({ kind: 'sum', column: 'hours' });
    const [there, here] = ['yes', 'no'].map((way) => tally([...args, sums, '--in-parts', way]));
    expect([there.code, there.out]).toEqual([0, here.out]);
    expect(there.notes).toContain('its records stay in the database');
    const single = asking({ kind: 'first', column: 'hours' });
    const refused = tally([...args, single, '--in-parts', 'yes']);
    expect(refused.code).toBe(2);
    expect(refused.notes).toContain('cannot be left in its database: the first');
  });

  it('read in stretches comes to the same table, and says why where it cannot', () => {
    const args = ['reckon', '--data', sailings, '--ask', asked, '--format', 'csv', '--in-parts'];
    const [parts, whole] = [tally([...args, 'yes']), tally([...args, 'no'])];
    expect([parts.code, whole.code]).toEqual([0, 0]);
    expect(parts.out).toBe(whole.out);
    expect(parts.notes).toContain('It was read in stretches');
    const listed = path.join(folder, 'listed.json');
    writeFileSync(
      listed,
      JSON.stringify({ tallies: [{ kind: 'ledger', records: true, measures: [] }] }),
    );
    const refused = tally(['reckon', '--data', sailings, '--ask', listed, '--in-parts', 'yes']);
    expect(refused.code).toBe(2);
    expect(refused.notes).toContain('looks at single records');
    expect(tally(['reckon', '--data', sailings, '--ask', asked, '--in-parts', 'some']).code).toBe(
      2,
    );
  });

  it('answers with full precision, the same figures as SQL', () => {
    const { code, out } = tally(['reckon', '--data', sailings, '--ask', asked]);
    expect(code).toBe(0);
    const result = AskResult.parse(JSON.parse(out));
    const want = sailingsInSql()
      .prepare(
        "select route, count(*), sum(fares) from s where cancelled = 'no' group by 1 order by 1",
      )
      .raw()
      .all();
    expect(
      result.tallies[0].tables[0].rows.filter((r) => r.kind === 'group').map((r) => r.cells),
    ).toEqual(want);
    expect(result.tallies[0].footing.foots).toBe(true);
  });

  it('reads the ask or the data from standard input, and writes csv to a file', () => {
    const file = path.join(folder, 'out.csv');
    const first = tally(
      ['reckon', '--data', sailings, '--ask', '-', '--format', 'csv', '--out', file],
      JSON.stringify(ask),
    );
    expect([first.code, first.out]).toEqual([0, '']);
    expect(readFileSync(file, 'utf8')).toMatch(
      /^Route,Records,sum of Fares taken \(£\),row kind,row level,row label\r\n,/,
    );
    const second = tally(
      ['reckon', '--data', '-', '--ask', asked, '--format', 'csv'],
      readFileSync(sailings, 'utf8'),
    );
    expect(second.out).toBe(readFileSync(file, 'utf8'));
    expect(tally(['reckon', '--data', '-', '--ask', '-']).code).toBe(2);
  });

  it('joins another file named from the folder of the ask', () => {
    writeFileSync(path.join(folder, 'sizes.csv'), 'Vessel,Size\nGannet,3\n');
    const joined = path.join(folder, 'joined.json');
    writeFileSync(
      joined,
      JSON.stringify({
        lists: { sizes: { file: 'sizes.csv' } },
        joins: [{ list: 'sizes', on: [{ column: 'Vessel' }], bring: [{ column: 'Size' }] }],
        tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'Size' }] }],
      }),
    );
    const { out } = tally(['reckon', '--data', sailings, '--ask', joined]);
    const result = AskResult.parse(JSON.parse(out));
    const n = sailingsInSql()
      .prepare("select count(*) from s where vessel = 'Gannet'")
      .pluck()
      .get();
    expect(result.tallies[0].tables[0].rows[0].cells[1]).toBe(3 * Number(n));
    expect(result.prepared[0].code).toBe('not-joined');
  });

  it('writes over nothing that it reads', () => {
    const data = path.join(folder, 'own.csv');
    writeFileSync(data, 'Route,Fares\nHolm,5\n');
    const before = readFileSync(data, 'utf8');
    const plain = path.join(folder, 'plain.json');
    writeFileSync(
      plain,
      JSON.stringify({
        tallies: [{ kind: 'ledger', groups: [], measures: [{ kind: 'records' }] }],
      }),
    );
    for (const [command, out] of [
      ['reckon', data],
      ['reckon', path.join(folder, '.', 'own.csv')],
      ['reckon', plain],
      ['records', data],
    ]) {
      const { code, notes } = tally([command, '--data', data, '--ask', plain, '--out', out]);
      expect([code, notes]).toEqual([2, expect.stringContaining('it would be written over')]);
    }
    expect(readFileSync(data, 'utf8')).toBe(before);
    // An output of before is no input.
    const out = path.join(folder, 'own-out.csv');
    for (let run = 0; run < 2; run++)
      expect(tally(['reckon', '--data', data, '--ask', plain, '--out', out]).code).toBe(0);
  });

  it('exits 2 for a bad ask, naming every fault, and shows no result', () => {
    const { code, out, notes } = tally(
      ['reckon', '--data', sailings, '--ask', '-'],
      JSON.stringify({
        tallies: [
          { kind: 'ledger', groups: [{ column: 'Rout' }] },
          { kind: 'percentile', column: 'Weather' },
        ],
      }),
    );
    expect([code, out]).toEqual([2, '']);
    expect(notes).toContain(
      'tallies[0].groups[0].column: There is no column “Rout”. Did you mean “Route”?',
    );
    expect(notes).toContain('tallies[1].column: “Weather” is text');
    expect(notes).not.toMatch(/\bat \S+:\d+/);
    expect(tally(['reckon', '--data', sailings, '--ask', '-'], '{').code).toBe(2);
    expect(tally(['reckon', '--data', sailings]).code).toBe(2);
  });

  it('exits 1 for a run that fails: no file, or data that do not allow it', () => {
    const missing = tally(['reckon', '--data', path.join(folder, 'none.csv'), '--ask', asked]);
    expect([missing.code, missing.out]).toEqual([1, '']);
    expect(missing.notes).toMatch(/cannot be read/);
    const gaps = tally(
      ['reckon', '--data', '-', '--ask', asked],
      'Day,Route,Fares taken,Cancelled\n01/02/2025,a,1,no\n03/04/2025,b,2,no\n',
    );
    expect(gaps.code).toBe(1);
    expect(gaps.notes).toMatch(/recipe/);
  });
});

describe('how a file is read', () => {
  const SUM = JSON.stringify({
    tallies: [{ kind: 'ledger', measures: [{ kind: 'sum', column: 'fares' }] }],
    leaveOut: ['where'],
  });
  const sumOf = (out: string): unknown =>
    AskResult.parse(JSON.parse(out)).tallies[0].tables[0].rows[0].cells[1];

  it('a recipe finds its columns by their headings, and stops where one is gone', () => {
    const recipe = path.join(folder, 'recipe.json');
    const first = path.join(folder, 'first.csv');
    writeFileSync(first, 'route,fares\nHolm,5\nNess,6\n');
    const { recipe: found } = JSON.parse(tally(['check', '--data', first]).out) as {
      recipe: unknown;
    };
    writeFileSync(recipe, JSON.stringify(found));
    const args = ['reckon', '--data', '-', '--ask', path.join(folder, 'sum.json')];
    writeFileSync(path.join(folder, 'sum.json'), SUM);
    const turned = tally([...args, '--recipe', recipe], 'crew,fares,route\n3,7,Holm\n4,8,Ness\n');
    expect([turned.code, sumOf(turned.out)]).toEqual([0, 15]);
    expect(turned.notes).toContain('“crew” is not in the recipe and left out.');
    const gone = tally([...args, '--recipe', recipe], 'crew,route\n3,Holm\n');
    expect([gone.code, gone.out]).toEqual([1, '']);
    expect(gone.notes).toContain('The file has no “fares”, which the recipe takes.');
    const blank = tally(
      [...args, '--recipe', recipe, '--missing', 'blank'],
      'crew,route\n3,Holm\n',
    );
    expect([blank.code, sumOf(blank.out)]).toEqual([0, null]);
  });

  it('a blank column gets the type that the call gives it', () => {
    const args = ['reckon', '--data', '-', '--ask', path.join(folder, 'sum.json')];
    const data = 'route,fares\nHolm,\nNess,\n';
    expect(tally(args, data).notes).toContain('“fares” is text, but this needs a number');
    const { code, out } = tally([...args, '--type', 'fares=number'], data);
    expect([code, sumOf(out)]).toEqual([0, null]);
    expect(tally([...args, '--type', 'fares=figure'], data).code).toBe(2);
    expect(tally([...args, '--type', 'fare=number'], data).notes).toContain(
      'Did you mean “fares”?',
    );
  });

  it('records are numbered from 1, in totals found as in what is set aside', () => {
    const data = 'route,fares\nHolm,5\nNess,6\nTotal,11\n';
    const { totals } = JSON.parse(tally(['check', '--data', '-'], data).out) as {
      totals: number[];
    };
    expect(totals).toEqual([3]);
    const ask = path.join(folder, 'aside.json');
    const given = JSON.parse(SUM) as object;
    writeFileSync(ask, JSON.stringify({ ...given, ladder: { setAside: { records: totals } } }));
    expect(sumOf(tally(['reckon', '--data', '-', '--ask', ask], data).out)).toBe(11);
  });
});

describe('tally check and schema', () => {
  it('check writes a recipe that reckon takes', () => {
    const { code, out } = tally(['check', '--data', sailings]);
    expect(code).toBe(0);
    const report = JSON.parse(out) as { recipe: unknown; doubts: unknown[]; records: number };
    expect(report.doubts.length).toBeGreaterThan(0);
    const recipe = path.join(folder, 'recipe.json');
    writeFileSync(recipe, JSON.stringify(report.recipe));
    expect(tally(['reckon', '--data', sailings, '--recipe', recipe, '--ask', asked]).code).toBe(0);
  });

  it('schema writes JSON Schema; help says how to call it', () => {
    const { out } = tally(['schema']);
    expect(JSON.parse(out)).toMatchObject({
      $schema: expect.stringContaining('2020-12') as string,
    });
    expect(tally(['schema', 'nothing']).code).toBe(2);
    const help = tally(['--help']);
    expect([help.code, help.out]).toEqual([0, expect.stringContaining('Exit codes') as string]);
    expect(tally(['reckon', '--help']).out).toContain('--ask <FILE>');
  });
});
