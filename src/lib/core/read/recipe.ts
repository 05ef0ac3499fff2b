import { z } from 'zod';
import { COLUMN_TYPES, GRAINS } from '../table/column';
import { ACCOUNT_MARKS } from './numbers';
import { Source } from './decode/source';

/** Encodings a delimited file may come in. */
export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

export const DELIMITERS = [',', ';', '\t', '|'] as const;
export type Delimiter = (typeof DELIMITERS)[number];

export const DATE_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

/** Words that may stand for a blank (calculations, section 2). */
export const BLANK_WORDS = ['NA', 'N/A', 'n/a', 'null', 'none', '-', '–', '.'] as const;

/** A cell longer than this is listed as a doubt. */
export const LONG_CELL = 1_000_000;

/** More lines at the end are no notes below a table. */
export const MOST_NOTES = 50;

export const MAX_COLUMNS = 1000;

/** How one column of the file is read. */
export const ColumnRecipe = z
  .object({
    id: z.string().min(1).max(80),
    /** Its place among the cells of a record; null: not in this file, all blank. */
    at: z.int().min(0).max(100_000).nullable(),
    /** The heading in the file; a refresh finds the column by it. */
    source: z.string().max(10_000),
    name: z.string().min(1).max(200),
    type: z.enum(COLUMN_TYPES),
    unit: z.string().max(40).default(''),
    /** Whether the unit also stands behind the values in the cells ("14 min"). */
    unitInCells: z.boolean().default(false),
    thousands: z.enum(['', ',', '.', ' ', "'"]).default(''),
    decimal: z.enum(['.', ',']).default('.'),
    /** Which mark of accounts behind a number takes it off; '' where there are none. */
    takenOff: z.enum(['', ...ACCOUNT_MARKS]).default(''),
    dateOrder: z.enum(DATE_ORDERS).default('ymd'),
    /** Dates and times only: plain numbers are days as workbooks count them (45,301 is 10 January 2024). */
    dayNumbers: z.boolean().default(false),
    /** What a date value covers: "2025 Q2" is a quarter. */
    grain: z.enum(GRAINS).default('day'),
    /** datetime only: the clock as written, or every time turned to UTC by its offset. */
    zone: z.enum(['clock', 'utc']).default('clock'),
    /** Words read as blank in this column, besides the empty cell. */
    blanks: z.array(z.string().max(40)).max(40).default([]),
  })
  .strict();
export type ColumnRecipe = z.infer<typeof ColumnRecipe>;

/** How a file is read into a list: kept with the reading and used again at the next one. */
export const Recipe = z
  .object({
    format: z.literal('delimited').default('delimited'),
    /** What the text came from, where the file is more than delimited text. */
    source: Source.optional(),
    delimiter: z.enum(DELIMITERS),
    /** '' reads quotes as ordinary characters. */
    quote: z.enum(['"', "'", '']),
    encoding: z.enum(ENCODINGS),
    header: z.boolean(),
    /** Whether the line below the heads holds units of the columns. */
    unitsBelow: z.boolean().optional(),
    skipLines: z.int().min(0).max(10_000),
    /** Lines below the table that are no records, blank ones not counted; left out: to be found. */
    notesBelow: z.int().min(0).max(MOST_NOTES).optional(),
    /** What was decided about records that look like totals inside the list; left out: nothing yet. */
    totals: z.enum(['aside', 'counted']).optional(),
    /** Cells that a record should have. */
    width: z.int().min(1).max(100_000),
    /** The columns taken into the list, in its order; cells of others are left out. */
    columns: z.array(ColumnRecipe).min(1).max(MAX_COLUMNS),
  })
  .strict();
export type Recipe = z.infer<typeof Recipe>;

/** The part of a recipe that says how text becomes cells. */
export type Layout = Omit<Recipe, 'columns' | 'width'>;
