import { warn } from '../../trust/warnings';
import { TallyRefused } from '../../../errors';
import { finish, partOf, type Task } from '../../../task/task';
import { isText, type Column } from '../../../table/column';
import { counted } from '../../../table/format';
import { namesOf } from '../../../table/table';
import type { AnswerTable } from '../../answer/answer';
import { selectionOf, wholeInput, type TallyInput } from '../../input/input';
import { bind, type BoundTally } from '../../kind/binding';
import { RECORDS_COLUMN } from '../../answer/figure';
import { Faults } from '../../spec/fault';
import { type Names, type TallyAnswer, type TallyKind } from '../../kind/kind';
import { figureText } from '../../answer/figureText';
import type { FigureColumn, Mark, ScopeName } from '../../answer/result';
import { resultTable } from '../../answer/resultTable';
import { simpleKind } from '../../kind/simpleKinds';
import { nestedFact } from './fact';
import { nestedSentence } from './sentence';
import { behindResults, type Results } from './behindResults';
import type { InnerTally, NestedSpec } from './spec';

const isForeseen = (tally: InnerTally): boolean =>
  tally.kind === 'nested'
    ? isForeseen(tally.inner) && simpleKind(tally.outer).columnsForeseen
    : simpleKind(tally).columnsForeseen;

/** An inner tally with its kind: of the records, or of groups again. */
const innerKind = (tally: InnerTally): BoundTally<InnerTally> =>
  tally.kind === 'nested'
    ? bind<{ nested: NestedSpec }, 'nested'>({ nested: nestedKind }, 'nested', tally)
    : simpleKind(tally);

export const nestedKind: TallyKind<NestedSpec> = {
  check(spec, faults, path) {
    const before = faults.found.length;
    innerKind(spec.inner).check(faults, `${path}.inner`);
    if (faults.found.length > before || !isForeseen(spec.inner)) return;
    const columns = foreseen(faults.columns, spec);
    if (!columns) return;
    const outer = new Faults(columns);
    simpleKind(spec.outer).check(outer, `${path}.outer`);
    faults.found.push(...outer.found);
  },
  visit: (spec, visitor, path) => ({
    ...spec,
    inner: innerKind(spec.inner).visit(visitor, `${path}.inner`),
    outer: simpleKind(spec.outer).visit(visitor.ofGroups ?? {}, `${path}.outer`),
  }),
  compute: computeNested,
  sentence: nestedSentence,
  fact: nestedFact,
  innerColumns: foreseen,
};

/** The columns the inner result will have, from a list without records. */
function foreseen(columns: readonly Column[], spec: NestedSpec): readonly Column[] | null {
  const empty = columns.map((c): Column =>
    isText(c)
      ? { ...c, codes: new Int32Array(0), dictionary: [] }
      : { ...c, values: new Float64Array(0), unread: new Map() },
  );
  try {
    const input = wholeInput({ length: 0, columns: empty });
    const { tables } = finish(innerKind(spec.inner).compute(input));
    const table = tables.find((t) => t.name === spec.table);
    return table ? finish(resultTable(table)).list.columns : null;
  } catch {
    return null;
  }
}

const innerWords = (spec: NestedSpec, names: Names): string =>
  innerKind(spec.inner).plain(names, 'the records').replace(/\.$/, '');

/** The records that the innermost tally counts. */
const scopeOf = (tally: InnerTally): ScopeName =>
  tally.kind === 'nested' ? scopeOf(tally.inner) : tally.scope;

function* computeNested(input: TallyInput, spec: NestedSpec): Task<TallyAnswer> {
  const inner = yield* partOf(innerKind(spec.inner).compute(input), 0, 0.7);
  const table = inner.tables.find((t) => t.name === spec.table);
  if (!table)
    throw new TallyRefused(
      `The inner tally has no table “${spec.table}”; it has ${inner.tables.map((t) => `“${t.name}”`).join(', ')}.`,
    );
  const { list, rows } = yield* resultTable(table);
  const outerBase: TallyInput = { ...wholeInput(list, 'the group results'), others: input.others };
  const faults = new Faults(list.columns);
  simpleKind(spec.outer).check(faults, 'outer');
  const [fault] = faults.found;
  if (fault) throw new TallyRefused(`${fault.path}: ${fault.message} ${fault.remedy}`);
  const outer = yield* partOf(simpleKind(spec.outer).compute(outerBase), 0.7, 1);
  const selection = selectionOf(input, scopeOf(spec.inner));
  const results: Results = { input, selection, table, rows, list: outerBase };
  const tables = outer.tables.map((t): AnswerTable => ({
    ...t,
    opens: true,
    columns: t.columns.map((c) => ownWords(c)),
    row(n) {
      const { marks, where: _, instead: __, deviations: ___, ...row } = t.row(n);
      return {
        ...row,
        ...(marks && { marks: marks.map((mark) => ofResults(mark, t.columns)) }),
      };
    },
    ...behindResults(results, t),
  }));
  const names = namesOf(input.table);
  return {
    tables,
    warnings: [
      warn(
        'of-group-results',
        `Reckoned from ${counted(rows.length, 'group result')} (${innerWords(spec, names)}), not from the records: a mean of group results is not the mean of the records.`,
      ),
      ...inner.warnings,
      ...outer.warnings,
    ],
  };
}

/** A figure that one group result carries does not rest on a record of that number. */
function ofResults(mark: Mark, columns: readonly FigureColumn[]): Mark {
  if (mark.kind !== 'rests') return mark;
  const { record: _, ...rest } = mark;
  const column = columns[mark.column ?? 0];
  return {
    ...rest,
    words: `Rests on one of the group results: ${figureText(column, mark.without ?? null)} without it.`,
  };
}

/** Measures of the outer tally speak of columns that the list itself does not have. */
function ownWords(column: FigureColumn): FigureColumn {
  const { measure, where, ...rest } = column;
  if (!measure && !where) return column;
  if (column.key === RECORDS_COLUMN.key)
    return { ...rest, title: 'Results', words: 'How many of the group results.' };
  return { ...rest, words: column.words ?? `${column.title}, over the group results.` };
}
