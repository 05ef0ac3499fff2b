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
export interface FileParts {
  readonly members: readonly string[];
  readonly parts: readonly string[];
}

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
