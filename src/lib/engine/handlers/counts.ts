import { correctionWords } from '../../core/read/correct';
import { setAsideWords } from '../../core/selection/setAsideWords';
import { describeCondition } from '../../core/selection/describe';
import { count, type Bitset } from '../../core/table/bitset';
import { showScalar } from '../../core/table/cell';
import { isNumeric, isText } from '../../core/table/column';
import { namesOf } from '../../core/table/table';
import { recordsInSteps } from '../../core/tally/input/input';
import { isWithin } from '../../core/tally/spec/faultPath';
import type { Resolved } from '../../core/ask/resolve';
import type { Bench } from '../../core/bench/document';
import type { Task } from '../../core/task/task';
import type { Session, LeadSums } from '../session';
import type { Counts } from '../replies/counts';

/** Sum of the lead column over all, each rung, narrowed, set aside and counted; null without one. */
export function* leadSums(
  { input, ladder, given }: Resolved,
  { lead }: Bench,
  sums: LeadSums,
): Task<(number | null)[]> {
  const column = input.table.columns.find((c) => c.id === lead);
  const sets: Bitset[] = [
    ladder.all,
    ...ladder.rungs.map((r) => r.selection),
    ladder.narrowed,
    ladder.setAside,
    ladder.counted,
  ];
  if (!column || !isNumeric(column)) return sets.map(() => null);
  const whole = JSON.stringify(given);
  const out: number[] = [];
  for (const [k, set] of sets.entries()) {
    // Prefixes of the ladder stay the same when a rung further down changes.
    const key =
      k === 0 || count(set) === input.table.length
        ? 'all'
        : k <= ladder.rungs.length
          ? `rungs|${JSON.stringify(given.rungs.slice(0, k))}`
          : `${whole}|${k - ladder.rungs.length}`;
    const records = yield* recordsInSteps(set);
    out.push(yield* sums.once(input.table, `${column.id}|${key}`, column.values, records));
    yield undefined;
  }
  return out;
}

/** What counts, rung by rung, with what does not fit. */
export function answerCounts({ token, doc, resolved, lead, table }: Session): Counts {
  const { ladder, given, faults } = resolved;
  const leadColumn = table.columns.find((c) => c.id === doc.lead);
  const names = namesOf(table);
  const leadText = (at: number): string => {
    const value = lead[at];
    return value === null || !leadColumn || isText(leadColumn)
      ? ''
      : showScalar(leadColumn, value, doc.formats[leadColumn.id]);
  };
  const n = ladder.rungs.length;
  return {
    token,
    all: { records: table.length, lead: leadText(0) },
    rungs: ladder.rungs.map((rung, k) => ({
      id: rung.id,
      on: rung.on,
      fault: faults
        .filter((fault) => isWithin(fault, `ladder.rungs[${k}]`))
        .map(({ message, remedy }) => `${message} ${remedy}`.trim())
        .join(' '),
      words: describeCondition(doc.ladder.rungs[k]?.condition ?? given.rungs[k].condition, names),
      records: rung.kept,
      removed: rung.removed,
      blank: rung.blank,
      unread: rung.unread,
      lead: leadText(k + 1),
    })),
    narrowed: { records: count(ladder.narrowed), lead: leadText(n + 1) },
    setAside: { records: count(ladder.setAside), lead: leadText(n + 2) },
    counted: { records: count(ladder.counted), lead: leadText(n + 3) },
    aside: setAsideWords(given.setAside, names),
    corrections: resolved.corrections.map((c) => ({
      record: c.record,
      column: c.column,
      words: correctionWords(c, namesOf(resolved.list)),
    })),
    columns: table.columns.map((c) => {
      const { id, name, type, unit } = c;
      return { id, name, type, unit, grain: isText(c) ? ('day' as const) : c.grain };
    }),
    faults: [...faults],
    warnings: [...resolved.warnings],
    unread: table.columns.reduce((sum, c) => sum + (isText(c) ? 0 : c.unread.size), 0),
  };
}
