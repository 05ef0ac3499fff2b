import { z } from 'zod';
import { sortedInParts } from '../sorting/sorted';
import { inStretches, STRIDE, type Task } from '../task/task';
import type { Condition, Test } from '../selection/condition';
import { DAY_MS, isoDate } from '../table/calendar';
import { fullScalar, showScalar } from '../table/cell';
import { DistinctNumbers } from '../table/distinctNumbers';
import { textRanks } from '../table/textRanks';
import {
  COLUMN_TYPES,
  isText,
  type Column,
  type ScalarColumn,
  type TextColumn,
} from '../table/column';
import {
  Calendar,
  CALENDAR_PERIODS,
  periodEnd,
  periodLabel,
  noFinerThan,
  periodOf,
  periodStart,
} from '../table/period';
import { bandCodes, bandTest, type SettledBand } from './bands';
import type { GroupKey } from './groupKey';
import { wholeRange } from './wholeRange';

/** Each record's group at one level, as an integer. */
export interface GroupCodes {
  /** 0..size-1 for each record; -1 where the key is blank or unread. */
  readonly codes: Int32Array;
  readonly size: number;
  /** The group's name; the code -1 has one too. */
  label(code: number): string;
  /** The place of each code in label order; the blank group comes last. */
  rank(code: number): number;
  /** What a record must meet to be in the group. */
  where(code: number): Condition;
  /** The group's value behind its label, in full (dates in ISO 8601); null for blank. */
  key(code: number): string | number | null;
  /** What kind of values `key` gives. */
  readonly keyType: KeyType;
}

/** The type of the values that groups stand for, as a column of their own would have it. */
export const KeyType = z.object({
  type: z.enum(COLUMN_TYPES),
  unit: z.string().default(''),
  decimals: z.int().default(0),
  percent: z.boolean().default(false),
  /** Dates: the span that each stands for; the key is its first day. */
  grain: z.enum(CALENDAR_PERIODS).default('day'),
  calendar: Calendar.optional(),
});
export type KeyType = z.infer<typeof KeyType>;

/** Keys that are texts: of text columns, bands, weekdays. */
const TEXT_KEYS: KeyType = { type: 'text', unit: '', decimals: 0, percent: false, grain: 'day' };

/** Keys that are values of a column. */
const keysOf = (column: ScalarColumn): KeyType => ({
  type: column.type,
  unit: column.unit,
  decimals: column.decimals,
  percent: column.percent,
  grain: column.grain,
  ...(column.calendar && { calendar: column.calendar }),
});

export const BLANK_LABEL = 'blank';

/** What records without a value are called: those of a column with cells that cannot be read may be these. */
const missingLabel = (column: Column): string =>
  !isText(column) && column.unread.size > 0 ? 'blank or unread' : BLANK_LABEL;

export const NO_BAND_LABEL = 'in no band';

/**
 * Group codes of a key. Equal keys make one group, wherever their records stand.
 * @param bands the settled bands of a key that has them
 * @param weights how many records each row stands for, where not one
 */
export function* groupCodes(
  column: Column,
  key: GroupKey,
  bands: readonly SettledBand[] | null = null,
  weights?: Float64Array,
): Task<GroupCodes> {
  if (isText(column)) return yield* textCodes(column, key, weights);
  if (bands) return yield* bandedCodes(column, key, bands);
  const dated = column.type === 'date' || column.type === 'datetime';
  if (dated && key.period) return yield* periodCodes(column, key);
  return yield* scalarCodes(
    column,
    key.column,
    null,
    (v) => showScalar(column, v),
    (v) => leaf(key.column, valueTest(column, v)),
    keysOf(column),
    (v) => (column.type === 'number' ? v : fullScalar(column, v)),
  );
}

const leaf = (column: string, test: Test): Condition => ({
  kind: 'leaf',
  column,
  not: false,
  test,
});

/** Blank or unread: neither has a value to group by. */
const missing = (column: string): Condition => ({
  kind: 'any',
  not: false,
  parts: [leaf(column, { test: 'blank' }), leaf(column, { test: 'unread' })],
});

