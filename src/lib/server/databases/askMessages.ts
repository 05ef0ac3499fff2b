import { z } from 'zod';
import { DeclaredColumn } from '$lib/core/read/decode/declared';
import { AskedOf } from '$lib/core/read/decode/source';
import { Bytes } from '$lib/core/table/bytes';
import { Connection } from './connections';
import { Grouped } from './grouped';

/** What a thread is started for. */
export const AskTask = z.strictObject({
  connection: Connection,
  /** null: the names of the tables. */
  asked: AskedOf.nullable(),
  /** In place of the records: their groups. */
  grouped: Grouped.optional(),
});
export type AskTask = z.infer<typeof AskTask>;

/** To the thread: the next part is wanted, or none any more. */
export const ToAsking = z.enum(['next', 'leave']);
export type ToAsking = z.infer<typeof ToAsking>;

export const FromAsking = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('tables'), tables: z.array(z.string()) }),
  z.strictObject({ kind: z.literal('columns'), columns: z.array(DeclaredColumn) }),
  /** An Arrow IPC stream of some records. */
  z.strictObject({ kind: z.literal('part'), bytes: Bytes }),
  z.strictObject({ kind: z.literal('whole') }),
  z.strictObject({ kind: z.literal('fault'), message: z.string(), ours: z.boolean() }),
]);
export type FromAsking = z.infer<typeof FromAsking>;
