import { z } from 'zod';
import { SCALAR_TYPES } from './column';
import { Calendar, CALENDAR_PERIODS } from './period';

/** Records in one chunk: small enough to send and store at once, large enough to be quick. */
export const CHUNK_RECORDS = 65_536;

/** What a column is, carried in its Arrow field's metadata. */
export const Facts = z.object({
  id: z.string().min(1).max(80),
  unit: z.string().max(40),
  type: z.enum(['text', ...SCALAR_TYPES]),
  decimals: z.int().min(0).max(12).default(0),
  percent: z.boolean().default(false),
  grain: z.enum(CALENDAR_PERIODS).default('day'),
  calendar: Calendar.optional(),
  /** Unread cells of this chunk: place within it and text. */
  unread: z.array(z.tuple([z.int().min(0), z.string()])).default([]),
});
export type Facts = z.infer<typeof Facts>;

/** The facts that a field's metadata holds; null where it holds none of ours. */
export function factsIn(text: string | undefined): Facts | null {
  if (text === undefined) return null;
  try {
    return Facts.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}
