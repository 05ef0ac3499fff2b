import { z } from 'zod';
import { SortKey } from '../arrange/sortKey';
import { ComputedSpec, JoinSpec, ReshapeSpec } from '../prepare/specs';
import { Correction } from '../read/correct';
import { Recipe } from '../read/recipe';
import { Condition, SetAside } from '../selection/condition';
import { TallyResult } from '../tally/answer/result';
import { SimpleTally } from '../tally/spec/simpleSpecs';

/** Where another list comes from: a file for the command line, a stored list for the server. */
export const ListSource = z.strictObject({
  /** Path of a file, from the folder of the ask. */
  file: z.string().max(4000).optional(),
  recipe: Recipe.optional(),
  /** Number of a stored list; its current reading unless one is named. */
  list: z.int().min(1).optional(),
  reading: z.int().min(1).optional(),
  /** Or the groups of a tally over the list itself, computed anew each time: linked to its source. */
  tally: SimpleTally.optional(),
  /**
   * Which records of the list that tally looks at: all as they were `read`, or those `counted` by this
   * question, corrected, prepared and narrowed. The latter is there for tallies alone: what narrows or
   * prepares the list cannot look at what follows from it.
   */
  follows: z.enum(['read', 'counted']).optional(),
  /** Or a result kept from an earlier answer: frozen, with the day it was made. */
  frozen: z
    .strictObject({ on: z.iso.date(), from: z.string().max(200), result: TallyResult })
    .optional(),
  /** Which table of the tally or result; the first unless given. */
  table: z.string().default('main'),
});
export type ListSource = z.infer<typeof ListSource>;

/** A rung of an ask; it needs no id. */
const AskRung = z.strictObject({
  id: z.string().default(''),
  on: z.boolean().default(true),
  condition: Condition,
});

const NOTHING_ASIDE = { records: [], values: [], kept: [] };

/** What an ask and a bench hold alike: which list is asked of, how prepared, what counts, in which order. */
export const questionParts = {
  /** Other lists, by the name the rest calls them. */
  lists: z.record(z.string().min(1).max(200), ListSource).default({}),
  /** Cells put right by hand, before anything else. */
  corrections: z.array(Correction).max(10_000).default([]),
  /** Stacking and unstacking, in this order. */
  reshape: z.array(ReshapeSpec).max(20).default([]),
  joins: z.array(JoinSpec).max(50).default([]),
  /** Computed columns may use joined ones and one another, in any order. */
  computed: z.array(ComputedSpec).max(500).default([]),
  /** What counts: all records → each rung → set aside. */
  ladder: z
    .strictObject({
      rungs: z.array(AskRung).max(200).default([]),
      setAside: SetAside.default(NOTHING_ASIDE),
    })
    .default({ rungs: [], setAside: NOTHING_ASIDE }),
  /** Order of the records; `first` and `last` look at it. A ledger may have its own. */
  sort: z.array(SortKey).max(12).default([]),
} as const;

/**
 * A list in question. Columns are named by their name or id, or given as `expression: …`. Records
 * are numbered from 1.
 */
export const Question = z.strictObject(questionParts);
export type Question = z.infer<typeof Question>;
