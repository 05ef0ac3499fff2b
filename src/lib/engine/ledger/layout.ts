import { TallyRefused } from '../../core/errors';
import { fit, refusalOf } from '../../core/tally/evaluate';
import type { LedgerItem } from '../../core/bench/tray';
import { totalGrouping } from '../../core/measure/grouping';
import type { Steps } from '../../core/steps/steps';
import { count, type Bitset } from '../../core/table/bitset';
import type { AnswerTable } from '../../core/tally/answer';
import { orderedFor, recordsInSteps, recordsOf, type Base } from '../../core/tally/base';
import type { Fault } from '../../core/tally/fault';
import { figureFrom, measureColumn, shownColumn } from '../../core/tally/figure';
import { figureText } from '../../core/tally/figureText';
import { computeLedger, type ComputedLedger } from '../../core/tally/ledger/compute';
import { NumberedLines } from '../../core/tally/ledger/lines';
import { linesTable, type LedgerView } from '../../core/tally/ledger/linesTable';
import { runningRecords } from '../../core/tally/ledger/runningRecords';
import { orderFigures } from '../../core/tally/groupFigures';
import { layoutRows, type Rows } from '../../core/tally/ledger/rows';
import { computeResting } from '../../core/tally/resting';
import { orderGroups, type ShownGroups } from '../../core/tally/sortedGroups';
import type { LedgerSpec } from '../../core/tally/ledger/spec';
import { figureOf, type FigureColumn } from '../../core/tally/result';
import type { HeldBench } from '../heldBench';
import { layoutColumns, type LedgerColumns } from './slots';

/** One line of the footing. */
export interface Foot {
  readonly records: number;
  /** Figures by measure, and the deviations of those that are means; NaN for others. */
  readonly figures: Float64Array;
  readonly deviations: readonly number[];
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
  /** What is looked at of it as the one table that is shown, copied and written. */
  readonly view: LedgerView;
  readonly table: AnswerTable;
}

/** Lays a ledger of the tray out. @throws TallyRefused where its groups would be too many */
export function* ledgerOf(held: HeldBench, item: LedgerItem): Steps<LedgerLayout> {
  const { stand, table } = held;
  const { base } = stand;
  const fitted = fit(base, item.tally, 'tally');
  if (fitted.tally.kind !== 'ledger') throw new TallyRefused('This is no ledger.');
  const { ledger, refused } = yield* computeWhatGoes(base, fitted.tally);
  const { spec } = ledger;
  const faults = [...fitted.faults, ...refused];
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
  const totals = footTexts(held, figureColumns, foot.all);
  const columns = yield* layoutColumns(
    table,
    spec,
    view,
    totals,
    lines.showsRecords || spec.measures.length === 0,
  );
  const running = new Map<number, Float64Array>();
  for (const { measure, cells } of columns.slots)
    if (cells && lines.showsRecords && spec.measures[measure]?.kind === 'running')
      running.set(
        measure,
        yield* runningRecords(table, ledger, rows, base.counted, spec.measures[measure].column),
      );
  const looked: LedgerView = { ...columns, lines, counted: base.counted, running };
  return {
    held,
    item,
    spec,
    faults,
    ledger,
    rows,
    shown,
    lines,
    columns,
    figureColumns,
    foot,
    view: looked,
    table: linesTable(table, ledger, looked),
  };
}

/** The figures of a line of the footing as shown, by measure. */
export const footTexts = (
  { table, doc }: HeldBench,
  columns: readonly FigureColumn[],
  { figures, deviations }: Foot,
): string[] =>
  columns.map((column, k) => {
    const { measure } = column;
    const figure = measure ? figureFrom(measure, shownColumn(measure, table), figures[k]) : null;
    return figureText(column, figure, doc.formats, figureOf(deviations[k]));
  });

/**
 * The ledger, or where its groups cannot be made, the same without groups and why: a page always
 * opens, with what is to be mended in sight.
 */
function* computeWhatGoes(
  base: Base,
  spec: LedgerSpec,
): Steps<{ ledger: ComputedLedger; refused: Fault[] }> {
  try {
    return { ledger: yield* computeLedger(base, spec), refused: [] };
  } catch (error) {
    const message = refusalOf(error);
    if (message === null || spec.groups.length === 0) throw error;
    const remedy = 'The records are shown without these groups.';
    return {
      ledger: yield* computeLedger(base, { ...spec, groups: [] }),
      // Each of them stands in the sentence with the reason.
      refused: spec.groups.map((_, k) => ({ path: `tally.groups[${k}]`, message, remedy })),
    };
  }
}

/** The three lines of the footing. */
function* footOf(held: HeldBench, ledger: ComputedLedger): Steps<LedgerLayout['foot']> {
  const { base, ladder } = held.stand;
  const whole: Foot = {
    records: ledger.records.length,
    figures: ledger.figures.total,
    deviations: ledger.measures.map((_, k) => ledger.own.resting.at(0, k, 0)?.deviation ?? NaN),
  };
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
  let whole = base.memo.wholes.get(key);
  if (!whole) {
    const { figures, resting } = yield* computeResting(
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
    whole = {
      figures: Float64Array.from(figures[0], (values) => values[0]),
      deviations: measures.map((_, k) => resting.at(0, k, 0)?.deviation ?? NaN),
    };
    base.memo.wholes.set(key, whole);
  }
  return { records: records.length, ...whole };
}
