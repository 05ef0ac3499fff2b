import type { Bench } from '$lib/core/bench/document';
import { moveBench } from '$lib/core/bench/move';
import { finish } from '$lib/core/task/task';
import { counted, showDay } from '$lib/core/table/format';
import type { Recipe } from '$lib/core/read/recipe';
import type { Table } from '$lib/core/table/table';
import { OUT_FORMS, type OutForm } from '$lib/core/write/forms';
import { resultFile } from '$lib/core/write/resultFile';
import { writtenText } from '$lib/core/write/written';
import { openEngine } from '$lib/engine/openEngine';
import { reportResult } from '$lib/engine/reportResult';
import { gatherReport, movedInWords, troublesOf } from '$lib/engine/report';
import { reportDocument } from '$lib/ui/report/document';
import { dialectOf, type DialectOptions } from './dialect';
import { Disagrees, Misused } from './exit';
import { listName } from './input';
import { listsNamed, type ListOptions } from './listsNamed';
import { note, writeFile } from './output';
import { readAs, type ReadOptions } from './readAs';
import { readAsBench, readBench } from './readBench';
import { readWithAdded, type AddOptions } from './addFiles';
import { readChecked } from './readChecked';

export interface ReportOptions extends ReadOptions, AddOptions, ListOptions, DialectOptions {
  readonly data: string;
  readonly out?: string;
  readonly format?: string;
  /** The file that the bench was made on. */
  readonly against?: string;
  readonly name?: string;
}

/** What the file given by --against is called. */
const OLDER = 'the file before';

/** A page and JSON are the report itself; the others hold its tallies. */
type Format = Exclude<OutForm, 'arrow' | 'parquet'>;
const FORMATS = OUT_FORMS.filter((form): form is Format => form !== 'arrow' && form !== 'parquet');

/**
 * The report of a bench over a file, by the same code as the page.
 * @throws Misused, Failed, and Disagrees once it is written: a known total that does not agree, or a
 * table that does not foot
 */
export async function report(file: string, options: ReportOptions): Promise<void> {
  const format = formatOf(options);
  const dialect = dialectOf(options);
  const bench = readBench(file);
  const as = readAsBench(readAs(options), bench);
  const { table, recipe } = await readWithAdded(options, as);
  const others = await listsNamed(options.list, bench.recipes);
  const { doc, before } = await standingOn(bench.doc, table, { ...options, by: as.recipe });
  if (before) others.set(OLDER, before);
  for (const [name, source] of Object.entries(doc.lists))
    if (!others.has(name) && source.tally === undefined && source.frozen === undefined)
      throw new Misused(`The bench looks at the list “${name}”. Give it: --list "${name}=FILE".`);
  const list = { name: options.name ?? listName(options.data), table, recipe, others };
  const today = showDay(new Date());
  const engine = openEngine(list);
  const counts = engine.now('resolve', { doc });
  const made = await gatherReport((kind, args) => engine.now(kind, args), counts, doc, {
    list: list.name,
    read: today,
    made: today,
    against: before ? OLDER : undefined,
  });
  writeFile(
    format === 'html'
      ? writtenText(await reportDocument(made, doc.report))
      : format === 'json'
        ? writtenText(`${JSON.stringify(made, null, 2)}\n`)
        : await resultFile(
            reportResult(engine, counts.token, doc, format, dialect),
            format,
            dialect,
          ),
    options.out,
  );
  for (const line of movedInWords(made)) note(line);
  const troubles = [
    ...counts.faults
      .filter(({ path }) => !path.startsWith('tray'))
      .map((f) => `${f.message} ${f.remedy}`),
    ...troublesOf(made),
  ];
  if (troubles.length) throw new Disagrees(troubles.join('\n'));
}

function formatOf({ format, out }: ReportOptions): Format {
  const extension = format ?? out?.split('.').pop() ?? 'html';
  const known = FORMATS.find((f) => f === extension);
  if (!known) throw new Misused(`A report is one of ${FORMATS.join(', ')}, not “${extension}”.`);
  return known;
}

/** The bench on the list of this file: records that it names are found again by what they hold. */
async function standingOn(
  doc: Bench,
  table: Table,
  { against, missing, type, by }: ReportOptions & { readonly by: Recipe | null },
): Promise<{ doc: Bench; before: Table | null }> {
  const { setAside } = doc.ladder;
  const named = setAside.records.length + setAside.kept.length + doc.corrections.length;
  if (against !== undefined) {
    const { table: before } = await readChecked(against, {
      ...readAs({ missing, type, head: [] }),
      recipe: by,
    });
    const { doc: moved, lost } = finish(moveBench(doc, before, table, doc.reading));
    if (lost)
      note(
        `${counted(lost, 'record')} that the bench sets aside, corrects or names ${lost === 1 ? 'is' : 'are'} not in this file.`,
      );
    return { doc: moved, before };
  }
  if (named)
    note(
      `The bench names ${counted(named, 'record')} by number. In another file than its own these may be others: give its own with --against.`,
    );
  return { doc, before: null };
}
