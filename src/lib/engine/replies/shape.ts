import { z } from 'zod';
import { NumberFormat } from '../../core/table/format';
import { Figure } from '../../core/tally/answer/result';

/** What a chart shows besides the figures of the tables. */
export const Shape = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  /** How all values fall: counts between edges, and those beyond them. */
  z.strictObject({
    kind: z.literal('bins'),
    edges: z.array(z.number()),
    counts: z.array(z.int()),
    under: z.int(),
    over: z.int(),
    least: z.number(),
    most: z.number(),
    name: z.string(),
    unit: z.string(),
    decimals: z.int(),
  }),
  /** All values in order: at or under each value, which share. */
  z.strictObject({
    kind: z.literal('curves'),
    name: z.string(),
    unit: z.string(),
    curves: z.array(
      z.strictObject({
        label: z.string(),
        values: z.array(z.number()),
        shares: z.array(z.number()),
        count: z.int(),
      }),
    ),
    others: z.int(),
  }),
  /** Points of two columns: each by itself with its record, or, of very many, counted in cells. */
  z.strictObject({
    kind: z.literal('points'),
    x: z.strictObject({ name: z.string(), unit: z.string() }),
    y: z.strictObject({ name: z.string(), unit: z.string() }),
    /** Side by side: along, up, the place of the record, and its group among `groups`; -1 for none. */
    points: z.array(z.tuple([z.number(), z.number(), z.int(), z.int()])),
    groups: z.array(z.string()),
    /** Counts of cells of equal size; empty where all points are there. */
    cells: z.array(z.tuple([z.number(), z.number(), z.int()])),
    cell: z.tuple([z.number(), z.number()]),
    count: z.int(),
    /** Groups that have a line which is not drawn: those of fewer points. */
    others: z.int(),
    /** Lines from end to end, the whole first; the bounds of a prediction around the whole. */
    lines: z.array(
      z.strictObject({
        label: z.string(),
        from: z.tuple([z.number(), z.number()]),
        to: z.tuple([z.number(), z.number()]),
      }),
    ),
    band: z.array(z.tuple([z.number(), z.number(), z.number()])),
  }),
  /** One column of the table by groups, a line for each group over the same periods. */
  z.strictObject({
    kind: z.literal('series'),
    /** Steps there are: of very many they come in several answers. */
    length: z.int(),
    steps: z.array(z.string()),
    lines: z.array(
      z.strictObject({
        name: z.string(),
        values: z.array(z.number().nullable()),
        /** The keys of its first row. */
        keys: z.array(Figure),
      }),
    ),
    /** The keys of a row at each step; those of groups, whose places are told, are the line's own. */
    stepKeys: z.array(z.array(Figure)),
    groupsAt: z.array(z.int()),
    title: z.string(),
    unit: z.string(),
    share: z.boolean(),
    /** How its figures are written. */
    format: NumberFormat,
    /** Groups that have no line here. */
    others: z.int(),
  }),
]);
export type Shape = z.infer<typeof Shape>;
