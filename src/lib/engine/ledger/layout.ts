import { TallyRefused } from '../../core/errors';
import { fit, refusalOf } from '../../core/tally/kind/evaluate';
import { madePlace } from '../../core/bench/madeEdits';
import type { LedgerItem } from '../../core/bench/tray';
import { totalGrouping } from '../../core/measure/grouping';
import type { Measure } from '../../core/measure/measure';
import type { Task } from '../../core/task/task';
import { count, type Bitset } from '../../core/table/bitset';
import type { AnswerTable } from '../../core/tally/answer/answer';
import {
  orderedFor,
  recordsInSteps,
  recordsOf,
  type TallyInput,
} from '../../core/tally/input/input';
import type { Fault } from '../../core/tally/spec/fault';
import { figureFrom, measureColumn, shownColumn } from '../../core/tally/answer/figure';
import { figureText } from '../../core/tally/answer/figureText';
import { computeLedger, type ComputedLedger } from '../../core/tally/kinds/ledger/compute';
import { NumberedLines } from '../../core/tally/kinds/ledger/lines';
import { linesTable, type LedgerView } from '../../core/tally/kinds/ledger/linesTable';
import { runningRecords } from '../../core/tally/kinds/ledger/runningRecords';
import { orderFigures } from '../../core/tally/groups/groupFigures';
import { layoutRows, type Rows } from '../../core/tally/kinds/ledger/rows';
import { computeInfluences, gapsText, type Influences } from '../../core/tally/trust/influence';
import { orderGroups, type ShownGroups } from '../../core/tally/groups/sortedGroups';
import type { LedgerSpec } from '../../core/tally/kinds/ledger/spec';
import { figureOf, type FigureColumn } from '../../core/tally/answer/result';
import type { ResolvedBench } from '../resolvedBench';
import { layoutColumns, type LedgerColumns } from './slots';

/** One line of the footing. */
export interface Foot {
  readonly records: number;
  /** Figures by measure, and the deviations of those that are means; NaN for others. */
  readonly figures: Float64Array;
  readonly deviations: readonly number[];
  /** `29 of 31` of sums that leave records out; else empty. */
  readonly gaps: readonly string[];
}

/** A ledger as it stands on the page: its figures, its lines, its columns and its footing. */
export interface LedgerLayout {
  readonly session: ResolvedBench;
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
export function* ledgerOf(session: ResolvedBench, item: LedgerItem): Task<LedgerLayout> {
  const { resolved, table } = session;
  const { input } = resolved;
  const fitted = fit(input, item.tally, 'tally');
  if (fitted.tally.kind !== 'ledger') throw new TallyRefused('This is no ledger.');
  const { ledger, refused } = yield* computeWhatGoes(input, fitted.tally);
  const { spec } = ledger;
  const faults = [...fitted.faults, ...refused];
  yield undefined;
  const { tree, order, measures } = ledger;
  // What was set aside by hand stays in view, struck through.
  const inView = spec.scope === 'counted' ? input.narrowed : ledger.selection;
  const rowsKey = JSON.stringify([ledger.treeKey, spec.sort, input.memo.numberOf(inView)]);
  const seen = yield* recordsInSteps(inView);
  const rows = yield* input.memo.rows.onceInSteps(rowsKey, () =>
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
  const foot = yield* footOf(session, ledger);
  const figureColumns = measures.map((m, k) => measureColumn(m, table, `m${k + 1}`));
  // What stands beside a figure needs room as well.
  const totals = footTexts(session, figureColumns, foot.all).map((text, k) =>
    [text, foot.all.gaps[k]].filter(Boolean).join(' '),
  );
  const columns = yield* layoutColumns(
    table,
    spec,
    view,
    totals,
    lines.showsRecords || spec.measures.length === 0,
    (id) => madePlace(session.doc, id) !== null,
  );
  const running = new Map<number, Float64Array>();
  for (const { measure, cells } of columns.slots)
    if (cells && lines.showsRecords && spec.measures[measure]?.kind === 'running')
      running.set(
        measure,
        yield* runningRecords(table, ledger, rows, input.counted, spec.measures[measure].column),
      );
  const looked: LedgerView = { ...columns, lines, counted: input.counted, running };
  return {
    session,
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
  { table, doc }: ResolvedBench,
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
  input: TallyInput,
  spec: LedgerSpec,
): Task<{ ledger: ComputedLedger; refused: Fault[] }> {
  try {
    return { ledger: yield* computeLedger(input, spec), refused: [] };
  } catch (error) {
    const message = refusalOf(error);
    if (message === null || spec.groups.length === 0) throw error;
    const remedy = 'The records are shown without these groups.';
    return {
      ledger: yield* computeLedger(input, { ...spec, groups: [] }),
      // Each of them stands in the sentence with the reason.
      refused: spec.groups.map((_, k) => ({ path: `tally.groups[${k}]`, message, remedy })),
    };
  }
}

/** The three lines of the footing. */
function* footOf(session: ResolvedBench, ledger: ComputedLedger): Task<LedgerLayout['foot']> {
  const { input, ladder } = session.resolved;
  const whole: Foot = {
    records: ledger.records.length,
    figures: ledger.figures.total,
    ...footSigns(ledger.measures, ledger.own.influences),
  };
  const over = (selection: Bitset, name: string): Task<Foot> =>
    selection === ledger.selection ? same(whole) : wholeOf(session, ledger, selection, name);
  const aside = count(ladder.setAside);
  const counted = yield* over(input.counted, '');
  const narrowed = aside === 0 ? counted : yield* over(input.narrowed, '');
  const all =
    count(input.narrowed) === input.table.length ? narrowed : yield* over(input.all, 'all');
  return { all, narrowed, counted };
}

/** What stands beside the figures of a line of the footing. */
const footSigns = (
  measures: readonly Measure[],
  influences: Influences,
): Pick<Foot, 'deviations' | 'gaps'> => ({
  deviations: measures.map((_, k) => influences.at(0, k, 0)?.deviation ?? NaN),
  gaps: measures.map((measure, k) => gapsText(measure, influences.at(0, k, 0))),
});

function* same<T>(value: T): Task<T> {
  return value;
}

/** The measures over a whole selection. @param name names a selection that is always the same */
function* wholeOf(
  { resolved: { input } }: ResolvedBench,
  { measures, spec, order }: ComputedLedger,
  selection: Bitset,
  name: string,
): Task<Foot> {
  const records = recordsOf(selection);
  const key = JSON.stringify([name || input.memo.numberOf(selection), measures, spec.sort]);
  let whole = input.memo.wholes.get(key);
  if (!whole) {
    const { figures, influences } = yield* computeInfluences(
      {
        table: input.table,
        records,
        ordered: yield* orderedFor({ order }, selection, measures),
        leafOf: new Int32Array(input.table.length),
        leaves: 1,
      },
      [totalGrouping(1)],
      measures,
    );
    whole = {
      figures: Float64Array.from(figures[0], (values) => values[0]),
      ...footSigns(measures, influences),
    };
    input.memo.wholes.set(key, whole);
  }
  return { records: records.length, ...whole };
}
