import { counted, showCount } from '../table/format';
import { bitsetOf, has, type Bitset } from '../table/bitset';
import { DistinctNumbers } from '../table/distinctNumbers';
import { selectedInSteps } from '../table/recordOrder';
import type { ScalarColumn } from '../table/column';
import { showScalar } from '../table/cell';
import type { LadderResult } from '../selection/ladder';
import { directTotal } from '../measure/compensated';
import { inStretches, type Task } from '../task/task';

/** One thing that would explain a difference, with the records concerned. */
export interface Explanation {
  readonly words: string;
  readonly records: readonly number[];
  /** What would make the totals agree, where one act does. */
  readonly remedy?: Remedy;
}

/** Sets the records aside, puts them back, or switches off a step of What counts, by its place. */
export type Remedy =
  | { readonly do: 'setAside' }
  | { readonly do: 'putBack' }
  | { readonly do: 'switchOff'; readonly rung: number };

export interface KnownTotalCheck {
  /** Known total less the figure. */
  readonly difference: number;
  readonly explanations: readonly Explanation[];
}

/** What a figure rests on, for checking it against a total from elsewhere. */
export interface CheckedFigure {
  readonly column: ScalarColumn;
  readonly figure: number;
  /** The records of the figure. */
  readonly records: Int32Array;
  /** All records of the figure's group, whatever the ladder took out. */
  readonly group: Bitset;
  readonly ladder: LadderResult;
  readonly rungNames: readonly string[];
  /** Records that look like totals of others. */
  readonly totals: readonly number[];
}

const NAMED = 5;

/**
 * The difference from a known total and what would explain it (calculations, section 14).
 * Amounts are compared in the smallest unit the column shows.
 */
export function* checkKnownTotal(known: number, checked: CheckedFigure): Task<KnownTotalCheck> {
  const { column, figure, records } = checked;
  const unit = 10 ** -column.decimals;
  const difference = known - figure;
  const same = (a: number, b: number): boolean => Math.abs(a - b) < unit / 2 + 1e-9 * Math.abs(b);
  if (same(difference, 0))
    return {
      difference,
      explanations: [
        { words: difference === 0 ? 'It agrees.' : 'It agrees within rounding.', records: [] },
      ],
    };
  const out: Explanation[] = [];
  const found = (words: string, which: readonly number[], remedy?: Remedy): void =>
    void out.push({ words, records: which, ...(remedy && { remedy }) });
  const show = (v: number): string => showScalar(column, v);

  for (const { words, total, records: which, remedy } of yield* removedSums(checked))
    if (same(total, difference))
      found(`${words} add up to exactly this difference.`, which, remedy);
  const { values } = column;
  function* holding(wanted: number, among: Int32Array): Task<number[]> {
    const hits: number[] = [];
    yield* inStretches(among.length, (from, to) => {
      for (let k = from; k < to; k++) if (same(values[among[k]], wanted)) hits.push(among[k]);
    });
    return hits;
  }
  const one = yield* holding(-difference, records);
  if (one.length)
    found(
      `${nameRecords(one)} holds ${show(-difference)}: without ${one.length === 1 ? 'it' : 'one of them'} the totals agree.`,
      one,
      one.length === 1 ? { do: 'setAside' } : undefined,
    );
  const missingOne = yield* holding(difference, yield* leftOut(checked));
  if (missingOne.length)
    found(
      `${nameRecords(missingOne)} holds ${show(difference)} and is not counted here: with it the totals agree.`,
      missingOne,
    );
  const turned = yield* holding(-difference / 2, records);
  if (turned.length)
    found(
      `A sign may be turned: the difference is twice ${show(Math.abs(difference) / 2)}, which ${nameRecords(turned)} holds.`,
      turned,
    );
  for (const times of [9, 99]) {
    const bigger = yield* holding(difference / times, records);
    if (bigger.length)
      found(
        `A decimal point may be moved: the difference is ${times} times ${show(difference / times)}, which ${nameRecords(bigger)} holds.`,
        bigger,
      );
    const smaller = yield* holding((-difference * (times + 1)) / times, records);
    if (smaller.length)
      found(
        `A decimal point may be moved: ${nameRecords(smaller)} holds ${show((-difference * (times + 1)) / times)}, ${times + 1} times what would agree.`,
        smaller,
      );
  }
  const pair = one.length ? null : yield* pairOf(values, records, -difference, unit);
  if (pair)
    found(
      `Records ${pair[0] + 1} and ${pair[1] + 1} hold ${show(values[pair[0]])} and ${show(values[pair[1]])}: without both the totals agree.`,
      pair,
      { do: 'setAside' },
    );
  const cents = Math.round(difference / unit);
  if (
    cents !== 0 &&
    cents % 9 === 0 &&
    Math.abs(cents * unit - difference) < 1e-6 * unit + 1e-9 * Math.abs(difference)
  )
    found('The difference divides by 9: look for swapped digits, such as 41 for 14.', []);
  let blanks = 0;
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) if (values[records[k]] !== values[records[k]]) blanks++;
  });
  if (blanks)
    found(
      `${counted(blanks, 'record')} here ${blanks === 1 ? 'has' : 'have'} no value in ${column.name}: the known total may hold ${blanks === 1 ? 'it' : 'them'}.`,
      [],
    );
  if (
    Math.abs(difference) <= (unit * Math.max(1, records.length)) / 2 &&
    Math.abs(difference) < Math.abs(figure) * 1e-4 + 1
  )
    found(
      `Rounding could explain it: ${showCount(records.length)} values rounded to ${unit} may differ by so much.`,
      [],
    );
  return { difference, explanations: out };
}

