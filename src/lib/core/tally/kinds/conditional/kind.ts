import { noneOf } from '../../spec/whereCondition';
import { totalGrouping } from '../../../measure/grouping';
import { MEASURES } from '../../../measure/measure';
import { describeCondition } from '../../../selection/describe';
import type { Condition } from '../../../selection/condition';
import { inStretches, partOf, STRIDE, type Task } from '../../../task/task';
import {
  and,
  bitsetInSteps,
  count,
  emptyBitset,
  without,
  type Bitset,
} from '../../../table/bitset';
import { counted } from '../../../table/format';
import { namesOf, type Table } from '../../../table/table';
import { tableOf } from '../../answer/answer';
import {
  orderedFor,
  recordsInSteps,
  recordsOf,
  selectionOf,
  type TallyInput,
  wholeLabel,
} from '../../input/input';
import { checkCondition } from '../../spec/checkCondition';
import type { Faults } from '../../spec/fault';
import {
  figureFrom,
  labelColumn,
  measureColumns,
  shownColumn,
  textLabel,
} from '../../answer/figure';
import { checkKey, codesOf, refuseTooMany } from '../../groups/keys';
import { type TallyAnswer, type TallyKind } from '../../kind/kind';
import {
  computeInfluences,
  deviationsOf,
  influenceMarks,
  type Influence,
} from '../../trust/influence';
import {
  marked,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type Mark,
} from '../../answer/result';
import { recordsWithin } from '../../input/recordsWithin';
import { warn, type Warning } from '../../trust/warnings';
import { visitNeeded } from '../../spec/visit';
import { overlapTables } from './overlap';
import type { Row } from './row';
import { conditionalFact } from './fact';
import { conditionalSentence } from './sentence';
import type { ConditionalSpec } from './spec';
import { recordCount, recordsSelected } from '../../../table/recordCounts';

export const conditionalKind: TallyKind<ConditionalSpec> = {
  inParts: () => true,
  columnsForeseen: true,
  check(spec, faults: Faults, path) {
    if (spec.key && spec.rows.length)
      faults.add(`${path}.key`, 'The rows are both conditions and a key.', 'Take one of them.');
    if (!spec.key && spec.rows.length === 0 && !spec.everythingElse)
      faults.add(
        `${path}.rows`,
        'There are no rows.',
        'Name conditions, or a key whose groups are the rows.',
      );
    if (spec.key) checkKey(spec.key, faults, `${path}.key`);
    spec.rows.forEach((row, k) =>
      checkCondition(row.condition, faults, `${path}.rows[${k}].condition`),
    );
    spec.columns.forEach((column, k) => {
      faults.measure(`${path}.columns[${k}].measure`, column.measure, []);
      if (column.condition)
        checkCondition(column.condition, faults, `${path}.columns[${k}].condition`);
    });
  },
  visit(spec, visitor, path) {
    const conditionOf = (condition: Condition, at: string): Condition =>
      visitNeeded(condition, visitor.condition, at);
    return {
      ...spec,
      ...(spec.key && { key: visitNeeded(spec.key, visitor.key, `${path}.key`) }),
      rows: spec.rows.map((row, k) => ({
        ...row,
        condition: conditionOf(row.condition, `${path}.rows[${k}].condition`),
      })),
      columns: spec.columns.map((column, k) => ({
        ...column,
        measure: visitNeeded(column.measure, visitor.measure, `${path}.columns[${k}].measure`),
        ...(column.condition && {
          condition: conditionOf(column.condition, `${path}.columns[${k}].condition`),
        }),
      })),
    };
  },
  compute: computeConditional,
  sentence: conditionalSentence,
  fact: conditionalFact,
};

const EVERYTHING_ELSE = 'Everything else';

/** The names of conditions as keys of their rows: where one stands again, with its number. */
function keysApart(names: readonly string[]): string[] {
  const taken = new Set([EVERYTHING_ELSE]);
  return names.map((name) => {
    let key = name;
    for (let n = 2; taken.has(key); n++) key = `${name} (${n})`;
    taken.add(key);
    return key;
  });
}

