import { z } from 'zod';
import { Band, Bands } from '../arrange/bands';
import { GroupKey, GroupOrder } from '../arrange/groupKey';
import { SortKey } from '../arrange/sortKey';
import { Measure } from '../measure/measure';
import { Recipe } from '../read/recipe';
import { Condition } from '../selection/condition';
import { Calendar } from '../table/period';
import { FigureColumn, FigureRow, FigureTable, Mark } from '../tally/answer/result';
import { SeriesSpec } from '../tally/series/seriesSpec';
import { Warning } from '../tally/trust/warnings';
import { Ask } from './ask';
import { described } from './described';
import { AskResult } from './result';

export const SCHEMAS = ['ask', 'result', 'recipe'] as const;
export type SchemaName = (typeof SCHEMAS)[number];

const TITLES: Record<SchemaName, string> = {
  ask: 'An ask: any number of tallies over a list, and over others beside it',
  result: 'What an ask comes to',
  recipe: 'How a file is read into a list',
};

/** Types that go by a name of their own, each said once. */
const NAMED = {
  Condition,
  GroupKey,
  GroupOrder,
  SortKey,
  Bands,
  Band,
  Calendar,
  Measure,
  Series: SeriesSpec,
  Table: FigureTable,
  Column: FigureColumn,
  Row: FigureRow,
  Mark,
  Warning,
  Recipe,
} as const;

/** A part of a JSON Schema that may have keys. */
interface Part {
  description?: string;
  readonly properties?: Readonly<Record<string, Part>>;
  readonly const?: unknown;
  readonly [key: string]: unknown;
}

/** Keys that tell one object from others like it. */
const TELLING = ['kind', 'by', 'do', 'test', 'of'] as const;

/** What an object is told apart by: the constant of such a key, or the key it stands under. */
function ownerOf({ properties = {} }: Part, under: string): string {
  for (const key of TELLING) {
    const value = properties[key]?.const;
    if (typeof value === 'string') return value;
  }
  return under;
}

/** Under what a named type is told apart. */
const OWNERS: Readonly<Record<string, string>> = {
  Measure: 'measure',
  Recipe: 'recipe',
  Mark: 'mark',
  lists: 'source',
  joins: 'join',
  bring: 'brought',
  rungs: 'rung',
  Series: 'series',
};

const isPart = (part: unknown): part is Part =>
  typeof part === 'object' && part !== null && !Array.isArray(part);

/** Puts the description of every key into a schema, in place. */
function describe(part: unknown, under: string): void {
  if (Array.isArray(part)) for (const inner of part) describe(inner, under);
  if (!isPart(part)) return;
  const owner = ownerOf(part, OWNERS[under] ?? under);
  for (const [key, inner] of Object.entries(part.properties ?? {})) {
    const text = described(owner, key) ?? described(OWNERS[under] ?? under, key);
    if (text !== undefined) inner.description = text;
    describe(inner, key);
  }
  for (const [key, inner] of Object.entries(part))
    if (key === '$defs' && typeof inner === 'object' && inner !== null)
      for (const [name, of] of Object.entries(inner)) describe(of, name);
    else if (key !== 'properties') describe(inner, under);
}

/**
 * JSON Schema (2020-12) of a document, made from the schema it is checked by, with what each key is.
 * @example JSON.stringify(schemaOf('ask'))
 */
export function schemaOf(name: SchemaName): Record<string, unknown> {
  const source = { ask: Ask, result: AskResult, recipe: Recipe }[name];
  const registry = z.registry<{ id: string }>();
  for (const [id, schema] of Object.entries(NAMED))
    if (schema !== source) registry.add(schema, { id });
  const schema = {
    title: TITLES[name],
    ...z.toJSONSchema(source, {
      io: name === 'result' ? 'output' : 'input',
      metadata: registry,
      reused: 'ref',
    }),
  };
  describe(schema, name);
  return schema;
}
