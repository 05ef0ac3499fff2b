import { z } from 'zod';
import { Formats } from '../tally/spec/formats';
import { KeptBands } from '../arrange/bands';
import { questionParts } from '../ask/question';
import { CitedFigure } from '../check/cited';
import { KnownTotal } from '../check/known';
import { VERSION } from '../ask/version';
import { Rung } from '../selection/condition';
import { Tally } from '../tally/spec/specs';

/** How a tally is looked at; none of it changes a figure. */
export const View = z.strictObject({
  /** Ledger. 0: grand total; 1..: a group level; groups + 1: records. */
  showDown: z.int().min(0).max(13).default(1),
  /** Groups folded or unfolded against that level, by their keys (see `groupKeyText`). */
  turned: z.array(z.string().max(4000)).max(20_000).default([]),
  /** Where the totals of a group stand. */
  totals: z.enum(['above', 'below']).default('below'),
  /** Columns in the order shown; columns not listed follow in the list's order. */
  columns: z
    .array(
      z.strictObject({
        column: z.string(),
        width: z.int().min(40).max(900).optional(),
        /** Left out: shown, unless the ledger is grouped by it. */
        hidden: z.boolean().optional(),
      }),
    )
    .max(1000)
    .default([]),
  /** How many columns stay at the left while the rest scrolls, besides the groups. */
  fixed: z.int().min(0).max(20).default(0),
  /** Width of the column of groups; left out: what its labels need. */
  groupWidth: z.int().min(120).max(900).optional(),
  /** Tallies but ledgers: whether the chart stands with the table. */
  chart: z.boolean().optional(),
  /** How the chart is drawn, where its kind knows several ways: `squeezed`, `overlaid`. */
  drawn: z.string().max(20).optional(),
});
export type View = z.infer<typeof View>;

/** One tally of a bench, with how it is looked at. */
export const TrayItem = z.strictObject({
  id: z.string().max(40),
  /** Its own name; the sentence stands in for it. */
  name: z.string().max(200).optional(),
  tally: Tally,
  view: View,
  note: z.string().max(20_000).default(''),
  /** Kept out of the report. */
  apart: z.boolean().optional(),
  /** What of it the report shows; left out: its chart and its first table. */
  shows: z.enum(['both', 'all', 'chart', 'table']).optional(),
  /** Whether it begins on a new page. */
  newPage: z.boolean().optional(),
});
export type TrayItem = z.infer<typeof TrayItem>;

/** A ladder's rungs kept under a name. */
export const Scope = z.strictObject({
  name: z.string().min(1).max(120),
  rungs: z.array(Rung).max(200),
});
export type Scope = z.infer<typeof Scope>;

/** What the report is besides the tallies of the tray, in their order. */
export const ReportSettings = z.strictObject({
  /** Empty: the name of the list. */
  title: z.string().max(300).default(''),
  /** Plain text under the title. */
  intro: z.string().max(20_000).default(''),
  paper: z.enum(['a4', 'letter']).default('a4'),
  lying: z.boolean().default(false),
});
export type ReportSettings = z.infer<typeof ReportSettings>;

/**
 * All state of a bench: one document, saved whole with a revision number. A bench is a question with
 * a view: `askOf` gives the ask that comes to the same figures.
 */
export const Bench = z.strictObject({
  version: z.literal(VERSION),
  /** The reading it works on; record numbers in it belong to that reading. */
  reading: z.int(),
  ...questionParts,
  scopes: z.array(Scope).max(200).default([]),
  /** Column whose sum every rung shows. */
  lead: z.string().nullable().default(null),
  /** Orders given by hand, by column: used again wherever the column sorts or groups. */
  orders: z.record(z.string(), z.array(z.string()).max(10_000)).default({}),
  formats: Formats.default({}),
  /** Band tables kept by name, for any tally of the bench. */
  bands: z.array(KeptBands).max(100).default([]),
  known: z.array(KnownTotal).max(1000).default([]),
  /** Figures that stand in the words of the report. */
  cited: z.array(CitedFigure).max(1000).default([]),
  /** The readings of other lists that the analyst knows, by the names of the lists. */
  seen: z.record(z.string(), z.int()).optional(),
  report: ReportSettings.default({ title: '', intro: '', paper: 'a4', lying: false }),
  tray: z.array(TrayItem).min(1).max(100),
  /** The tally that is open, by its id. */
  open: z.string(),
});
export type Bench = z.infer<typeof Bench>;
