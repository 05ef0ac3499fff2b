import { z } from 'zod';

/** What a file is, past what it is packed in. */
export const FILE_FORMS = [
  'delimited',
  'fixed',
  'workbook',
  'json',
  'arrow',
  'parquet',
  'sqlite',
  'postgres',
] as const;
export type FileForm = (typeof FILE_FORMS)[number];

/**
 * What a head that not all of several files have is: a column of its own, blank where a file lacks it; left
 * out; or the same as another head.
 */
export const HeadSettled = z.union([
  z.literal('own'),
  z.literal('out'),
  z.strictObject({ sameAs: z.string().max(1000) }),
]);
export type HeadSettled = z.infer<typeof HeadSettled>;

/** Where in a file the cells come from, for whatever is more than delimited text: kept in its recipe. */
export const Source = z.strictObject({
  form: z.enum(FILE_FORMS),
  packed: z.enum(['gzip', 'zip']).optional(),
  /** The file that was taken out of a package. */
  member: z.string().max(1000).optional(),
  /** All files of a package, one behind the other. */
  all: z.literal(true).optional(),
  /** The sheet of a workbook, the table of a database. */
  part: z.string().max(1000).optional(),
  /** Which of several tables on a sheet, from 1 in reading order; 0: all that stands on it as one. */
  block: z.int().min(0).max(10_000).optional(),
  /** Of several files with other columns: what each of their heads is, once that was settled. */
  heads: z.record(z.string(), HeadSettled).optional(),
  /** Where the columns of fixed-width text begin, from 0. */
  cuts: z.array(z.int().min(0).max(100_000)).min(1).max(1000).optional(),
  /** The name under which the server keeps the connection to a database. */
  connection: z.string().max(200).optional(),
  /** What was asked of the database in place of a table. */
  query: z.string().max(100_000).optional(),
});
export type Source = z.infer<typeof Source>;

/** Words for a person. */
export const FILE_FORM_NAMES: Readonly<Record<FileForm, string>> = {
  delimited: 'delimited text',
  fixed: 'text in columns of fixed width',
  workbook: 'a workbook',
  json: 'JSON',
  arrow: 'an Arrow file',
  parquet: 'a Parquet file',
  sqlite: 'a SQLite database',
  postgres: 'a PostgreSQL database',
};

/** What a file can be opened from besides what is taken: the sheets of a workbook, the files of a package. */
export const FileParts = z.strictObject({
  members: z.array(z.string()).readonly(),
  parts: z.array(z.string()).readonly(),
  /** Tables that stand on one sheet, in words; none where there is one. */
  blocks: z.array(z.string()).readonly(),
  /** The first lines of text in columns of fixed width. */
  lines: z.array(z.string()).readonly(),
});
export type FileParts = z.infer<typeof FileParts>;

export const NO_PARTS: FileParts = { members: [], parts: [], blocks: [], lines: [] };

/** A head that not all of several files have. */
export const HeadDifference = z.strictObject({
  head: z.string(),
  /** Files that lack it. */
  lackedBy: z.array(z.string()).readonly(),
  /** Heads that no file has beside it, which it may be the same as. */
  others: z.array(z.string()).readonly(),
});
export type HeadDifference = z.infer<typeof HeadDifference>;

/** Forms of databases: read where they lie, not from bytes. */
export const DATABASE_FORMS = ['sqlite', 'postgres'] as const satisfies readonly FileForm[];
export type DatabaseForm = (typeof DATABASE_FORMS)[number];

/** What of a database is read: a table or view by its name, or what a query comes to. */
export const AskedOf = z.union([
  z.strictObject({ table: z.string().min(1).max(1000) }),
  z.strictObject({ query: z.string().trim().min(1, 'The query is empty.').max(100_000) }),
]);
export type AskedOf = z.infer<typeof AskedOf>;

/** What a recipe's source asks of its database; null where it is of none. */
export function askedBy({ part, query }: Source): AskedOf | null {
  if (query !== undefined) return { query };
  return part === undefined ? null : { table: part };
}
