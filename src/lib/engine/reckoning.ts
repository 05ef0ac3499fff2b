import { groupCodes, type GroupCodes } from '../core/arrange/groupCodes';
import { sortRecords } from '../core/arrange/sort';
import { buildTree, type GroupTree } from '../core/arrange/tree';
import { openTally, type BenchDocument } from '../core/bench/document';
import { layColumns, type LedgerColumns } from '../core/bench/slots';
import {
  directTotal,
  checkFooting,
  type DirectTotal,
  type FootingCheck,
} from '../core/check/footing';
import { looksAtOrder, type Measure } from '../core/measure/measure';
import { valuesOf } from '../core/measure/valuesOf';
import { correct } from '../core/read/correct';
import type { Recipe } from '../core/read/recipe';
import type { Outcome } from '../core/scope/evaluate';
import { climb, type LadderResult } from '../core/scope/ladder';
import type { Steps } from '../core/steps/steps';
import { members, type Bitset } from '../core/table/bitset';
import { isNumeric } from '../core/table/column';
import { columnOf, namesOf, type Table } from '../core/table/table';
import {
  layRows,
  orderGroups,
  type Rows,
  type ShownGroups,
} from '../core/tally/ledger/arrangement';
import { reckonGroups, type GroupFigures } from '../core/tally/groupFigures';
import { figureText } from '../core/tally/ledger/figureText';
import { LedgerLines } from '../core/tally/ledger/lines';
import type { LedgerSpec } from '../core/tally/ledger/spec';
import { StepCache } from './cache';
import { fitting, fittingLadder, withDeviations } from './fitting';

/** Figures of the three lines of the footing. */
export interface Foot {
  readonly records: number;
  readonly figures: Float64Array;
}

/** Everything one bench comes to: what the answers are read from. */
export interface Reckoned {
  readonly doc: BenchDocument;
  readonly spec: LedgerSpec;
  readonly table: Table;
  readonly names: ReadonlyMap<string, string>;
  readonly ladder: LadderResult;
  /** Sum of the lead column over all, each rung, narrowed, set aside, counted. */
  readonly lead: readonly (number | null)[];
  readonly tree: GroupTree;
  readonly order: Int32Array;
  readonly rows: Rows;
  readonly figures: GroupFigures;
  readonly shown: ShownGroups;
  readonly lines: LedgerLines;
  readonly columns: LedgerColumns;
  readonly foot: { readonly all: Foot; readonly narrowed: Foot; readonly counted: Foot };
  readonly footing: FootingCheck;
  /** For each measure, the place of the standard deviation shown behind it among the figures, or -1. */
  readonly deviations: readonly number[];
}

const NO_TREE = (length: number): GroupTree => buildTree(length, []);

/** Reckons benches of one list step by step, keeping each step until what it rests on changes. */
export class Reckoner {
  #corrected: { key: string; table: Table } | null = null;
  #outcomes = new StepCache<Outcome>(12);
  readonly #ladders = new StepCache<LadderResult>(4);
  readonly #members = new WeakMap<Bitset, Int32Array>();
  readonly #keyCodes = new StepCache<GroupCodes>(4);
  readonly #trees = new StepCache<GroupTree>(2);
  readonly #orders = new StepCache<Int32Array>(2);
  readonly #rows = new StepCache<Rows>(2);
  readonly #figures = new StepCache<GroupFigures>(3);
  readonly #feet = new StepCache<Foot>(12);
  readonly #sums = new StepCache<DirectTotal>(64);
  #epoch = 0;

  constructor(
    readonly list: Table,
    readonly recipe: Recipe,
  ) {}

