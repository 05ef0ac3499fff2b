import { z } from 'zod';
import { GroupKey } from '../arrange/groupKey';
import { SortKey } from '../arrange/sortKey';
import { Measure } from '../measure/measure';
import { Correction } from '../read/correct';
import { VERSION } from '../ask/version';
import { Ladder, Rung } from '../selection/condition';
import { NumberFormat } from '../table/format';
import type { Bench } from './document';

/** A bench as version 1 wrote it, but for what `ask/upgrade` brought over already. Never changed any more. */
export const BenchVersion1 = z.strictObject({
  version: z.literal(1),
  reading: z.int(),
  ladder: Ladder,
  scopes: z.array(z.object({ name: z.string(), rungs: z.array(Rung) })).default([]),
  lead: z.string().nullable().default(null),
  tallies: z
    .array(
      z.object({
        id: z.string(),
        kind: z.literal('ledger'),
        spec: z.object({
          groups: z.array(GroupKey).default([]),
          sort: z.array(SortKey).default([]),
          measures: z.array(Measure).default([]),
          totals: z.enum(['above', 'below']).default('below'),
        }),
        view: z.object({
          showDown: z.int(),
          turned: z.array(z.string()).default([]),
          columns: z
            .array(
              z.object({
                column: z.string(),
                width: z.int().optional(),
                hidden: z.boolean().optional(),
              }),
            )
            .default([]),
          fixed: z.int().default(0),
          groupWidth: z.int().optional(),
        }),
      }),
    )
    .min(1),
  open: z.string(),
  orders: z.record(z.string(), z.array(z.string())).default({}),
  formats: z.record(z.string(), NumberFormat).default({}),
  corrections: z.array(Correction).default([]),
});

/** The same bench as a question with a view. */
export function fromVersion1({ tallies, ...rest }: z.infer<typeof BenchVersion1>): Bench {
  return {
    ...rest,
    version: VERSION,
    lists: {},
    reshape: [],
    joins: [],
    computed: [],
    sort: [],
    bands: [],
    known: [],
    cited: [],
    report: { title: '', intro: '', paper: 'a4', lying: false },
    tray: tallies.map(({ id, spec: { totals, ...spec }, view }) => ({
      id,
      tally: { kind: 'ledger', scope: 'counted', records: false, ...spec },
      view: { ...view, totals },
      note: '',
    })),
  };
}
