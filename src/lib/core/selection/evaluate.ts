import { BadCondition } from '../errors';
import { inStretches, STRIDE, type Task } from '../task/task';
import { DAY_MS } from '../table/calendar';
import {
  add,
  bitsetOf,
  emptyBitset,
  fullBitset,
  or,
  without,
  wordsFor,
  type Bitset,
} from '../table/bitset';
import { isText, type Column, type ScalarColumn, type TextColumn } from '../table/column';
import { placesWithin } from '../table/recordNumber';
import { type Table } from '../table/table';
import { isRelative, type ByExpression, type Condition, type Leaf, type Test } from './condition';
import { columnInSteps } from '../expression/columnFor';
import { conditionOutcome } from '../expression/evaluate';
import { knownIn } from './known';
import { dayTest, fixedInterval, relativeInterval, type Interval } from './interval';
import { textTest } from './textTest';

/** Three-valued outcome: a record in neither `yes` nor `no` is unknown (blank or unread). */
export interface Outcome {
  readonly yes: Bitset;
  readonly no: Bitset;
}

/** Keeps outcomes of leaves that do not look at other records. */
export interface OutcomeCache {
  get(key: string): Outcome | undefined;
  set(key: string, outcome: Outcome): void;
}

/** Words of 32 records that are made between two pauses. */
const WORDS = (2 * STRIDE) >>> 5;

/**
 * Where a condition holds, by the three-valued logic of SQL (ISO/IEC 9075), with pauses.
 * @param above what the rungs above kept; only "highest k", "above the mean" and their like look at it
 * @throws BadCondition where the test does not suit the column, UnknownColumn
 */
export function* evaluate(
  table: Table,
  condition: Condition,
  above: Bitset,
  cache?: OutcomeCache,
): Task<Outcome> {
  if (condition.kind === 'leaf') return yield* evaluateLeaf(table, condition, above, cache);
  if (condition.kind === 'expression') return yield* evaluateExpression(table, condition, cache);
  if (condition.kind === 'records') {
    const named = bitsetOf(table.length, placesWithin(condition.records, table.length));
    return decided(named, table.length, condition.not);
  }
  const parts: Outcome[] = [];
  for (const part of condition.parts) parts.push(yield* evaluate(table, part, above, cache));
  if (condition.kind === 'none') {
    const some = parts.map(({ yes }) => yes).reduce(or);
    return decided(some, table.length, !condition.not);
  }
  const yes = parts[0].yes.slice();
  const no = parts[0].no.slice();
  const all = condition.kind === 'all';
  for (const part of parts.slice(1))
    for (let w = 0; w < yes.length; w++) {
      yes[w] = all ? yes[w] & part.yes[w] : yes[w] | part.yes[w];
      no[w] = all ? no[w] | part.no[w] : no[w] & part.no[w];
    }
  return condition.not ? { yes: no, no: yes } : { yes, no };
}

/** What is known of every record: one that is not among these is known not to be. */
function decided(those: Bitset, length: number, not: boolean): Outcome {
  const rest = without(fullBitset(length), those);
  return not ? { yes: rest, no: those } : { yes: those, no: rest };
}

function* evaluateLeaf(
  table: Table,
  leaf: Leaf,
  above: Bitset,
  cache?: OutcomeCache,
): Task<Outcome> {
  const column = yield* columnInSteps(table, leaf.column);
  const key = isRelative(leaf.test) ? null : `${leaf.column}\n${JSON.stringify(leaf.test)}`;
  let outcome = key === null ? undefined : cache?.get(key);
  if (!outcome) {
    outcome = yield* testColumn(column, leaf.test, table.length, above);
    if (key !== null) cache?.set(key, outcome);
  }
  return leaf.not ? { yes: outcome.no, no: outcome.yes } : outcome;
}

function* evaluateExpression(
  table: Table,
  { expression, not }: ByExpression,
  cache?: OutcomeCache,
): Task<Outcome> {
  const key = `\n${expression}`;
  const outcome = cache?.get(key) ?? (yield* conditionOutcome(table, expression));
  cache?.set(key, outcome);
  return not ? { yes: outcome.no, no: outcome.yes } : outcome;
}

/** What a test says of a column's records. @throws BadCondition where it does not suit the column */
export function* testColumn(
  column: Column,
  test: Test,
  length: number,
  above: Bitset,
): Task<Outcome> {
  if (test.test === 'blank' || test.test === 'unread')
    return yield* missingOutcome(column, test.test, length);
  if (test.test === 'listed')
    throw new BadCondition(`The list “${test.list}” is not at hand, so its values are not known.`);
  if (isText(column)) return yield* textOutcome(column, test);
  if (test.test === 'is') return yield* wordOutcome(column, test);
  if (test.test === 'period' || test.test === 'season') {
    if (column.type !== 'date' && column.type !== 'datetime')
      throw new BadCondition(
        `${column.name} is not a date: it has no ${test.test === 'period' ? test.period : test.of}.`,
      );
    return yield* dayOutcome(column, dayTest(test));
  }
  const interval = isRelative(test)
    ? yield* relativeInterval(column, test, above)
    : fixedInterval(column, test);
  if (!interval)
    throw new BadCondition(`${column.name} is not text: “${test.test}” cannot be asked of it.`);
  return yield* intervalOutcome(column.values, interval);
}

