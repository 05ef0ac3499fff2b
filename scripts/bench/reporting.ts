import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { OpenedFile } from '$lib/core/read/opened';
import { DelimitedReader } from '$lib/core/read/delimited';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import type { Recipe } from '$lib/core/read/recipe';
import { scalarColumn } from '$lib/core/table/column';
import { ListSource } from '$lib/core/ask/question';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import type { Engine } from '$lib/engine/engine';
import { openEngine } from '$lib/engine/openEngine';
import { gatherReport } from '$lib/engine/report';
import { reportDocument } from '$lib/ui/report/document';
import { noRecipe } from '../../tests/support/smallList';
import { KINDS } from './engine';
import { madeFile, randomFrom } from './made';
import type { Meter } from './meter';

/** A ledger and a tally of every kind of the bench's own: twelve in all. */
function benchOf(table: Table): Bench {
  const start = newBench(table, 1);
  const [ledger] = start.tray;
  const grouped = Tally.parse({
    kind: 'ledger',
    groups: [{ column: 'route' }, { column: 'vessel' }],
    measures: [{ kind: 'sum', column: 'fares' }],
  });
  return {
    ...start,
    tray: [
      { ...ledger, tally: grouped },
      ...[...KINDS, { kind: 'line', x: 'boarded', y: 'fares' }].map((spec, k) => {
        const tally = Tally.parse(spec);
        return { id: `t${k}`, tally, view: newView(tally), note: '' };
      }),
    ],
  };
}

/** The report and what moved, on a made list of 1,000,000 records. */
export async function benchReporting(table: Table, { within, atMost }: Meter): Promise<void> {
  const doc = benchOf(table);
  const opened = (list: Table, recipe: Recipe, others = new Map<string, Table>()): Engine =>
    openEngine({ name: 'Made', table: list, recipe, others });
  const made = async (engine: Engine, of: Bench): Promise<string> => {
    const counts = engine.now('resolve', { doc: of });
    const facts = { list: 'Made', read: 'today', made: 'today' };
    const report = await gatherReport((kind, args) => engine.now(kind, args), counts, of, facts);
    return reportDocument(report, of.report);
  };
  within(
    `a report of ${doc.tray.length} tallies over 1,000,000 records`,
    await took(() => made(opened(table, noRecipe), doc)),
    4000,
  );
  const now = numbered(table);
  const others = new Map([['before', changed(now)]]);
  const engine = opened(now, noRecipe, others);
  const comparison = Tally.parse({
    kind: 'comparison',
    with: 'before',
    match: ['ticket'],
    tally: doc.tray[0].tally,
  });
  const asked: Bench = {
    ...newBench(now, 1),
    lists: { before: ListSource.parse({}) },
    tray: [{ id: 'moved', tally: comparison, view: newView(comparison), note: '' }],
    open: 'moved',
  };
  const { token } = engine.now('resolve', { doc: asked });
  within(
    'what moved between two readings of 1,000,000 records, 1 % of them changed',
    await took(() => Promise.resolve(engine.now('answer', { token, tally: 'moved' }))),
    2000,
  );
  const all12 = engine.now('resolve', { doc: { ...doc, lists: asked.lists } }).token;
  within(
    'the same for every tally of a report of 12',
    await took(() => Promise.resolve(engine.now('moved', { token: all12, with: 'before' }))),
    4000,
  );
  const bytes = madeFile(78_000_000);
  const read = (): { table: Table; recipe: Recipe } => {
    const file = OpenedFile.delimited(bytes.subarray(0, HEAD_BYTES), false);
    const recipe = file.propose();
    const reader = new DelimitedReader(recipe);
    reader.push(bytes, true);
    return { table: reader.finish().table, recipe };
  };
  read();
  const reading = await took(() => Promise.resolve(read()));
  const all = await took(async () => {
    const { table: list, recipe } = read();
    const start = newBench(list, 1);
    return made(opened(list, recipe), start);
  });
  atMost('a report of a file of 78 MB', all / reading, 1.6, 'the time of reading it');
}

/** Records that each have a number of their own. */
const numbered = (table: Table): Table => ({
  ...table,
  columns: [
    ...table.columns,
    scalarColumn(
      'ticket',
      'number',
      Array.from({ length: table.length }, (_, k) => k),
    ),
  ],
});

/** The same records with the fares of one in a hundred changed. */
function changed(table: Table): Table {
  const random = randomFrom(3);
  return {
    ...table,
    columns: table.columns.map((column) =>
      column.id === 'fares' && 'values' in column
        ? { ...column, values: column.values.map((v) => (random() < 0.01 ? v + 1 : v)) }
        : column,
    ),
  };
}

async function took(work: () => Promise<unknown>): Promise<number> {
  globalThis.gc?.();
  const start = performance.now();
  await work();
  return performance.now() - start;
}
