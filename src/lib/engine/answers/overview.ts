import { counted, showCount } from '../../core/table/format';
import { showScalar } from '../../core/table/cell';
import { isText, type Column } from '../../core/table/column';
import { MEASURES, measureWords, type Measure } from '../../core/measure/measure';
import { describeCondition } from '../../core/scope/describe';
import { describeLedger } from '../../core/tally/ledger/sentence';
import { groupWords } from '../../core/tally/words';
import { openTally } from '../../core/bench/document';
import { usualGroupWidth } from '../../core/bench/widths';
import { count } from '../../core/table/bitset';
import type { Head, Overview } from '../protocol';
import { looseMerges, lostColumn } from '../fitting';
import type { Foot, Reckoned } from '../reckoning';
import { shownFigure } from './lines';

/** The whole of a bench but its lines: What counts, heads, footing, whether it foots. */
export function answerOverview(r: Reckoned, listName: string): Overview {
  const leadColumn = r.table.columns.find((c) => c.id === r.doc.lead);
  const lead = (at: number): string => {
    const value = r.lead[at];
    return value === null || !leadColumn || isText(leadColumn)
      ? ''
      : showScalar(leadColumn, value, r.doc.formats[leadColumn.id]);
  };
  const { ladder } = r;
  const n = ladder.rungs.length;
  return {
    all: { records: r.table.length, lead: lead(0) },
    rungs: ladder.rungs.map((rung, k) => ({
      id: rung.id,
      on: rung.on,
      says:
        describeCondition(r.doc.ladder.rungs[k].condition, r.names) +
        (lostColumn(r.table, r.doc.ladder.rungs[k]) === null
          ? ''
          : ' (its column is no longer in the list)'),
      records: rung.kept,
      removed: rung.removed,
      blank: rung.blank,
      unread: rung.unread,
      lead: lead(k + 1),
    })),
    narrowed: { records: r.foot.narrowed.records, lead: lead(n + 1) },
    setAside: { records: count(ladder.setAside), lead: lead(n + 2) },
    counted: { records: r.foot.counted.records, lead: lead(n + 3) },
    sentence: describeLedger(r.spec, r.names, listName),
    levels: ['Grand total', ...r.spec.groups.map((g) => groupWords(g, r.names)), 'Records'],
    naming: r.columns.naming
      ? { column: r.columns.naming, name: r.names.get(r.columns.naming) ?? '' }
      : null,
    heads: r.columns.slots.map((slot): Head => {
      const measure: Measure | null = slot.measure >= 0 ? r.spec.measures[slot.measure] : null;
      const column = r.table.columns.find((c) => c.id === slot.column);
      return {
        column: slot.column,
        measure: slot.measure,
        name: column?.name ?? 'Records',
        unit: unitOf(measure, column, slot.cells),
        says: measure && column ? measureWords(measure) : '',
        right: isRight(column, measure),
        width: slot.width,
        fixed: slot.fixed,
      };
    }),
    groupWidth:
      openTally(r.doc).view.groupWidth ??
      usualGroupWidth(
        r.tree,
        r.table.columns.find((c) => c.id === r.columns.naming),
      ),
    lines: r.lines.length,
    foot: [r.foot.all, r.foot.narrowed, r.foot.counted].map((foot) => ({
      records: foot.records,
      cells: footCells(r, foot),
    })),
    footing: { foots: r.footing.foots, says: footingWords(r) },
    loose: r.spec.groups.flatMap((key, k) => {
      const merges = looseMerges(r.table, key);
      return merges > 0 ? [{ key: k, merges }] : [];
    }),
    unread: r.table.columns.reduce((sum, c) => sum + (isText(c) ? 0 : c.unread.size), 0),
  };
}

const isRight = (column: Column | undefined, measure: Measure | null): boolean =>
  column === undefined ||
  column.type === 'number' ||
  (measure !== null && MEASURES[measure.kind].figure !== 'column');

function unitOf(measure: Measure | null, column: Column | undefined, cells: boolean): string {
  if (!cells && measure && ['count', 'share'].includes(MEASURES[measure.kind].figure)) return '';
  if (!column) return '';
  return (
    column.unit ||
    (column.type === 'number'
      ? ''
      : column.type === 'yesno'
        ? 'yes or no'
        : column.type === 'datetime'
          ? 'date and time'
          : column.type)
  );
}

export function footCells(r: Reckoned, foot: Foot): string[] {
  return r.columns.slots.map(({ measure }) =>
    measure < 0 ? '' : shownFigure(r, measure, (k) => foot.figures[k]),
  );
}

/** `9 routes and 31 vessels foot to the grand total` */
function footingWords(r: Reckoned): string {
  const { footing } = r;
  if (footing.failure) {
    const { path, measure, difference } = footing.failure;
    const m = r.spec.measures[measure];
    const name = r.names.get(m.column ?? '') ?? 'records';
    return `The subtotals of ${name} under ${path.join(' › ') || 'the grand total'} differ from it by ${difference}.`;
  }
  const adding = r.spec.measures.length - footing.notAdding.length;
  if (r.spec.groups.length === 0)
    return r.spec.measures.length ? `Totals of ${counted(r.foot.counted.records, 'record')}` : '';
  const groups = footing.groups
    .map((n, l) => `${showCount(n)} ${l === 0 ? '' : 'sub'}${n === 1 ? 'group' : 'groups'}`)
    .join(' and ');
  if (adding === 0) return `${groups}; these measures do not add up`;
  if (footing.notAdding.length === 0) return `${groups} foot to the grand total`;
  const words = [...new Set(footing.notAdding.map((k) => measureWords(r.spec.measures[k])))];
  return `${groups} foot; ${words.join(', ')} ${words.length === 1 ? 'does' : 'do'} not add`;
}
