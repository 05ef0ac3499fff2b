import {
  bringScope,
  negateRung,
  addRung,
  putAllBack,
  removeRung,
  setGroups,
  setMeasures,
  setShowDown,
  setSort,
  setTotals,
  switchRung,
} from '../../core/bench/edits';
import { madePlace } from '../../core/bench/madeEdits';
import { MEASURES, suits, type MeasureKind } from '../../core/measure/measure';
import { wishOf, fitOf } from '../../core/tally/wish';
import { counted } from '../../core/table/format';
import { isLedger, type LedgerItem } from '../../core/bench/tray';
import type { BenchState } from '../bench/bench.svelte';

/** Something the finder finds or does. */
export interface Act {
  readonly label: string;
  readonly kind: 'act' | 'tally' | 'value' | 'column' | 'step' | 'scope' | 'level' | 'page';
  readonly keys?: string;
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
      label: `${rung.on ? 'Switch off' : 'Switch on'}: ${rung.says}`,
      run: () => bench.change(`Switch: ${rung.says}`, (doc) => switchRung(doc, rung.id)),
    });
    acts.push({
      kind: 'step',
      label: `Turn round: ${rung.says}`,
      run: () => bench.change(`Turn round: ${rung.says}`, (doc) => negateRung(doc, rung.id)),
    });
    acts.push({
      kind: 'step',
      label: `Remove: ${rung.says}`,
      run: () => bench.change(`Remove: ${rung.says}`, (doc) => removeRung(doc, rung.id)),
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
    for (const period of dated ? (['month', 'quarter', 'year', 'week'] as const) : [undefined])
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
    for (const kind of COMMON)
      if (suits(kind, { type: c.type } as Parameters<typeof suits>[1]))
        acts.push({
          kind: 'act',
          label: `Reckon the ${MEASURES[kind].says} of ${c.name}`,
          run: () =>
            bench.change(`Reckon the ${MEASURES[kind].says} of ${c.name}`, (doc) =>
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

const MOST_COLUMNS = 16;

/** What was typed as tallies to begin, and as values to narrow to. */
export async function foundActs(bench: BenchState, search: string): Promise<Act[]> {
  const [tallies, values] = await Promise.all([tallyActs(bench, search), valueActs(bench, search)]);
  return [...tallies, ...values];
}

/** `median delay by vessel`: the tallies that begin so. */
async function tallyActs(bench: BenchState, search: string): Promise<Act[]> {
  const wish = wishOf(search, bench.columns);
  if (!wish) return [];
  const found = await bench.questions(wish, 'find questions');
  const asked = [...found].sort((a, b) => fitOf(search, b) - fitOf(search, a));
  return asked.flatMap(({ question, sentence, tally }): Act[] =>
    tally
      ? [
          {
            kind: 'tally',
            label: `New: ${sentence}`,
            keys: question,
            run: () => bench.begin(`New tally: ${sentence}`, tally),
          },
        ]
      : [],
  );
}

/** Values of the list's text columns that hold what was typed, each as a step to narrow by. */
async function valueActs(bench: BenchState, search: string): Promise<Act[]> {
  const columns = bench.columns.filter((c) => c.type === 'text').slice(0, MOST_COLUMNS);
  const found = await Promise.all(
    columns.map(async (c) => {
      const { items } = await bench.ask(
        'values',
        { column: c.id, search, limit: 6 },
        `find ${c.id}`,
      );
      return items.map(({ text, count, spellings }): Act => {
        const says = `Narrow to ${c.name}: ${text}`;
        return {
          kind: 'value',
          label: says,
          keys:
            counted(count, 'record') +
            (spellings.length > 1 ? `, ${spellings.length} spellings` : ''),
          run: () =>
            bench.change(says, (doc) =>
              addRung(doc, {
                kind: 'leaf',
                column: c.id,
                not: false,
                test: { test: 'is', values: spellings.map((s) => s.text), exact: true },
              }),
            ),
        };
      });
    }),
  );
  return found.flat();
}
