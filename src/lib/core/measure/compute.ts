import { TallyRefused } from '../errors';
import { columnFor } from '../expression/columnFor';
import { numbersOf } from '../task/arrays';
import { inStretches, type Task } from '../task/task';
import { isNumeric, isText, type Column } from '../table/column';
import { distinctCounts, fitsMarks, markDistinct } from './distinct';
import { extremesAt } from './extremes';
import { firstOrLast } from './firstLast';
import { fromMoments, isFromMoments, momentsNeeded, type MomentsNeeded } from './fromMoments';
import { fromSlices } from './fromSlices';
import { addUp, totalGrouping, type Grouping } from './grouping';
import type { Measure, MeasureKind } from './measure';
import { momentsOfGroups, sumsOfGroups, type Moments } from './moments';
import type { FiguresOf, Leafed } from './leafed';
import { gather, regroup, type Slices } from './slices';
import { isPartial, mergedMoments, momentsByRow } from './partialColumn';
import { valuesOf } from './valuesOf';
import { weightedMeans } from './weighted';

/**
 * Every measure for every grouping, always from the records: `out[grouping][measure][group]`.
 * @throws UnknownColumn, ExpressionError
 */
export function* computeMeasures(
  input: Leafed,
  groupings: readonly Grouping[],
  measures: readonly Measure[],
): Task<Float64Array[][]> {
  return yield* figuresOf(new Computation(input, groupings, measures), groupings, measures);
}

/**
 * The same, and beside sums and means of numbers the moments that say which records they rest on:
 * `moments[grouping][measure]`, null for other measures. The same pass over the records finds both.
 */
export function* computeWithMoments(
  input: Leafed,
  groupings: readonly Grouping[],
  measures: readonly Measure[],
): Task<{ figures: Float64Array[][]; moments: (Moments | null)[][] }> {
  const work = new Computation(input, groupings, measures, true);
  const figures = yield* figuresOf(work, groupings, measures);
  const moments: (Moments | null)[][] = [];
  for (const grouping of groupings) {
    const found: (Moments | null)[] = [];
    for (const measure of measures) found.push(yield* work.restingOf(measure, grouping));
    moments.push(found);
    yield undefined;
  }
  return { figures, moments };
}

function* figuresOf(
  work: Computation,
  groupings: readonly Grouping[],
  measures: readonly Measure[],
): Task<Float64Array[][]> {
  const out: Float64Array[][] = groupings.map(() => []);
  for (let k = 0; k < measures.length; k++) {
    const figures = yield* work.figuresOf(measures[k]);
    yield (k + 0.5) / measures.length;
    for (let g = 0; g < groupings.length; g++) {
      out[g].push(yield* settled(figures(groupings[g])));
      yield (k + 0.5 + (0.5 * (g + 1)) / groupings.length) / measures.length;
    }
  }
  return out;
}

function* settled(figures: ReturnType<FiguresOf>): Task<Float64Array> {
  return figures instanceof Float64Array ? figures : yield* figures;
}

/** Counts of the selection's records in each leaf. */
export function* countLeaves({ table, records, leafOf, leaves }: Leafed): Task<Float64Array> {
  const { weights } = table;
  if (weights) {
    const sums = new Float64Array(leaves);
    yield* inStretches(records.length, (from, to) => {
      for (let k = from; k < to; k++) sums[leafOf[records[k]]] += weights[records[k]];
    });
    return sums;
  }
  const counts = new Int32Array(leaves);
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) counts[leafOf[records[k]]]++;
  });
  return new Float64Array(counts);
}

const NEEDED: readonly MomentsNeeded[] = ['sums', 'extremes', 'squares'];

/** Measures that look at single records. */
export const SINGLE: readonly MeasureKind[] = [
  'first',
  'last',
  'weightedMean',
  'atMin',
  'atMax',
  'minTies',
  'maxTies',
];

const ratio = (a: number, b: number): number => (b === 0 ? NaN : a / b);

/** What the measures of one computation share: counts, and moments by column. */
class Computation {
  readonly #total: Grouping;
  readonly #moments = new Map<string, Moments>();
  readonly #merged = new Map<Moments, Map<Grouping, Moments>>();
  #counts: Float64Array | null = null;
  /** The values of the column met last, by leaf, and by grouping as far as any was asked for. */
  #values: { column: Column; byLeaf: Slices; byGroup: Map<Grouping, Slices> } | null = null;

  constructor(
    readonly input: Leafed,
    readonly groupings: readonly Grouping[],
    readonly measures: readonly Measure[],
    /** Whether it must be known which records sums and means rest on. */
    readonly resting = false,
  ) {
    this.#total = totalGrouping(input.leaves);
  }