function* computeConditional(input: TallyInput, spec: ConditionalSpec): Task<TallyAnswer> {
  const { table } = input;
  const selection = selectionOf(input, spec.scope);
  const within = (condition: Condition): Task<Bitset> =>
    recordsWithin(input, selection, [condition]);
  const named: Row[] = [];
  if (spec.key) named.push(...(yield* keyRows(input, spec, selection)));
  else {
    const keys = keysApart(spec.rows.map(({ name }) => name));
    for (const [k, { name, condition }] of spec.rows.entries()) {
      const selection = yield* within(condition);
      named.push({ name, key: keys[k], kind: 'group', selection, condition });
      yield undefined;
    }
  }
  const { none, several } = yield* coverage(table.length, selection, named);
  const rows: Row[] = [
    {
      name: wholeLabel(input, spec.scope, recordsSelected(table, selection)),
      kind: 'total',
      selection,
    },
    ...named,
    ...(spec.everythingElse
      ? [
          {
            name: EVERYTHING_ELSE,
            kind: 'group' as const,
            selection: none,
            except: named.flatMap((r) => r.condition ?? []),
          },
        ]
      : []),
  ];
  const columnSets: (Bitset | null)[] = [];
  for (const { condition } of spec.columns) {
    columnSets.push(condition ? yield* within(condition) : null);
    yield undefined;
  }
  const adds = count(several) === 0 && (count(none) === 0 || spec.everythingElse);
  const records = recordsOf(selection);
  const leafOf = new Int32Array(table.length);
  const names = namesOf(table);
  const shown = spec.columns.map((c) => shownColumn(c.measure, table));
  const figureColumns = (yield* measureColumns(
    spec.columns.map((c) => c.measure),
    table,
    records,
  )).map((column, c): FigureColumn => ({
    ...column,
    key: `c${c + 1}`,
    title:
      spec.columns[c].name ??
      column.title +
        (spec.columns[c].condition
          ? ` where ${describeCondition(spec.columns[c].condition, names)}`
          : ''),
    ...(spec.columns[c].condition && { where: spec.columns[c].condition }),
  }));
  const columns = [
    spec.key
      ? labelColumn('row', spec.key, (yield* codesOf(input, spec.key, selection)).codes, table)
      : textLabel('row', 'Where'),
    ...figureColumns,
  ];
  const out: FigureRow[] = [];
  for (const [k, row] of rows.entries()) {
    const cells: Figure[] = [row.name];
    const marks: Mark[] = [];
    const rests: [number, Influence | null][] = [];
    for (const [c, column] of spec.columns.entries()) {
      const set = columnSets[c];
      const met = set ? and(row.selection, set) : row.selection;
      const both = yield* recordsInSteps(met);
      const ordered = yield* orderedFor(input, met, [column.measure]);
      const leafed = { table, records: both, ordered, leafOf, leaves: 1 };
      const { figures, influences } = yield* partOf(
        computeInfluences(leafed, [totalGrouping(1)], [column.measure]),
        (k + c / spec.columns.length) / rows.length,
        (k + (c + 1) / spec.columns.length) / rows.length,
      );
      const [[values]] = figures;
      const n = recordCount(table, both);
      if (n > 0 && n < spec.few && MEASURES[column.measure.kind].figure !== 'count')
        marks.push({ column: c + 1, kind: 'few', words: counted(n, 'record') });
      rests.push([c + 1, influences.at(0, 0, 0)]);
      marks.push(...influenceMarks(table, columns[c + 1], ...rests[c]));
      cells.push(figureFrom(column.measure, shown[c], values[0]));
    }
    out.push({
      kind: row.kind,
      level: row.kind === 'total' ? 0 : 1,
      cells,
      ...(row.kind !== 'total' && {
        where: row.condition ?? noneOf(row.except ?? []) ?? undefined,
      }),
      ...(row.key !== undefined && { keys: [row.key] }),
      ...(row.kind !== 'total' && adds && { partOf: 0 }),
      ...marked(marks),
      ...deviationsOf(columns, rests),
    });
    yield (k + 1) / rows.length;
  }
  return {
    tables: [
      tableOf({
        name: 'main',
        caption: 'Conditional figures',
        labels: 1,
        columns,
        rows: out,
      }),
      // Of the groups of a key there is none: a record is in one group.
      ...(spec.key ? [] : overlapTables(table, named, { none, several })),
    ],
    warnings: [
      ...coverageWarnings(recordsSelected(table, none), recordsSelected(table, several), spec),
      ...(yield* columnWarnings(table, selection, setsOnce(spec, columnSets))),
    ],
  };
}

