import { z } from 'zod';
import { TrayItem, type Bench } from '../core/bench/document';
import { counted, showCount, showShare } from '../core/table/format';
import { MOST_DRAWN } from './gatherRows';
import { gatherShape } from './gatherShape';
import { gatherTable, type Asker } from './gatherTable';
import { Answered, Row, TableHead } from './replies/tables';
import { CitedNow, KnownNow } from './replies/checks';
import { Moved } from './replies/moved';
import { Shape } from './replies/shape';
import { type Counts } from './replies/counts';

/** A table of a section with the rows that the report shows or draws. */
export const ReportTable = z.strictObject({
  head: TableHead,
  rows: z.array(Row),
  /** How many of these are printed. */
  printed: z.int(),
  /** Rows there are as it is looked at; more than are printed where it is cut. */
  length: z.int(),
  /** The row of the whole; null where there is none. */
  whole: Row.nullable(),
});
export type ReportTable = z.infer<typeof ReportTable>;

/** One tally of the report. */
export const ReportSection = z.strictObject({
  id: z.string(),
  item: TrayItem,
  /** The name that it was given; empty where its sentence stands alone. */
  name: z.string(),
  answered: Answered,
  shape: Shape,
  tables: z.array(ReportTable),
  /** Whether it foots, in words; empty where nothing was compared. */
  footing: z.string(),
  foots: z.boolean(),
});
export type ReportSection = z.infer<typeof ReportSection>;

/** A bench as a report: everything that stands in it, in words and figures. */
export const Report = z.strictObject({
  title: z.string(),
  intro: z.string(),
  list: z.string(),
  /** When the list was read, and when the report was made: as they are shown. */
  read: z.string(),
  made: z.string(),
  /** What counts as one line. */
  scope: z.string(),
  sections: z.array(ReportSection),
  known: z.array(KnownNow),
  /** Figures that stand in its words. */
  cited: z.array(CitedNow),
  /** What moved since an older reading, where one is set against it. */
  moved: Moved.nullable(),
});
export type Report = z.infer<typeof Report>;

/** What a report is of besides the bench. */
export interface ReportFacts {
  readonly list: string;
  readonly read: string;
  readonly made: string;
  /** The name of an older reading to set its figures against. */
  readonly against?: string | undefined;
}

/** A table longer than this is cut, and says so: the rest is handed over as a file. */
export const MOST_ROWS = 1000;

/**
 * Gathers a bench's report from an engine that has resolved it: the page, the server and the command
 * line have one report.
 * @param told is told of how many tallies it has the figures
 */
export async function gatherReport(
  ask: Asker,
  counts: Counts,
  doc: Bench,
  { against, ...facts }: ReportFacts,
  told: (done: number, all: number) => void = () => undefined,
): Promise<Report> {
  const { token } = counts;
  const sections: ReportSection[] = [];
  const shown = doc.tray.filter(({ apart }) => !apart);
  for (const [k, item] of shown.entries()) {
    told(k, shown.length);
    sections.push(await sectionOf(ask, token, item));
  }
  return {
    ...facts,
    title: doc.report.title || facts.list,
    intro: doc.report.intro,
    scope: scopeLine(counts),
    sections,
    known: await ask('known', { token }),
    cited: await ask('cited', { token }),
    moved: against === undefined ? null : await ask('moved', { token, with: against }),
  };
}

async function sectionOf(ask: Asker, token: number, item: TrayItem): Promise<ReportSection> {
  const at = { token, tally: item.id };
  const answered = await ask('answer', at);
  const shape: Shape = answered.refused
    ? { kind: 'none' }
    : await gatherShape((from) => ask('shape', { ...at, from }));
  const tables: ReportTable[] = [];
  const { showDown, turned } = item.view;
  for (const head of answered.tables) {
    const view = { down: showDown, turned };
    const most = head.drawnWhole ? MOST_DRAWN : MOST_ROWS;
    const { rows, ...table } = await gatherTable(
      ask,
      head,
      { ...at, table: head.name, view },
      most,
    );
    tables.push({ ...table, rows, printed: Math.min(rows.length, MOST_ROWS) });
  }
  const footing = await ask('footing', at);
  return {
    id: item.id,
    item,
    name: item.name ?? '',
    answered,
    shape,
    tables: tables.filter(({ length }, k) => k === 0 || length > 0),
    footing: footing.compared > 0 ? footing.words : '',
    foots: footing.foots,
  };
}