const nameRecords = (records: readonly number[]): string =>
  records.length === 1
    ? `Record ${showCount(records[0] + 1)}`
    : `Each of ${counted(records.length, 'record')} (${records
        .slice(0, NAMED)
        .map((i) => showCount(i + 1))
        .join(', ')}${records.length > NAMED ? ' …' : ''})`;

interface Removed {
  readonly words: string;
  readonly total: number;
  readonly records: number[];
  readonly remedy?: Remedy;
}

/** Sums of what the ladder took out of this group, and of records that look like totals. */
function* removedSums({
  column,
  group,
  ladder,
  rungNames,
  records,
  totals,
}: CheckedFigure): Task<Removed[]> {
  const out: Removed[] = [];
  function* sum(set: Bitset, words: (n: number) => string, remedy?: Remedy): Task<void> {
    const which = yield* selectedInSteps(set);
    if (which.length === 0) return;
    const { total } = yield* directTotal(column.values, which);
    out.push({
      words: words(which.length),
      total,
      records: [...which.subarray(0, 200)],
      ...(remedy && (remedy.do === 'switchOff' || which.length <= 200) && { remedy }),
    });
  }
  let before = ladder.all;
  for (const [k, rung] of ladder.rungs.entries()) {
    yield* sum(
      intersect(group, difference(before, rung.selection)),
      (n) => `The ${counted(n, 'record')} taken out by “${rungNames[k]}”`,
      { do: 'switchOff', rung: k },
    );
    before = rung.selection;
  }
  if (ladder.rungs.filter((r) => r.on).length > 1)
    yield* sum(
      intersect(group, difference(ladder.all, ladder.narrowed)),
      (n) => `All ${counted(n, 'record')} narrowed away`,
    );
  yield* sum(
    intersect(group, ladder.setAside),
    (n) => `The ${counted(n, 'record')} set aside by hand`,
    { do: 'putBack' },
  );
  const inFigure = bitsetOf(column.values.length, records);
  const embedded = totals.filter((i) => has(inFigure, i));
  if (embedded.length)
    out.push({
      words: `The ${counted(embedded.length, 'record')} that ${embedded.length === 1 ? 'looks like a total' : 'look like totals'} inside the list, counted with the rest,`,
      total: -(yield* directTotal(column.values, Int32Array.from(embedded))).total,
      records: embedded,
      remedy: { do: 'setAside' },
    });
  return out;
}

const intersect = (a: Bitset, b: Bitset): Bitset => a.map((word, w) => word & b[w]);
const difference = (a: Bitset, b: Bitset): Bitset => a.map((word, w) => word & ~b[w]);

/** Records of the group that the figure does not count. */
function* leftOut({ group, ladder }: CheckedFigure): Task<Int32Array> {
  return yield* selectedInSteps(difference(group, ladder.counted));
}

/** Two records whose values add up to a sum, by one pass over the amounts met before. */
function* pairOf(
  values: Float64Array,
  records: Int32Array,
  sum: number,
  unit: number,
): Task<[number, number] | null> {
  const met = new DistinctNumbers(records.length);
  /** By the place of its amount, the first record that holds it. */
  const first: number[] = [];
  const wanted = Math.round(sum / unit);
  let pair: [number, number] | null = null;
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to && !pair; k++) {
      const i = records[k];
      if (values[i] !== values[i] || values[i] === 0) continue;
      const amount = Math.round(values[i] / unit);
      const other = met.find(wanted - amount);
      if (other >= 0) pair = [first[other], i];
      else if (met.placeOf(amount) === first.length) first.push(i);
    }
  });
  return pair;
}
