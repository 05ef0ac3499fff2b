import {
  bringScope,
  negateRung,
  putAllBack,
  removeRung,
  setFormat,
  showDeviation,
  setGroups,
  setMeasures,
  setShowDown,
  setSort,
  setTotals,
  switchRung,
} from '../../core/bench/edits';
import { madePlace } from '../../core/bench/madeEdits';
import { MEASURES, suits, type MeasureKind } from '../../core/measure/measure';
import { plainFormat } from '../../core/table/format';
import { noFinerThan } from '../../core/table/period';
import { isLedger, type LedgerItem } from '../../core/bench/tray';
import type { FirstFigure } from './firstFigures';
import type { BenchState } from '../bench/bench.svelte';

/** Something the finder finds or does. */
export interface Act {
  readonly label: string;
  readonly kind: 'act' | 'tally' | 'value' | 'column' | 'step' | 'scope' | 'level' | 'page';
  readonly keys?: string;
  /** Found by the words of a long sentence: what was asked for in these words stands before it. */
  readonly loosely?: boolean;
  /** Words that were typed and that it does not do: told before it, and never passed over by one Enter. */
  readonly left?: readonly string[];
  /** Words of it that were taken for others, which are near. */
  readonly taken?: readonly { readonly typed: string; readonly takenFor: string }[];
  /** Word by word what it was read as. */
  readonly read?: readonly { readonly typed: string; readonly as: string }[];
  /** The first figures that it comes to; empty where it has none. */
  readonly figures?: () => Promise<readonly FirstFigure[]>;
  readonly run: () => void;
}

const COMMON: readonly MeasureKind[] = [
  'sum',
  'mean',
  'median',
  'min',
  'max',
  'sd',
  'distinct',
  'values',
];

/** Everything the finder offers on a bench, as the bench stands. */
export function benchActs(bench: BenchState, open: { narrow: (column?: string) => void }): Act[] {
  const acts: Act[] = bench.doc.tray.map((item) => ({
    kind: 'tally',
    label: `Open: ${bench.nameOf(item)}`,
    loosely: item.name === undefined,
    run: () => bench.visit(item.id),
  }));
  for (const c of bench.columns)
    acts.push({
      kind: 'column',
      label: `${c.name}: facts and acts`,
      run: () => (bench.side = { kind: 'column', column: c.id }),
    });
  for (const c of bench.columns)
    acts.push({ kind: 'act', label: `Narrow by ${c.name}…`, run: () => open.narrow(c.id) });
  const { shown } = bench;
  if (isLedger(shown)) acts.push(...ledgerActs(bench, shown));
  for (const rung of bench.counts?.rungs ?? []) {
    acts.push({
      kind: 'step',
      label: `${rung.on ? 'Switch off' : 'Switch on'}: ${rung.words}`,
      run: () => bench.change(`Switch: ${rung.words}`, (doc) => switchRung(doc, rung.id)),
    });
    acts.push({
      kind: 'step',
      label: `Turn round: ${rung.words}`,
      run: () => bench.change(`Turn round: ${rung.words}`, (doc) => negateRung(doc, rung.id)),
    });
    acts.push({
      kind: 'step',
      label: `Remove: ${rung.words}`,
      run: () => bench.change(`Remove: ${rung.words}`, (doc) => removeRung(doc, rung.id)),
    });
  }
  for (const { name } of bench.doc.scopes)
    acts.push({
      kind: 'scope',
      label: `Bring back the scope “${name}”`,
      run: () => bench.change(`Bring back the scope “${name}”`, (doc) => bringScope(doc, name)),
    });
  if ((bench.counts?.setAside.records ?? 0) > 0)
    acts.push({
      kind: 'act',
      label: 'Put all records back',
      run: () => bench.change('Put all records back', putAllBack),
    });
  return acts;
}

/** What the finder does with the ledger that is open. */
function ledgerActs(bench: BenchState, { tally: spec, view }: LedgerItem): Act[] {
  const acts: Act[] = [];
  for (const c of bench.columns) {
    acts.push({
      kind: 'act',
      label: `Sort by ${c.name}`,
      run: () =>
        bench.change(`Sort by ${c.name}`, (doc) =>
          setSort(doc, [{ column: c.id, descending: false, blanks: 'last' }]),
        ),
    });
    const made = madePlace(bench.doc, c.id);
    if (made)
      acts.push({
        kind: 'act',
        label: `Change how ${c.name} is made`,
        run: () => (bench.side = { kind: 'made', ...made }),
      });
    acts.push({
      kind: 'act',
      label: `Sort by ${c.name}, highest first`,
      run: () =>
        bench.change(`Sort by ${c.name}`, (doc) =>
          setSort(doc, [{ column: c.id, descending: true, blanks: 'last' }]),
        ),
    });
    const dated = c.type === 'date' || c.type === 'datetime';
    const periods = (['month', 'quarter', 'year', 'week'] as const).filter(
      (period) => noFinerThan(period, c.grain ?? 'day') === period,
    );
    for (const period of dated ? periods : [undefined])
      acts.push({
        kind: 'act',
        label: `Group by ${c.name}${period ? ` by ${period}` : ''}`,
        run: () =>
          bench.change(`Group by ${c.name}`, (doc) =>
            setGroups(doc, [
              ...spec.groups,
              {
                column: c.id,
                ...(period ? { period } : {}),
                loose: false,
                order: { by: 'label', descending: false },
              },
            ]),
          ),
      });
    if (c.type === 'number') acts.push(deviationAct(bench, c));
    for (const kind of COMMON)
      if (suits(kind, c))
        acts.push({
          kind: 'act',
          label: `Show the ${MEASURES[kind].words} of ${c.name}`,
          run: () =>
            bench.change(`Show the ${MEASURES[kind].words} of ${c.name}`, (doc) =>
              setMeasures(doc, [...spec.measures, { kind, column: c.id }]),
            ),
        });
  }
  acts.push({
    kind: 'act',
    label: `Put the totals ${view.totals === 'below' ? 'above' : 'under'} each group`,
    run: () =>
      bench.change('Move the totals', (doc) =>
        setTotals(doc, view.totals === 'below' ? 'above' : 'below'),
      ),
  });
  if (spec.groups.length)
    acts.push({
      kind: 'act',
      label: 'Take all groups out',
      run: () => bench.change('Take all groups out', (doc) => setGroups(doc, [])),
    });
  bench.ledger?.levels.forEach((level, k) =>
    acts.push({
      kind: 'level',
      label: `Show down to ${level}`,
      run: () => bench.change(`Show down to ${level}`, (doc) => setShowDown(doc, k)),
    }),
  );
  return acts;
}

/** Means as a laboratory writes them, rounded by their deviation; or as before. */
function deviationAct(bench: BenchState, { id, name }: { id: string; name: string }): Act {
  const { deviation, ...format } = bench.doc.formats[id] ?? plainFormat;
  const label =
    deviation === undefined
      ? `Show means of ${name} with ± their deviation, rounded to two digits of it`
      : `Show means of ${name} without their deviation`;
  return {
    kind: 'act',
    label,
    run: () =>
      bench.change(label, (doc) =>
        deviation === undefined ? showDeviation(doc, id) : setFormat(doc, id, format),
      ),
  };
}