/** A row for each group of the key that has records, in label order. */
function* keyRows(input: TallyInput, spec: ConditionalSpec, selection: Bitset): Task<Row[]> {
  if (!spec.key) return [];
  const records = recordsOf(selection);
  const { codes } = yield* codesOf(input, spec.key, selection);
  const members = new Map<number, number[]>();
  yield* inStretches(
    records.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const code = codes.codes[records[k]];
        const list = members.get(code);
        if (list) list.push(records[k]);
        else members.set(code, [records[k]]);
      }
    },
    STRIDE,
  );
  refuseTooMany(members.size, 'rows', 1000);
  const rows: Row[] = [];
  for (const [code, list] of [...members].sort(([a], [b]) => codes.rank(a) - codes.rank(b)))
    rows.push({
      name: codes.label(code),
      key: codes.key(code),
      kind: 'group',
      selection: yield* bitsetInSteps(input.table.length, list),
      condition: codes.where(code),
    });
  return rows;
}

/** Records that meet none of the rows, and how many meet more than one. */
function* coverage(
  length: number,
  selection: Bitset,
  rows: readonly Pick<Row, 'selection'>[],
): Task<{ none: Bitset; several: Bitset }> {
  const any = emptyBitset(length);
  const several = emptyBitset(length);
  yield* inStretches(
    rows.length,
    (from, to) => {
      for (const { selection: own } of rows.slice(from, to))
        for (let w = 0; w < own.length; w++) {
          several[w] |= any[w] & own[w];
          any[w] |= own[w];
        }
    },
    Math.ceil(STRIDE / Math.max(1, any.length)),
  );
  return { none: without(selection, any), several };
}

/** The sets of columns with a condition; one where several columns share it. */
const setsOnce = (
  { columns }: Pick<ConditionalSpec, 'columns'>,
  sets: readonly (Bitset | null)[],
): Bitset[] => [
  ...new Map(
    sets.flatMap((set, c) => (set ? [[JSON.stringify(columns[c].condition), set] as const] : [])),
  ).values(),
];

/** Whether conditions of columns, where there are several, take each record once: their figures stand side by side. */
function* columnWarnings(
  table: Table,
  selection: Bitset,
  sets: readonly Bitset[],
): Task<Warning[]> {
  const conditions = sets.map((set) => ({ selection: and(selection, set) }));
  if (conditions.length < 2) return [];
  const found = yield* coverage(table.length, selection, conditions);
  const [none, several] = [
    recordsSelected(table, found.none),
    recordsSelected(table, found.several),
  ];
  return [
    ...(several > 0
      ? [
          warn(
            'columns-overlap',
            `${counted(several, 'record')} ${several === 1 ? 'meets' : 'meet'} the conditions of more than one column.`,
          ),
        ]
      : []),
    ...(none > 0
      ? [
          warn(
            'columns-miss',
            `${counted(none, 'record')} ${none === 1 ? 'meets' : 'meet'} the condition of no column.`,
          ),
        ]
      : []),
  ];
}

/** Always said: whether the rows cover the whole, each record once. */
function coverageWarnings(
  none: number,
  several: number,
  { everythingElse, key }: Pick<ConditionalSpec, 'everythingElse' | 'key'>,
): Warning[] {
  const out: Warning[] = [];
  if (none > 0 && !everythingElse)
    out.push(
      warn(
        'rows-miss',
        `${counted(none, 'record')} ${none === 1 ? 'meets' : 'meet'} none of the rows.`,
      ),
    );
  if (several > 0)
    out.push(
      warn(
        'rows-overlap',
        `${counted(several, 'record')} ${several === 1 ? 'meets' : 'meet'} more than one row and ${several === 1 ? 'counts' : 'count'} in each.`,
      ),
    );
  out.push(
    out.length === 0
      ? warn(
          'rows-add',
          `The rows add up to the whole: each record ${key ? 'is in one group' : 'meets exactly one'}.`,
        )
      : warn('rows-do-not-add', 'So the rows do not add up to the whole.'),
  );
  return out;
}