function valueTest(column: ScalarColumn, v: number): Test {
  if (column.type === 'yesno') return { test: 'is', values: [v ? 'yes' : 'no'], exact: true };
  return { test: 'compare', op: 'eq', value: column.type === 'number' ? v : fullScalar(column, v) };
}

/** Dates by period; a group is the days from the first to the last of its period. */
function* periodCodes(column: ScalarColumn, key: GroupKey): Task<GroupCodes> {
  const { calendar } = key;
  const period = noFinerThan(key.period ?? 'day', column.grain);
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  return yield* scalarCodes(
    column,
    key.column,
    (v) => periodOf(perDay === 1 ? v : Math.floor(v / perDay), period, calendar),
    (index) => periodLabel(index, period, calendar),
    (index) =>
      leaf(
        key.column,
        period === 'weekday'
          ? { test: 'season', of: 'weekday', values: [index + 1] }
          : {
              test: 'between',
              from: isoDate(periodStart(index, period, calendar)),
              to: isoDate(periodEnd(index, period, calendar)),
              fromIn: true,
              toIn: true,
            },
      ),
    period === 'weekday'
      ? TEXT_KEYS
      : { ...TEXT_KEYS, type: 'date', grain: period, ...(calendar && { calendar }) },
    (index) =>
      period === 'weekday'
        ? periodLabel(index, period)
        : isoDate(periodStart(index, period, calendar)),
  );
}

function* bandedCodes(
  column: ScalarColumn,
  key: GroupKey,
  bands: readonly SettledBand[],
): Task<GroupCodes> {
  const size = bands.length + 1;
  const bandLabel = (code: number): string =>
    code < bands.length ? bands[code].label : NO_BAND_LABEL;
  return {
    codes: yield* bandCodes(column.values, bands),
    size,
    keyType: TEXT_KEYS,
    key: (code) => (code < 0 ? null : bandLabel(code)),
    label: (code) => (code < 0 ? missingLabel(column) : bandLabel(code)),
    rank: (code) => (code < 0 ? size : code),
    where: (code) => {
      if (code < 0) return missing(key.column);
      if (code < bands.length) return bandCondition(key.column, bands, code);
      const inAny: Condition = {
        kind: 'any',
        not: true,
        parts: bands.map((band) => leaf(key.column, bandTest(band))),
      };
      return bands.length
        ? inAny
        : leaf(key.column, { test: 'compare', op: 'ge', value: -Number.MAX_VALUE });
    },
  };
}

/** In the band, and in none before it that it overlaps: each value counts once. */
export function bandCondition(
  column: string,
  bands: readonly SettledBand[],
  at: number,
): Condition {
  const own = leaf(column, bandTest(bands[at]));
  const before = bands
    .slice(0, at)
    .filter((b) => b.to >= bands[at].from && b.from <= bands[at].to && b.to !== bands[at].from);
  if (before.length === 0) return own;
  return {
    kind: 'all',
    not: false,
    parts: [own, ...before.map((b): Condition => ({ ...leaf(column, bandTest(b)), not: true }))],
  };
}

/** The form under which loosely equal texts are one. */
export const looseForm = (text: string): string => text.trim().replace(/\s+/g, ' ').toLowerCase();

function* textCodes(column: TextColumn, key: GroupKey, weights?: Float64Array): Task<GroupCodes> {
  const { codes: raw, dictionary } = column;
  const is = (values: readonly string[]): Condition =>
    leaf(key.column, { test: 'is', values: [...values], exact: true });
  if (!key.loose)
    // A column with nothing to merge is its own grouping.
    return named(
      raw,
      dictionary.length,
      (code) => dictionary[code],
      yield* textRanks(dictionary),
      (code) => (code < 0 ? missing(key.column) : is([dictionary[code]])),
    );
  const known = new Map<string, number>();
  /** The places in the dictionary of what each group is written as. */
  const spellings: number[][] = [];
  /** How many records are written so. */
  const counts = new Float64Array(dictionary.length);
  const merged = new Int32Array(dictionary.length);
  const merge = (from: number, to: number): void => {
    for (let k = from; k < to; k++) {
      const form = looseForm(dictionary[k]);
      let code = known.get(form);
      if (code === undefined) known.set(form, (code = spellings.push([]) - 1));
      spellings[code].push(k);
      merged[k] = code;
    }
  };
  yield* inStretches(merged.length, merge, STRIDE >> 4);
  const codes = new Int32Array(raw.length);
  yield* inStretches(raw.length, (from, to) => {
    for (let i = from; i < to; i++) {
      if (raw[i] < 0) {
        codes[i] = -1;
        continue;
      }
      codes[i] = merged[raw[i]];
      counts[raw[i]] += weights ? weights[i] : 1;
    }
  });
  const labels = spellings.map((places) => commonestLabel(places, dictionary, counts));
  return named(
    codes,
    labels.length,
    (code) => labels[code],
    yield* textRanks(labels),
    (code) => (code < 0 ? missing(key.column) : is(spellings[code].map((k) => dictionary[k]))),
  );
}