/** Yes/no columns, and others asked for listed values as shown in full. */
function* wordOutcome(column: ScalarColumn, test: Extract<Test, { test: 'is' }>): Task<Outcome> {
  const wanted = new Set(
    test.values.map((text) => {
      if (column.type === 'yesno') return /^(yes|true|y|1)$/i.test(text) ? 1 : 0;
      const interval = fixedInterval(column, {
        test: 'compare',
        op: 'eq',
        value: column.type === 'number' ? Number(text) : text,
      });
      return interval ? interval.lo : NaN;
    }),
  );
  const { values } = column;
  const yes = emptyBitset(values.length);
  const no = emptyBitset(values.length);
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const v = values[i];
      if (v === v) add(wanted.has(v) ? yes : no, i);
    }
  });
  return { yes, no };
}

export function* intervalOutcome(
  values: Float64Array,
  { lo, hi, outside }: Interval,
): Task<Outcome> {
  const words = wordsFor(values.length);
  const within = new Uint32Array(words);
  const whole = values.length >>> 5;
  yield* inStretches(whole, (from, to) => wordsWithin(values, lo, hi, within, from, to), WORDS);
  for (let i = whole << 5; i < values.length; i++)
    if (values[i] >= lo && values[i] <= hi) add(within, i);
  const beyond = without(yield* knownIn(values), within);
  return outside ? { yes: beyond, no: within } : { yes: within, no: beyond };
}

/** One pass: 32 values make a word, four at a time and without a branch on the data. */
function wordsWithin(
  values: Float64Array,
  lo: number,
  hi: number,
  within: Uint32Array,
  from: number,
  to: number,
): void {
  for (let w = from; w < to; w++) {
    let word = 0;
    // From the last value down, so that every step is a shift by constants.
    for (let i = (w << 5) + 28; i >= w << 5; i -= 4) {
      const a = values[i];
      const b = values[i + 1];
      const c = values[i + 2];
      const d = values[i + 3];
      word =
        (word << 4) |
        (+(a >= lo) & +(a <= hi)) |
        ((+(b >= lo) & +(b <= hi)) << 1) |
        ((+(c >= lo) & +(c <= hi)) << 2) |
        ((+(d >= lo) & +(d <= hi)) << 3);
    }
    within[w] = word;
  }
}

/** Tests each text of the dictionary once, then only looks codes up. */
function* textOutcome(column: TextColumn, test: Test): Task<Outcome> {
  if (!('text' in test) && test.test !== 'is')
    throw new BadCondition(`${column.name} is text: “${test.test}” cannot be asked of it.`);
  const passes = textTest(test);
  // Position 0 stands for the code -1: a blank is unknown.
  const byCode = new Uint8Array(column.dictionary.length + 1);
  column.dictionary.forEach((text, code) => (byCode[code + 1] = passes(text) ? 1 : 2));
  const words = wordsFor(column.codes.length);
  const outcome = { yes: new Uint32Array(words), no: new Uint32Array(words) };
  yield* inStretches(words, (from, to) => lookUp(column.codes, byCode, outcome, from, to), WORDS);
  return outcome;
}

function lookUp(
  codes: Int32Array,
  byCode: Uint8Array,
  { yes, no }: Outcome,
  from: number,
  to: number,
): void {
  for (let w = from; w < to; w++) {
    const base = w << 5;
    const size = Math.min(32, codes.length - base);
    let y = 0;
    let n = 0;
    for (let b = 0; b < size; b++) {
      const state = byCode[codes[base + b] + 1];
      y |= (state & 1) << b;
      n |= (state >>> 1) << b;
    }
    yes[w] = y;
    no[w] = n;
  }
}

/** Asks the calendar once for each day that occurs. */
function* dayOutcome(column: ScalarColumn, passes: (day: number) => boolean): Task<Outcome> {
  const { values } = column;
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const known = new Map<number, boolean>();
  const yes = emptyBitset(values.length);
  const no = emptyBitset(values.length);
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const v = values[i];
      if (v !== v) continue;
      const day = perDay === 1 ? v : Math.floor(v / perDay);
      let pass = known.get(day);
      if (pass === undefined) known.set(day, (pass = passes(day)));
      add(pass ? yes : no, i);
    }
  });
  return { yes, no };
}

/** Blank and unread are always known. */
function* missingOutcome(column: Column, which: 'blank' | 'unread', length: number): Task<Outcome> {
  const yes = emptyBitset(length);
  const isBlank = isText(column)
    ? (i: number): boolean => column.codes[i] < 0
    : (i: number): boolean => column.values[i] !== column.values[i] && !column.unread.has(i);
  if (which === 'blank')
    yield* inStretches(length, (from, to) => {
      for (let i = from; i < to; i++) if (isBlank(i)) add(yes, i);
    });
  else if (!isText(column)) for (const i of column.unread.keys()) add(yes, i);
  const no = fullBitset(length);
  for (let w = 0; w < no.length; w++) no[w] &= ~yes[w];
  return { yes, no };
}
