import { TallyRefused } from '../../core/errors';
import { fit } from '../../core/ask/compute';
import type { LedgerItem } from '../../core/bench/tray';
import { CompensatedSum } from '../../core/measure/compensated';
import { totalGrouping } from '../../core/measure/grouping';
import type { Measure } from '../../core/measure/measure';
import { computeMeasures } from '../../core/measure/compute';
import { inStretches, STRIDE, type Steps } from '../../core/steps/steps';
import { count, has, type Bitset } from '../../core/table/bitset';
import { isText } from '../../core/table/column';
import { columnFor } from '../../core/expression/columnFor';
import { orderedFor, recordsInSteps, recordsOf } from '../../core/tally/base';
import type { Fault } from '../../core/tally/fault';
import { figureFrom, measureColumn, shownColumn } from '../../core/tally/figure';
import {
  deviationDigits,
  figureText,
  formatOf,
  meanWithDeviation,
  type Formats,
} from '../../core/tally/figureText';
import { computeLedger, type ComputedLedger } from '../../core/tally/ledger/compute';
import { NumberedLines } from '../../core/tally/ledger/lines';
import { orderFigures } from '../../core/tally/groupFigures';
import { layoutRows, type Rows } from '../../core/tally/ledger/rows';
import { orderGroups, type ShownGroups } from '../../core/tally/sortedGroups';
import type { LedgerSpec } from '../../core/tally/ledger/spec';
import type { FigureColumn } from '../../core/tally/result';
import { plainFormat } from '../../core/table/format';
import type { HeldBench } from '../heldBench';
import { layoutColumns, type LedgerColumns } from './slots';

/** Figures of one line of the footing. */
export interface Foot {
  readonly records: number;
  readonly figures: Float64Array;
}

/** A ledger as it stands on the page: its figures, its lines, its columns and its footing. */
export interface LedgerLayout {
  readonly held: HeldBench;
  readonly item: LedgerItem;
  /** The spec without the parts that do not fit. */
  readonly spec: LedgerSpec;
  readonly faults: readonly Fault[];
  readonly ledger: ComputedLedger;
  readonly rows: Rows;
  readonly shown: ShownGroups;
  readonly lines: NumberedLines;
  readonly columns: LedgerColumns;
  readonly figureColumns: readonly FigureColumn[];
  readonly foot: { readonly all: Foot; readonly narrowed: Foot; readonly counted: Foot };
  /** A figure as shown, a mean with its deviation where that was asked for. @param at figures by measure */
  text(measure: number, at: (measure: number) => number): string;
  /** Running total at each row of a measure; NaN where the record is set aside. */
  running(measure: number): Steps<Float64Array>;
}

/** Lays a ledger of the tray out. @throws TallyRefused where its groups would be too many */
export function* ledgerOf(held: HeldBench, item: LedgerItem): Steps<LedgerLayout> {
  const { stand, doc, table } = held;
  const { base } = stand;
  const { tally, faults } = fit(stand, item.tally, 'tally');
  if (tally.kind !== 'ledger') throw new TallyRefused('This is no ledger.');
  const spec = tally;
  const { besides, deviations } = deviationsOf(spec.measures, doc.formats);
  const ledger = yield* computeLedger(base, spec, besides);
  yield undefined;
  const { tree, order, measures } = ledger;
  // What was set aside by hand stays in view, struck through.
  const inView = spec.scope === 'counted' ? base.narrowed : ledger.selection;
  const rowsKey = JSON.stringify([ledger.treeKey, spec.sort, base.memo.numberOf(inView)]);
  const seen = yield* recordsInSteps(inView);
  const rows = yield* base.memo.rows.onceInSteps(rowsKey, () =>
    layoutRows(tree, order, inView, seen),
  );
  yield undefined;
  const shown = yield* orderGroups(
    tree,
    spec.groups.map((g) => g.order),
    orderFigures(ledger.own),
    (l, g) => rows.end[l][g] > rows.first[l][g],
  );
  const { view } = item;
  const lines = yield* NumberedLines.of(tree, rows, shown, {
    showDown: view.showDown,
    turned: new Set(view.turned),
    totals: view.totals,
  });
  yield undefined;
  const foot = yield* footOf(held, ledger);
  const figureColumns = measures.map((m, k) => measureColumn(m, table, `m${k + 1}`));
  const text = textOf(held, ledger, figureColumns, deviations);
  const totals = spec.measures.map((_, k) => text(k, (m) => foot.all.figures[m]));
  const running = new Map<number, Float64Array>();
  return {
    held,
    item,
    spec,
    faults,
    ledger,
    rows,
    shown,
    lines,
    columns: yield* layoutColumns(
      table,
      spec,
      view,
      totals,
      lines.showsRecords || spec.measures.length === 0,
    ),
    figureColumns,
    foot,
    text,
    *running(measure) {
      let known = running.get(measure);
      if (!known) {
        known = yield* runningTotals(held, ledger, rows, spec.measures[measure]);
        running.set(measure, known);
      }
      return known;
    },
  };
}

