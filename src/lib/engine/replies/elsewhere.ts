import { z } from 'zod';

/** Records of another list that a figure stands on. */
export const ElsewhereRecords = z.strictObject({
  list: z.string(),
  total: z.int(),
  columns: z.array(z.strictObject({ name: z.string(), right: z.boolean() })),
  records: z.array(z.strictObject({ number: z.int(), cells: z.array(z.string()) })),
});
export type ElsewhereRecords = z.infer<typeof ElsewhereRecords>;
