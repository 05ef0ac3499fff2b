import { labelsAlike } from '../../core/tally/trust/lookAlikeWarnings';
import { columnFor } from '../../core/expression/columnFor';
import { MEASURES, type Measure } from '../../core/measure/measure';
import { type Column } from '../../core/table/column';
import { inStretches, type Task } from '../../core/task/task';
import { columnOf, namesOf } from '../../core/table/table';
import { shownColumn } from '../../core/tally/answer/figure';
import { plainSentence } from '../../core/tally/sentence/sentence';
import { ledgerSentence } from '../../core/tally/kinds/ledger/sentence';
import { groupWords, measureBelow } from '../../core/tally/sentence/words';
import { footTexts, type Foot, type LedgerLayout } from '../ledger/layout';
import { usualGroupWidth } from '../ledger/widths';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';
import { distributionOf } from './distribution';
import { fitting } from './weight';
import type { Head, LedgerPage } from '../replies/ledger';

/** Bins of the small picture over a column's head. */
const HEAD_BINS = 10;

/** The whole of a ledger but its lines. */
export function* answerLedger(session: Session, { tally }: ArgsOf<'ledger'>): Task<LedgerPage> {
  const l = yield* session.ledger(tally);
  const { table, listName } = l.session;
  const names = namesOf(table);
  const { naming, slots } = l.columns;
  const { spec } = l;
  const loose: LedgerPage['loose'] = [];
  for (const [k, key] of spec.groups.entries()) {
    const merges = key.loose ? 0 : yield* labelsAlike(table, key);
    if (merges > 0) loose.push({ key: k, merges });
  }
  yield undefined;
  return {
    sentence: plainSentence(ledgerSentence(spec, names, listName)),
    levels: ['Grand total', ...spec.groups.map((g) => groupWords(g, names)), 'Records'],
    naming: naming ? { column: naming, name: names.get(naming) ?? '' } : null,
    heads: slots.map((slot): Head => {
      const measure = slot.measure >= 0 ? spec.measures[slot.measure] : null;
      const column = slot.column === null ? null : columnFor(table, slot.column);
      const shown = measure ? shownColumn(measure, table) : null;
      return {
        column: slot.column,
        figure: slot.measure >= 0 ? `m${slot.measure + 1}` : null,
        name: column?.name ?? 'Records',
        // Of a ratio both units, once they are not the column's own.
        unit:
          measure?.kind === 'ratio' && !slot.cells
            ? l.figureColumns[slot.measure].unit
            : unitOf(measure, slot.cells ? column : (shown ?? column), slot.cells),
        words: measure && column ? measureBelow(measure, names) : '',
        right: isRight(slot.cells ? column : (shown ?? column), measure),
        width: slot.width,
        fixed: slot.fixed,
      };
    }),
    groupWidth:
      l.item.view.groupWidth ??
      usualGroupWidth(
        l.ledger.tree,
        table.columns.find((c) => c.id === naming),
        l.foot.counted.records,
      ),
    showsRecords: l.lines.showsRecords,
    lines: l.lines.length,
    foot: [l.foot.all, l.foot.narrowed, l.foot.counted].map((foot) => ({
      records: foot.records,
      cells: footCells(l, foot),
      gaps: l.columns.slots.map(({ measure }) => foot.gaps[measure] ?? ''),
    })),
    loose,
    faults: [...l.faults],
  };
}

const isRight = (column: Column | null, measure: Measure | null): boolean =>
  column === null ||
  column.type === 'number' ||
  (measure !== null && !['column', 'other'].includes(MEASURES[measure.kind].figure));

function unitOf(measure: Measure | null, column: Column | null, cells: boolean): string {
  if (!cells && measure && ['count', 'share'].includes(MEASURES[measure.kind].figure)) return '';
  if (!column) return '';
  if (column.unit || column.type === 'number') return column.unit;
  return column.type === 'yesno'
    ? 'yes or no'
    : column.type === 'datetime'
      ? 'date and time'
      : column.type;
}

export function footCells(l: LedgerLayout, foot: Foot): string[] {
  const texts = footTexts(l.session, l.figureColumns, foot);
  return l.columns.slots.map(({ measure }) => (measure < 0 ? '' : texts[measure]));
}

/** How the values of each column fall, in small, from a column on: of very many the first ones. */
export function* answerHeads(
  session: Session,
  { tally, from }: ArgsOf<'heads'>,
): Task<ReplyOf<'heads'>> {
  const { columns } = yield* session.ledger(tally);
  const out: ReplyOf<'heads'> = [];
  const fits = fitting();
  for (const { column, cells } of columns.slots.slice(from)) {
    const falls =
      column && cells
        ? yield* distributionOf(columnOf(session.table, column), session.counted, HEAD_BINS, {
            apart: true,
          })
        : ({ kind: 'none' } as const);
    if (!fits(falls)) break;
    out.push(falls);
    yield undefined;
  }
  return out;
}

/** Labels of a level in the order shown, each once. */
export function* answerLabels(
  session: Session,
  { tally, level }: ArgsOf<'labels'>,
): Task<ReplyOf<'labels'>> {
  const { ledger, shown } = yield* session.ledger(tally);
  const { tree } = ledger;
  const groups = tree.levels[level];
  if (!groups) return { labels: [], more: 0 };
  const { label } = tree.keys[level];
  const order = shown.order[level];
  const fits = fitting();
  const labels = new Set<string>();
  let taken = 0;
  yield* inStretches(order.length, (from, to) => {
    for (let k = from; k < to && taken === k; k++) {
      const text = label(groups.code[order[k]]);
      if (!labels.has(text) && !fits(text)) return;
      labels.add(text);
      taken++;
    }
  });
  return { labels: [...labels], more: order.length - taken };
}