/**
 * What counts as one line: `17,631 records → Cancelled is no, 17,095 → counted 17,095, 97.0 %. Nothing
 * is set aside by hand.`
 */
function scopeLine({
  all,
  rungs,
  setAside,
  aside: named,
  counted: c,
  corrections,
}: Counts): string {
  const steps = rungs
    .filter(({ on }) => on)
    .map(({ words, records }) => `${words}, ${showCount(records)}`);
  const share = all.records > 0 ? `, ${showShare(c.records / all.records)}` : '';
  const aside =
    setAside.records > 0
      ? `${counted(setAside.records, 'record')} set aside by hand${named.length ? `: ${named.join('; ')}` : ''}.`
      : 'Nothing is set aside by hand.';
  const way = [counted(all.records, 'record'), ...steps, `counted ${showCount(c.records)}${share}`];
  return `${way.join(' → ')}. ${aside}${correctedWords(corrections)}`;
}

/** Corrections that are told one by one in the line of what counts. */
const MOST_TOLD = 20;

/** ` 2 cells are corrected by hand: record 12, Delay: “3 min min” is “3 min”; …` */
function correctedWords(corrections: Counts['corrections']): string {
  if (corrections.length === 0) return '';
  const told = corrections.slice(0, MOST_TOLD).map(({ words }) => words);
  const more = corrections.length - told.length;
  return ` ${counted(corrections.length, 'cell')} ${corrections.length === 1 ? 'is' : 'are'} corrected by hand: ${told.join('; ')}${more ? `; and ${showCount(more)} more` : ''}.`;
}

/** What does not hold in a report, in words: known totals that differ, tables that do not foot. */
export const troublesOf = ({ sections, known }: Report): string[] => [
  ...sections
    .filter(({ foots }) => !foots)
    .map(({ name, footing, answered }) => `${name || answered.sentence}: ${footing}`),
  ...sections
    .filter(({ answered }) => answered.refused || answered.faults.length)
    .map(({ name, answered }) => {
      const [fault] = answered.faults;
      return `${name || answered.sentence}: ${answered.refused || `${fault.message} ${fault.remedy}`}`;
    }),
  ...known
    .filter(({ stands }) => stands !== 'agrees')
    .map((k) =>
      k.stands === 'lost'
        ? `Known total ${k.known}${k.source ? ` (${k.source})` : ''}: ${k.why}`
        : `${[k.where, k.title].filter(Boolean).join(', ')} is ${k.figure}, and should be ${k.known}${k.source ? ` (${k.source})` : ''}: ${k.difference} apart.`,
    ),
];

/** What moved since an older reading, a line for each tally, and figures in words that are no longer as read. */
export const movedInWords = ({ moved, cited }: Report): string[] => [
  ...(moved?.tallies ?? [])
    .filter(({ count, came, went }) => count + came.length + went.length > 0)
    .map(({ name, words, count, compared, moved: [most], came, went }) =>
      [
        `${name || words}: ${counted(count, 'figure')} of ${compared} moved`,
        most ? `, most ${most.where}, ${most.title}: ${most.before} → ${most.after}` : '',
        came.length ? `; new: ${came.join(', ')}` : '',
        went.length ? `; gone: ${went.join(', ')}` : '',
        '.',
      ].join(''),
    ),
  ...cited
    .filter(({ stands }) => stands !== 'same')
    .map(({ where, title, figure, read, stands, why }) =>
      stands === 'lost'
        ? `In the words of the report: ${where ? `${where}, ` : ''}${title} was ${read}: ${why}`
        : `In the words of the report: ${where ? `${where}, ` : ''}${title} is ${figure}; it was ${read} when they were read last.`,
    ),
];
