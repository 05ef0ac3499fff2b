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
};

/** What a file can be opened from besides what is taken: the sheets of a workbook, the files of a package. */
export interface FileParts {
  readonly members: readonly string[];
  readonly parts: readonly string[];
}