  /** @throws BadCondition, UnknownColumn */
  *reckon(asked: BenchDocument): Steps<Reckoned> {
    const table = this.#correctedTable(asked);
    const given: BenchDocument = { ...asked, ladder: fittingLadder(table, asked.ladder) };
    const tally = openTally(given);
    const spec = fitting(table, tally.spec);
    const ladderKey = `${this.#epoch}|${JSON.stringify(given.ladder)}`;
    const ladder = this.#once(this.#ladders, ladderKey, () =>
      climb(table, given.ladder, this.#outcomes),
    );
    yield undefined;
    const treeKey = `${this.#epoch}|${JSON.stringify(spec.groups.map(({ column, period, loose }) => [column, period, loose]))}`;
    const tree = yield* this.#tree(table, spec, treeKey);
    const orderKey = `${this.#epoch}|${JSON.stringify(spec.sort)}`;
    let order = this.#orders.get(orderKey);
    if (!order) this.#orders.set(orderKey, (order = yield* sortRecords(table, spec.sort)));
    yield undefined;
    const rowsKey = `${ladderKey}|${treeKey}|${orderKey}`;
    const sorted = order;
    const rows = this.#once(this.#rows, rowsKey, () => layRows(tree, sorted, ladder.narrowed));
    yield undefined;
    const { measures, deviations } = withDeviations(spec.measures, given.formats);
    const measureKey = JSON.stringify(measures);
    const figuresKey = `${rowsKey}|${measureKey}`;
    let figures = this.#figures.get(figuresKey);
    if (!figures) {
      const records = this.membersOf(ladder.counted);
      figures = yield* reckonGroups(
        { table, tree, records, ordered: this.#inOrder(sorted, ladder.counted, measures) },
        measures,
      );
      this.#figures.set(figuresKey, figures);
    }
    yield undefined;
    const shown = orderGroups(
      tree,
      spec.groups.map((g) => g.order),
      rows,
      figures,
    );
    const lines = new LedgerLines(tree, rows, shown, {
      showDown: tally.view.showDown,
      turned: new Set(tally.view.turned),
      totals: spec.totals,
    });
    const foot = yield* this.#footing(
      table,
      measures,
      ladder,
      sorted,
      figures,
      `${measureKey}|${orderKey}`,
      ladderKey,
    );
    yield undefined;
    const lead = yield* this.#lead(table, given, ladder, ladderKey);
    const footing = checkFooting(
      tree,
      spec.measures,
      figures,
      this.#direct(table, spec.measures, ladder, ladderKey),
    );
    return {
      doc: given,
      spec,
      table,
      names: namesOf(table),
      ladder,
      lead,
      tree,
      order: sorted,
      rows,
      figures,
      shown,
      lines,
      columns: layColumns(table, spec, tally.view, this.#totalTexts(table, spec, given, foot)),
      foot,
      footing,
      deviations,
    };
  }

  #totalTexts(
    table: Table,
    spec: LedgerSpec,
    { formats }: BenchDocument,
    foot: Reckoned['foot'],
  ): string[] {
    return spec.measures.map((m, k) =>
      figureText(
        m,
        table.columns.find((c) => c.id === m.column) ?? null,
        foot.all.figures[k],
        formats,
      ),
    );
  }

  /** Record numbers of a selection, kept as long as the selection. */
  membersOf(selection: Bitset): Int32Array {
    let known = this.#members.get(selection);
    if (!known) this.#members.set(selection, (known = members(selection)));
    return known;
  }

