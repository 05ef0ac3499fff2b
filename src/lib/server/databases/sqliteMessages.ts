import { z } from 'zod';
import { DeclaredColumn } from '$lib/core/read/unfold/declared';
import { AskedOf } from '$lib/core/read/unfold/source';
import { Bytes } from '$lib/core/table/bytes';

/** What a thread is started for; null: the names of the tables. */
export const SqliteTask = z.strictObject({ file: z.string(), asked: AskedOf.nullable() });

export const FromSqlite = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('tables'), tables: z.array(z.string()) }),
  z.strictObject({ kind: z.literal('columns'), columns: z.array(DeclaredColumn) }),
  z.strictObject({ kind: z.literal('text'), bytes: Bytes }),
  z.strictObject({ kind: z.literal('whole') }),
  z.strictObject({ kind: z.literal('fault'), message: z.string() }),
]);
export type FromSqlite = z.infer<typeof FromSqlite>;
