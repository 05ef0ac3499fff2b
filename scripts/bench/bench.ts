import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import type { Table } from '$lib/core/table/table';
import { benchCore } from './core';
import { benchDatabases } from './databases';
import { benchEngine } from './engine';
import { benchForms } from './forms';
import { madeTable } from './made';
import { benchMemory } from './memory';
import { meterInto, type Meter, Result } from './meter';
import { benchPreparing } from './preparing';
import { benchReporting } from './reporting';
import { benchSeries } from './series';
import { stolenSeconds } from './stolen';
import { benchTallies } from './tallies';

// Measures the application. Run: npm run bench; -- engine core for some parts, which write nothing

const N = 1_000_000;

type Part = (table: Table, meter: Meter, results: Result[]) => void | Promise<void>;

const PARTS: Readonly<Record<string, Part>> = {
  memory: benchMemory,
  core: benchCore,
  tallies: benchTallies,
  series: benchSeries,
  engine: benchEngine,
  preparing: benchPreparing,
  reporting: benchReporting,
  forms: benchForms,
  databases: benchDatabases,
  page: async (_, __, results) => {
    const { benchPage } = await import('./page');
    results.push(...(await benchPage()));
  },
};

/**
 * Parts that are gone through several times, the middle of what each row measured taken: what is asked
 * once of a fresh engine would otherwise be told by a single moment of the machine.
 */
const PASSES: Readonly<Record<string, number>> = { engine: 5 };

/** A part, measured as often as it is to be. */
function measured(part: string): Result[] {
  const passes = Array.from({ length: PASSES[part] ?? 1 }, () => measuredOnce(part));
  return passes[0].map((_, row) => {
    const found = passes.map((pass) => pass[row]).sort((a, b) => inFigures(a) - inFigures(b));
    return found[found.length >> 1];
  });
}

const inFigures = ({ measured: text }: Result): number => Number.parseFloat(text);

/**
 * A part in a process of its own, as the worker and the server begin with one of their own: what one
 * part left behind in memory, or made the compiler expect, bends no other.
 */
function measuredOnce(part: string): Result[] {
  const child = spawnSync(
    process.execPath,
    ['--expose-gc', fileURLToPath(import.meta.url), '--part', part],
    { encoding: 'utf8', stdio: ['ignore', 'pipe', 'inherit'] },
  );
  if (child.status !== 0) throw new Error(`The part ${part} failed.`);
  return z.array(Result).parse(JSON.parse(child.stdout.split('\n').at(-1) ?? ''));
}

/** Only this part, for the process that asked for it. */
async function onePart(part: string): Promise<void> {
  const results: Result[] = [];
  await PARTS[part](madeTable(N), meterInto(results), results);
  process.stdout.write(`\n${JSON.stringify(results)}`);
}

function all(): void {
  const wanted = process.argv.slice(2).filter((name) => name in PARTS);
  const stolenBefore = stolenSeconds();
  const results = (wanted.length ? wanted : Object.keys(PARTS)).flatMap(measured);

  const wide = (rows: readonly (readonly string[])[]): string =>
    rows.map((row) => `| ${row.join(' | ')} |`).join('\n');
  const report = wide([
    ['work', 'bar', 'measured', ''],
    ['---', '---', '---', '---'],
    ...results.map((r) => [r.work, r.bar, r.measured, r.holds ? 'holds' : '**falls short**']),
  ]);
  const stolen = stolenSeconds();
  const host =
    stolen === null || stolenBefore === null
      ? ''
      : ` The host took ${(stolen - stolenBefore).toFixed(1)} s of processor time away meanwhile.`;
  process.stdout.write(`${report}\n`);
  const short = results.filter((r) => !r.holds).length;
  process.stdout.write(
    (short ? `${short} of ${results.length} fall short.` : `All ${results.length} hold.`) +
      `${host}\n`,
  );
  if (wanted.length === 0)
    writeFileSync(
      path.join(process.cwd(), 'docs/bench.md'),
      `# Speed\n\nMade by \`npm run bench\` on ${new Date().toISOString().slice(0, 10)}: Node ${process.versions.node}, ${cpus().length} cores. ` +
        'Made lists of 1,000,000 records and 12 columns. Each part is measured in a process of its own, the engine in five of which the middle is taken. Ratios are medians of rounds that run both works one behind the other; the last rows are measured in the real page in Chromium.' +
        `${host}\n\n` +
        `${report}\n`,
    );
}

const [, part] = /--part (\w+)/.exec(process.argv.join(' ')) ?? [];
if (part) await onePart(part);
else all();