  #once<T>(cache: StepCache<T>, key: string, make: () => T): T {
    let value = cache.get(key);
    if (value === undefined) cache.set(key, (value = make()));
    return value;
  }

  #correctedTable(doc: BenchDocument): Table {
    const key = JSON.stringify(doc.corrections);
    if (this.#corrected?.key !== key) {
      this.#corrected = { key, table: correct(this.list, this.recipe, doc.corrections) };
      this.#outcomes = new StepCache<Outcome>(12);
      this.#epoch++;
    }
    return this.#corrected.table;
  }

  *#tree(table: Table, spec: LedgerSpec, key: string): Steps<GroupTree> {
    const known = this.#trees.get(key);
    if (known) return known;
    const codes: GroupCodes[] = [];
    for (const group of spec.groups) {
      const { column, period, loose } = group;
      codes.push(
        this.#once(this.#keyCodes, `${this.#epoch}|${column}|${period}|${loose}`, () =>
          groupCodes(columnOf(table, column), group),
        ),
      );
      yield undefined;
    }
    const tree = buildTree(table.length, codes);
    this.#trees.set(key, tree);
    return tree;
  }

  /** Only `first` and `last` look at the order; without them the selection itself will do. */
  #inOrder(order: Int32Array, selection: Bitset, measures: readonly Measure[]): Int32Array {
    if (!measures.some((m) => looksAtOrder(m.kind))) return this.membersOf(selection);
    return order.filter((i) => ((selection[i >>> 5] >>> (i & 31)) & 1) === 1);
  }

  *#footing(
    table: Table,
    measures: readonly Measure[],
    ladder: LadderResult,
    order: Int32Array,
    figures: GroupFigures,
    measuresKey: string,
    ladderKey: string,
  ): Steps<Reckoned['foot']> {
    const counted: Foot = {
      records: this.membersOf(ladder.counted).length,
      figures: figures.total,
    };
    const key = (which: string): string => `${this.#epoch}|${which}|${measuresKey}`;
    const none = this.membersOf(ladder.setAside).length === 0;
    const narrowed = none
      ? counted
      : yield* this.#foot(table, measures, ladder.narrowed, order, key(ladderKey));
    const all =
      this.membersOf(ladder.narrowed).length === table.length
        ? narrowed
        : yield* this.#foot(table, measures, ladder.all, order, key('all'));
    return { all, narrowed, counted };
  }

  *#foot(
    table: Table,
    measures: readonly Measure[],
    selection: Bitset,
    order: Int32Array,
    key: string,
  ): Steps<Foot> {
    const known = this.#feet.get(key);
    if (known) return known;
    const records = this.membersOf(selection);
    const { total } = yield* reckonGroups(
      {
        table,
        tree: NO_TREE(table.length),
        records,
        ordered: this.#inOrder(order, selection, measures),
      },
      measures,
    );
    const foot = { records: records.length, figures: total };
    this.#feet.set(key, foot);
    return foot;
  }

  #sum(table: Table, column: string, selection: Bitset, key: string): DirectTotal {
    return this.#once(this.#sums, `${this.#epoch}|${column}|${key}`, () =>
      directTotal(valuesOf(columnOf(table, column)).values, this.membersOf(selection)),
    );
  }

  *#lead(
    table: Table,
    doc: BenchDocument,
    ladder: LadderResult,
    ladderKey: string,
  ): Steps<(number | null)[]> {
    const column = table.columns.find((c) => c.id === doc.lead);
    const sets = [
      ladder.all,
      ...ladder.rungs.map((r) => r.selection),
      ladder.narrowed,
      ladder.setAside,
      ladder.counted,
    ];
    if (!column || !isNumeric(column)) return sets.map(() => null);
    const out: number[] = [];
    for (let k = 0; k < sets.length; k++) {
      // Prefixes of the ladder stay the same when a rung further down changes.
      const key =
        k === 0
          ? 'all'
          : k <= ladder.rungs.length
            ? `rungs|${JSON.stringify(doc.ladder.rungs.slice(0, k))}`
            : `${ladderKey}|${k - ladder.rungs.length}`;
      out.push(this.#sum(table, column.id, sets[k], key).total);
      yield undefined;
    }
    return out;
  }

  #direct(
    table: Table,
    measures: readonly Measure[],
    ladder: LadderResult,
    ladderKey: string,
  ): Map<number, DirectTotal> {
    const out = new Map<number, DirectTotal>();
    measures.forEach((m, k) => {
      if ((m.kind === 'sum' || m.kind === 'running') && m.column)
        out.set(k, this.#sum(table, m.column, ladder.counted, `${ladderKey}|3`));
    });
    return out;
  }
}
