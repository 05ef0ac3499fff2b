import { z } from 'zod';
import { namesIn } from '../expression/names';

const k = z.number().positive().max(1e9);
/** A number, or a date, time or date and time in ISO 8601 for columns of those types. */
const Point = z.union([z.number(), z.string().max(40)]);

export const COMPARISONS = ['eq', 'ne', 'lt', 'le', 'gt', 'ge'] as const;
export type Comparison = (typeof COMPARISONS)[number];

/** What a condition asks of one column (calculations, section 1). */
export const Test = z.discriminatedUnion('test', [
  /** Text or yes/no: equals one of the values. `exact` keeps case and accents apart. */
  z.strictObject({
    test: z.literal('is'),
    values: z.array(z.string()).max(10_000),
    exact: z.boolean().default(false),
  }),
  z.strictObject({
    test: z.enum(['contains', 'startsWith', 'endsWith', 'pattern', 'regex']),
    text: z.string().max(1000),
    exact: z.boolean().default(false),
  }),
  z.strictObject({ test: z.literal('compare'), op: z.enum(COMPARISONS), value: Point }),
  z.strictObject({
    test: z.literal('between'),
    from: Point,
    to: Point,
    fromIn: z.boolean().default(true),
    toIn: z.boolean().default(true),
  }),
  /** Highest or lowest k records, or k % of them, among what the rungs above kept. */
  z.strictObject({
    test: z.literal('extreme'),
    side: z.enum(['highest', 'lowest']),
    k,
    of: z.enum(['records', 'percent']),
  }),
  z.strictObject({ test: z.literal('mean'), side: z.enum(['above', 'below']) }),
  /** More than k standard deviations (sample) from the mean. */
  z.strictObject({ test: z.literal('deviations'), k }),
  /** Below Q1 − k·IQR or above Q3 + k·IQR. */
  z.strictObject({ test: z.literal('outlying'), k: k.default(1.5) }),
  /** In any of these periods of the calendar, each named by a day in it. */
  z.strictObject({
    test: z.literal('period'),
    period: z.enum(['year', 'quarter', 'month', 'week']),
    days: z.array(z.string()).min(1).max(1000),
  }),
  /** In these months (1..12), quarters (1..4) or weekdays (1 Monday .. 7) of any year. */
  z.strictObject({
    test: z.literal('season'),
    of: z.enum(['month', 'quarter', 'weekday']),
    values: z.array(z.int().min(1).max(12)).min(1).max(12),
  }),
  /** In the last k periods up to the latest date of the list. */
  z.strictObject({
    test: z.literal('last'),
    k: z.int().min(1).max(100_000),
    period: z.enum(['day', 'week', 'month', 'quarter', 'half', 'year']),
  }),
  z.strictObject({ test: z.enum(['blank', 'unread']) }),
  /** One of the values of a column of another list. */
  z.strictObject({
    test: z.literal('listed'),
    list: z.string(),
    column: z.string(),
    exact: z.boolean().default(false),
  }),
]);
export type Test = z.infer<typeof Test>;

/** One column and what is asked of it. */
export interface Leaf {
  kind: 'leaf';
  column: string;
  not: boolean;
  test: Test;
}

/** Conditions joined: `all` by and, `any` by or. `none`: where no part holds, blank and unread among them. */
export interface Joined {
  kind: 'all' | 'any' | 'none';
  not: boolean;
  parts: Condition[];
}

/** An expression that is yes or no (see docs/expressions.md). */
export interface ByExpression {
  kind: 'expression';
  not: boolean;
  expression: string;
}

/** Records by their numbers, from 1. They belong to one reading. */
export interface ByNumber {
  kind: 'records';
  not: boolean;
  records: number[];
}

export type Condition = Leaf | Joined | ByExpression | ByNumber;

/** Record numbers, from 1. */
const RecordNumbers = z.array(z.int().min(1)).max(1_000_000);

export const Condition: z.ZodType<Condition> = z.lazy(() =>
  z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('leaf'),
      column: z.string(),
      not: z.boolean().default(false),
      test: Test,
    }),
    z.strictObject({
      kind: z.literal('expression'),
      not: z.boolean().default(false),
      expression: z.string().max(20_000),
    }),
    z.strictObject({
      kind: z.literal('records'),
      not: z.boolean().default(false),
      records: RecordNumbers,
    }),
    z.strictObject({
      kind: z.enum(['all', 'any', 'none']),
      not: z.boolean().default(false),
      parts: z.array(Condition).min(1).max(10_000),
    }),
  ]),
) as z.ZodType<Condition>;

/** One step of the ladder. */
export const Rung = z.strictObject({
  id: z.string(),
  on: z.boolean().default(true),
  condition: Condition,
});
export type Rung = z.infer<typeof Rung>;

/** Records taken out by hand: by number from 1, or all with one value; `kept` were put back from the latter. */
export const SetAside = z.strictObject({
  records: RecordNumbers.default([]),
  values: z
    .array(z.strictObject({ column: z.string(), value: z.string().nullable() }))
    .max(1000)
    .default([]),
  kept: RecordNumbers.default([]),
});
export type SetAside = z.infer<typeof SetAside>;

export const Ladder = z.strictObject({
  rungs: z.array(Rung).max(200).default([]),
  setAside: SetAside.default({ records: [], values: [], kept: [] }),
});
export type Ladder = z.infer<typeof Ladder>;

/** Every leaf of a condition. */
export function* leavesOf(condition: Condition): Generator<Leaf> {
  if (condition.kind === 'leaf') yield condition;
  else if ('parts' in condition) for (const part of condition.parts) yield* leavesOf(part);
}

/** The other lists whose values a condition asks for. */
export const listsAsked = (condition: Condition): string[] =>
  [...leavesOf(condition)].flatMap(({ test }) => (test.test === 'listed' ? [test.list] : []));

/** Every column a condition asks about, as it refers to it; a faulty expression asks about none. */
export function columnsAsked(condition: Condition): string[] {
  switch (condition.kind) {
    case 'leaf':
      return [condition.column];
    case 'expression':
      try {
        return [...namesIn(condition.expression)];
      } catch {
        return [];
      }
    case 'records':
      return [];
    default:
      return condition.parts.flatMap(columnsAsked);
  }
}

/** Tests that look at what the rungs above kept. */
export const isRelative = (test: Test): boolean =>
  ['extreme', 'mean', 'deviations', 'outlying'].includes(test.test);

/** Whether a condition asks each record by itself: no other record, no number of one, no latest date. */
export function isLocal(condition: Condition): boolean {
  switch (condition.kind) {
    case 'leaf':
      return !isRelative(condition.test) && condition.test.test !== 'last';
    case 'records':
    case 'expression':
      return false;
    default:
      return condition.parts.every(isLocal);
  }
}