/** The commonest way that merged texts are written, without outer spaces; of equally common ones the first met. */
function commonestLabel(
  places: readonly number[],
  dictionary: readonly string[],
  counts: Float64Array,
): string {
  const [first] = places;
  if (places.length === 1) return dictionary[first].trim();
  const byLabel = new Map<string, number>();
  for (const k of places) {
    const label = dictionary[k].trim();
    byLabel.set(label, (byLabel.get(label) ?? 0) + counts[k]);
  }
  const most = Math.max(...byLabel.values());
  return [...byLabel].find(([, count]) => count === most)?.[0] ?? dictionary[first].trim();
}

const named = (
  codes: Int32Array,
  size: number,
  label: (code: number) => string,
  ranks: Int32Array,
  where: (code: number) => Condition,
  keyType: KeyType = TEXT_KEYS,
  key: (code: number) => string | number = label,
  none = BLANK_LABEL,
): GroupCodes => ({
  codes,
  size,
  keyType,
  key: (code) => (code < 0 ? null : key(code)),
  label: (code) => (code < 0 ? none : label(code)),
  rank: (code) => (code < 0 ? size : ranks[code]),
  where,
});

/** How many neighbouring whole values are looked up in a table instead of a map. */
const DIRECT = 1 << 20;

function* scalarCodes(
  column: ScalarColumn,
  ref: string,
  indexOf: ((value: number) => number) | null,
  label: (index: number) => string,
  where: (index: number) => Condition,
  keyType: KeyType,
  key: (index: number) => string | number,
): Task<GroupCodes> {
  const { values } = column;
  const codes = new Int32Array(values.length);
  const met = new DistinctNumbers(values.length);
  const codeOf = codeTable(yield* wholeRange(values), indexOf, met);
  // Of many values the codes stand in a large table.
  yield* inStretches(
    values.length,
    (from, to) => {
      for (let i = from; i < to; i++) {
        const v = values[i];
        codes[i] = v === v ? codeOf(v) : -1;
      }
    },
    STRIDE,
  );
  // What the codes mean is all that is kept.
  const indexes = met.values();
  const inOrder = yield* sortedInParts(met.values());
  const ranks = new Int32Array(indexes.length);
  yield* inStretches(indexes.length, (from, to) => {
    for (let rank = from; rank < to; rank++) ranks[met.find(inOrder[rank])] = rank;
  });
  return named(
    codes,
    indexes.length,
    (code) => label(indexes[code]),
    ranks,
    (code) => (code < 0 ? missing(ref) : where(indexes[code])),
    keyType,
    (code) => key(indexes[code]),
    missingLabel(column),
  );
}

/** Value → code, new codes in the order met. Whole values of a small range go through an array. */
function codeTable(
  range: { min: number; max: number } | null,
  indexOf: ((value: number) => number) | null,
  met: DistinctNumbers,
): (value: number) => number {
  const codeOfIndex = (v: number): number => met.placeOf(indexOf ? indexOf(v) : v);
  if (!range || !(range.max - range.min < DIRECT)) return codeOfIndex;
  const { min, max } = range;
  const direct = new Int32Array(max - min + 1).fill(-1);
  return (v) => {
    const at = v - min;
    const code = direct[at];
    return code >= 0 ? code : (direct[at] = codeOfIndex(v));
  };
}
