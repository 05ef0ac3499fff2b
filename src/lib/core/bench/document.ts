import { z } from 'zod';
import { Correction } from '../read/correct';
import { Ladder, Rung } from '../scope/condition';
import { NumberFormat } from '../table/format';
import { LedgerSpec } from '../tally/ledger/spec';

/** How a ledger is looked at; none of it changes a figure. */
export const LedgerView = z.object({
  /** 0: grand total; 1..: a group level; groups + 1: records. */
  showDown: z.int().min(0).max(13),
  /** Groups folded or unfolded against that level, by their labels. */
  turned: z.array(z.string().max(4000)).max(20_000).default([]),
  /** Columns in the order shown; columns not listed follow in the list's order. */
  columns: z
    .array(
      z.object({
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
});
export type LedgerView = z.infer<typeof LedgerView>;

export const LedgerTally = z.object({
  id: z.string(),
  kind: z.literal('ledger'),
  spec: LedgerSpec,
  view: LedgerView,
});
export type LedgerTally = z.infer<typeof LedgerTally>;

/** A ladder's rungs kept under a name. */
export const Scope = z.object({ name: z.string().min(1).max(120), rungs: z.array(Rung).max(200) });
export type Scope = z.infer<typeof Scope>;

/** All state of a bench: one document, saved whole with a revision number. */
export const BenchDocument = z
  .object({
    version: z.literal(1),
    /** The reading it works on; record numbers in it belong to that reading. */
    reading: z.int(),
    ladder: Ladder,
    scopes: z.array(Scope).max(200).default([]),
    /** Column whose sum every rung shows. */
    lead: z.string().nullable().default(null),
    tallies: z.array(LedgerTally).min(1).max(100),
    open: z.string(),
    /** Orders given by hand, by column: used again wherever the column sorts or groups. */
    orders: z.record(z.string(), z.array(z.string()).max(10_000)).default({}),
    formats: z.record(z.string(), NumberFormat).default({}),
    corrections: z.array(Correction).max(10_000).default([]),
  })
  .strict();
export type BenchDocument = z.infer<typeof BenchDocument>;

/** The tally that is open; a document always has one. */
export const openTally = (doc: BenchDocument): LedgerTally =>
  doc.tallies.find((t) => t.id === doc.open) ?? doc.tallies[0];