/** Standard deviations that means are to be shown with, and the place of each behind the measures. */
function deviationsOf(
  measures: readonly Measure[],
  formats: Formats,
): { besides: Measure[]; deviations: number[] } {
  const besides: Measure[] = [];
  const deviations = measures.map((m) =>
    deviationDigits(m, formats)
      ? measures.length + besides.push({ kind: 'sd', column: m.column }) - 1
      : -1,
  );
  return { besides, deviations };
}

const textOf =
  (
    { doc, table }: HeldBench,
    { measures }: ComputedLedger,
    figureColumns: readonly FigureColumn[],
    deviations: readonly number[],
  ): LedgerLayout['text'] =>
  (k, at) => {
    const measure = measures[k];
    const column = shownColumn(measure, table);
    const digits = deviationDigits(measure, doc.formats);
    if (digits && deviations[k] >= 0 && column?.type === 'number')
      return meanWithDeviation(
        at(k),
        at(deviations[k]),
        digits,
        formatOf(column, doc.formats) ?? plainFormat,
      );
    return figureText(figureColumns[k], figureFrom(measure, column, at(k)), doc.formats);
  };

/** The three lines of the footing. */
function* footOf(held: HeldBench, ledger: ComputedLedger): Steps<LedgerLayout['foot']> {
  const { base, ladder } = held.stand;
  const whole: Foot = { records: ledger.records.length, figures: ledger.figures.total };
  const over = (selection: Bitset, name: string): Steps<Foot> =>
    selection === ledger.selection ? same(whole) : wholeOf(held, ledger, selection, name);
  const aside = count(ladder.setAside);
  const counted = yield* over(base.counted, '');
  const narrowed = aside === 0 ? counted : yield* over(base.narrowed, '');
  const all = count(base.narrowed) === base.table.length ? narrowed : yield* over(base.all, 'all');
  return { all, narrowed, counted };
}

function* same<T>(value: T): Steps<T> {
  return value;
}

/** The measures over a whole selection. @param name names a selection that is always the same */
function* wholeOf(
  { stand: { base } }: HeldBench,
  { measures, spec, order }: ComputedLedger,
  selection: Bitset,
  name: string,
): Steps<Foot> {
  const records = recordsOf(selection);
  const key = JSON.stringify([name || base.memo.numberOf(selection), measures, spec.sort]);
  let figures = base.memo.wholes.get(key);
  if (!figures) {
    const [found] = yield* computeMeasures(
      {
        table: base.table,
        records,
        ordered: yield* orderedFor({ order }, selection, measures),
        leafOf: new Int32Array(base.table.length),
        leaves: 1,
      },
      [totalGrouping(1)],
      measures,
    );
    figures = Float64Array.from(found, (values) => values[0]);
    base.memo.wholes.set(key, figures);
  }
  return { records: records.length, figures };
}

/** The sum of the counted values from the first row of a record's group to each row. */
function* runningTotals(
  { stand: { base, ladder } }: HeldBench,
  { tree }: ComputedLedger,
  rows: Rows,
  measure: Measure,
): Steps<Float64Array> {
  const out = new Float64Array(rows.records.length);
  if (measure.column === undefined) return out.fill(NaN);
  const column = columnFor(base.table, measure.column);
  if (isText(column)) return out.fill(NaN);
  let leaf = -1;
  let sum = new CompensatedSum();
  const { values } = column;
  yield* inStretches(
    rows.records.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const i = rows.records[k];
        if (tree.leafOf[i] !== leaf) {
          leaf = tree.leafOf[i];
          sum = new CompensatedSum();
        }
        if (has(ladder.setAside, i)) {
          out[k] = NaN;
          continue;
        }
        const x = values[i];
        if (x === x) sum.add(x);
        out[k] = sum.value;
      }
    },
    STRIDE,
    true,
  );
  return out;
}