  *figuresOf(measure: Measure): Task<FiguresOf> {
    const { kind } = measure;
    if (kind.startsWith('records') || measure.column === undefined) {
      const counts = yield* this.#leafCounts();
      return kind === 'recordsOfTotal' || kind === 'recordsOfParent'
        ? this.#share((grouping) => addUp(counts, grouping), kind === 'recordsOfParent')
        : (grouping) => addUp(counts, grouping);
    }
    const column = columnFor(this.input.table, measure.column);
    if (SINGLE.includes(kind)) this.#refuseWeights(column);
    switch (kind) {
      case 'first':
      case 'last':
        return yield* firstOrLast(this.input, column, kind);
      case 'weightedMean':
        return yield* weightedMeans(
          this.input,
          column,
          columnFor(this.input.table, measure.other ?? measure.column),
        );
      case 'atMin':
      case 'atMax':
      case 'minTies':
      case 'maxTies':
        return yield* extremesAt(
          this.input,
          column,
          measure.other === undefined ? column : columnFor(this.input.table, measure.other),
          kind,
        );
      case 'ratio':
      case 'difference':
        return yield* this.#ofTwoSums(
          column,
          columnFor(this.input.table, measure.other ?? ''),
          kind,
        );
      case 'blanks':
      case 'unread':
        return yield* this.#missing(column, kind);
      case 'shareOfTotal':
      case 'shareOfParent': {
        const moments = yield* this.#momentsOf(column, 'sums');
        return this.#share((grouping) => this.#sumsOf(moments, grouping), kind === 'shareOfParent');
      }
      case 'distinct':
        if (isText(column) && fitsMarks(this.input.leaves, column)) {
          const marks = yield* markDistinct(this.input, column);
          return (grouping) => distinctCounts(marks, column.dictionary.length, grouping);
        }
    }
    if (isFromMoments(kind)) {
      const moments = yield* this.#momentsOf(column, this.#neededOf(column, kind));
      if (kind === 'sum') return (grouping) => this.#sumsOf(moments, grouping);
      const merged = (grouping: Grouping): Task<Moments> => this.#mergedInto(moments, grouping);
      return function* (grouping) {
        const groups = yield* merged(grouping);
        return yield* numbersOf(grouping.size, (g) => fromMoments(kind, groups, g) ?? NaN);
      };
    }
    return yield* this.#bySlices(measure, column);
  }

  /** The moments behind a sum or a mean of numbers, by group; null for what no single record carries. */
  *restingOf({ kind, column: ref }: Measure, grouping: Grouping): Task<Moments | null> {
    if (ref === undefined || (kind !== 'sum' && kind !== 'mean')) return null;
    const column = columnFor(this.input.table, ref);
    // A record that carries a figure is named by its place, which a condensed table has not.
    if (!isNumeric(column) || this.input.table.weights) return null;
    const moments = yield* this.#momentsOf(column, this.#neededOf(column, kind));
    return yield* this.#mergedInto(moments, grouping);
  }

  /** The moments of leaves put together by group; once for all measures that ask for them. */
  *#mergedInto(moments: Moments, grouping: Grouping): Task<Moments> {
    let byGrouping = this.#merged.get(moments);
    if (!byGrouping) this.#merged.set(moments, (byGrouping = new Map()));
    let merged = byGrouping.get(grouping);
    if (!merged)
      byGrouping.set(grouping, (merged = yield* moments.merged(grouping.size, grouping.of)));
    return merged;
  }

  /** The most that any of the measures asks of a column, so that one pass serves them all. */
  #neededOf(column: Column, kind: MeasureKind): MomentsNeeded {
    const kinds = this.measures.filter((m) => m.column === column.id).map((m) => m.kind);
    // A mean rests on the record farthest from it, measured by the deviation.
    const needed = (k: MeasureKind): MomentsNeeded =>
      this.resting && k === 'mean' ? 'squares' : momentsNeeded(k);
    const most = Math.max(...[kind, ...kinds].map((k) => NEEDED.indexOf(needed(k))));
    return NEEDED[most];
  }

  *#leafCounts(): Task<Float64Array> {
    return (this.#counts ??= this.input.counts ?? (yield* countLeaves(this.input)));
  }

  *#momentsOf(column: Column, needed: MomentsNeeded): Task<Moments> {
    const enough = NEEDED.slice(NEEDED.indexOf(needed));
    for (const more of enough) {
      const known = this.#moments.get(`${column.id}\n${more}`);
      if (known) return known;
    }
    const { leafOf, leaves, records } = this.input;
    const byRow = yield* momentsByRow(this.input.table, column);
    if (byRow) {
      const merged = yield* mergedMoments(byRow, leafOf, leaves, records);
      this.#moments.set(`${column.id}\n${needed}`, merged);
      return merged;
    }
    const { values } = yield* valuesOf(column);
    const moments =
      needed === 'sums'
        ? yield* sumsOfGroups(values, leafOf, leaves, records)
        : yield* momentsOfGroups(values, leafOf, leaves, records, needed === 'squares');
    this.#moments.set(`${column.id}\n${needed}`, moments);
    return moments;
  }

  /** A row of a condensed table stands for several records, which have no order and no places. */
  #refuseWeights({ name }: Column): void {
    if (this.input.table.weights)
      throw new TallyRefused(
        `This needs every single record of “${name}”, and the list was read in stretches.`,
      );
  }

  /** A group's part of the whole, or of the group above it; of itself where there is none above. */
  #share(of: (grouping: Grouping) => Task<Float64Array>, parent: boolean): FiguresOf {
    const { groupings } = this;
    const total = this.#total;
    return function* (grouping) {
      const parts = yield* of(grouping);
      if (!parent || !grouping.parent) {
        const [whole] = yield* of(total);
        return yield* numbersOf(grouping.size, (g) => ratio(parts[g], whole));
      }
      const wholes = yield* of(groupings[grouping.parent.place]);
      const above = grouping.parent.of;
      return yield* numbersOf(grouping.size, (g) => ratio(parts[g], wholes[above[g]]));
    };
  }

  /** Sums by group: 0 where there is no record, none where records are there and no value (calculations, section 3). */
  *#sumsOf(moments: Moments, grouping: Grouping): Task<Float64Array> {
    const merged = yield* this.#mergedInto(moments, grouping);
    const sums = yield* numbersOf(grouping.size, (g) => merged.sum(g));
    let records: Float64Array | null = null;
    for (let g = 0; g < sums.length; g++) {
      if (merged.count(g) > 0) continue;
      records ??= yield* addUp(yield* this.#leafCounts(), grouping);
      if (records[g] > 0) sums[g] = NaN;
    }
    return sums;
  }

  /**
   * The sum of one column divided by that of another, or less by it, each over its own values. None where one of them is
   * none, and where the divisor is 0.
   */
  *#ofTwoSums(column: Column, other: Column, kind: 'ratio' | 'difference'): Task<FiguresOf> {
    const [tops, bottoms] = [
      yield* this.#momentsOf(column, this.#neededOf(column, 'sum')),
      yield* this.#momentsOf(other, this.#neededOf(other, 'sum')),
    ];
    const sums = (moments: Moments, grouping: Grouping): Task<Float64Array> =>
      this.#sumsOf(moments, grouping);
    return function* (grouping) {
      const top = yield* sums(tops, grouping);
      const bottom = yield* sums(bottoms, grouping);
      return yield* numbersOf(grouping.size, (g) =>
        kind === 'ratio' ? ratio(top[g], bottom[g]) : top[g] - bottom[g],
      );
    };
  }

  *#missing(column: Column, kind: 'blanks' | 'unread'): Task<FiguresOf> {
    const unread = new Float64Array(this.input.leaves);
    const { records, leafOf } = this.input;
    if (isPartial(column))
      yield* inStretches(records.length, (from, to) => {
        for (let k = from; k < to; k++)
          unread[leafOf[records[k]]] += column.partial.unread[records[k]];
      });
    else if (!isText(column) && column.unread.size > 0) {
      const { weights } = this.input.table;
      yield* inStretches(records.length, (from, to) => {
        for (let k = from; k < to; k++)
          if (column.unread.has(records[k]))
            unread[leafOf[records[k]]] += weights ? weights[records[k]] : 1;
      });
    }
    if (kind === 'unread') return (grouping) => addUp(unread, grouping);
    const moments = yield* this.#momentsOf(column, 'sums');
    const counts = yield* this.#leafCounts();
    const blank = yield* numbersOf(
      counts.length,
      (leaf) => counts[leaf] - moments.count(leaf) - unread[leaf],
    );
    return (grouping) => addUp(blank, grouping);
  }

  /** Measures that need the values themselves: gathered once for those of one column in a row. */
  *#bySlices(measure: Measure, column: Column): Task<FiguresOf> {
    const { leafOf, leaves, records } = this.input;
    const view = yield* valuesOf(column);
    if (this.#values?.column !== column) {
      const byLeaf = yield* gather(view.values, leafOf, leaves, records, this.input.table.weights);
      this.#values = { column, byLeaf, byGroup: new Map() };
    }
    const { byLeaf, byGroup } = this.#values;
    const counts = measure.kind === 'distinct' || measure.kind === 'modeTies';
    const { codeOf } = view;
    return function* (grouping) {
      let slices = byGroup.get(grouping);
      if (!slices) byGroup.set(grouping, (slices = yield* regroup(byLeaf, grouping)));
      yield undefined;
      const figures = yield* fromSlices(measure, slices);
      if (!codeOf || counts) return figures;
      return yield* numbersOf(figures.length, (g) =>
        figures[g] === figures[g] ? codeOf(figures[g]) : NaN,
      );
    };
  }
}
