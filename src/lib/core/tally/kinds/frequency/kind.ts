import type { Bands, SettledBand } from '../../../arrange/bands';
import { buildTree } from '../../../arrange/tree';
import { columnFor } from '../../../expression/columnFor';
import { leafGrouping, totalGrouping } from '../../../measure/grouping';
import { MEASURES } from '../../../measure/measure';
import { countLeaves } from '../../../measure/compute';
import { mergedSort } from '../../../sorting/mergedSort';
import { inStretches, type Task } from '../../../task/task';
import { counted } from '../../../table/format';
import { madeRows, tableOf } from '../../answer/answer';
import { recordsOf, selectionOf, wholeLabel, type TallyInput, orderedFor } from '../../input/input';
import { figureFrom, labelColumn, measureColumns, shownColumn } from '../../answer/figure';
import { checkKey, checkOrder, codesOf, MOST_GROUPS, refuseTooMany } from '../../groups/keys';
import { type TallyAnswer, type TallyKind } from '../../kind/kind';
import {
  figureOf,
  marked,
  type FigureColumn,
  type FigureRow,
  type Mark,
} from '../../answer/result';
import { warn, type Warning } from '../../trust/warnings';
import { computeInfluences, deviationsOf, influenceMarks } from '../../trust/influence';
import { carriedFromLeaves } from '../../groups/carriedFrom';
import { groupComparator } from '../../groups/sortedGroups';
import { visitMeasures, visitNeeded, withOrderMoved } from '../../spec/visit';
import { frequencyFact } from './fact';
import { frequencySentence } from './sentence';
import type { FrequencySpec } from './spec';
import { recordCount } from '../../../table/recordCounts';

export const frequencyKind: TallyKind<FrequencySpec> = {
  inParts: () => true,
  columnsForeseen: true,
  check(spec, faults, path) {
    checkKey(spec.key, faults, `${path}.key`);
    checkOrder(spec.key.order, spec.measures.length, faults, `${path}.key.order`);
    spec.measures.forEach((m, k) => faults.measure(`${path}.measures[${k}]`, m));
  },
  visit(spec, visitor, path) {
    const { kept, places } = visitMeasures(spec.measures, visitor, `${path}.measures`);
    return {
      ...spec,
      key: withOrderMoved(visitNeeded(spec.key, visitor.key, `${path}.key`), places),
      measures: kept,
    };
  },
  compute: computeFrequency,
  sentence: frequencySentence,
  fact: frequencyFact,
  shape: ({ key }) =>
    key.bands ? { of: key.column, as: 'bins', reach: givenEdges(key.bands) } : null,
  drawnWhole: ({ key }) => (key.bands ? ['main'] : []),
};

/** Edges that were given; those that follow from the values are not known before. */
const givenEdges = (bands: Bands): number[] =>
  bands.by === 'edges'
    ? bands.edges
    : bands.by === 'table'
      ? bands.bands.flatMap(({ from, to }) => [from, to]).filter((edge) => edge !== null)
      : [];

function* computeFrequency(input: TallyInput, spec: FrequencySpec): Task<TallyAnswer> {
  const { table } = input;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const { codes, bands, warnings } = yield* codesOf(input, spec.key, selection);
  refuseTooMany(codes.size, 'values', MOST_GROUPS);
  yield undefined;
  const tree = yield* buildTree(table.length, [codes]);
  const [level] = tree.levels;
  const ordered = yield* orderedFor(input, selection, spec.measures);
  const leafed = { table, records, ordered, leafOf: tree.leafOf, leaves: tree.leaves };
  const counts = yield* countLeaves(leafed);
  const groupings = [leafGrouping(tree.leaves), totalGrouping(tree.leaves)];
  const {
    figures: [figures, totals],
    influences,
  } = yield* computeInfluences(leafed, groupings, spec.measures);
  const noBand = bands ? bands.length : -1;
  const isOutside = (leaf: number): boolean => level.code[leaf] < 0 || level.code[leaf] === noBand;
  const compare = groupComparator(tree, 0, spec.key.order, { records: counts, measures: figures });
  const there: number[] = [];
  let blank = 0;
  yield* inStretches(counts.length, (from, to) => {
    for (let leaf = from; leaf < to; leaf++) {
      if (level.code[leaf] < 0) blank += counts[leaf];
      if (counts[leaf] > 0 || (bands !== null && !isOutside(leaf))) there.push(leaf);
    }
  });
  const leaves = yield* mergedSort(
    there,
    (a, b) => Number(isOutside(a)) - Number(isOutside(b)) || compare(a, b),
  );
  const all = recordCount(table, records);
  const valued = all - blank;
  const shown = spec.measures.map((m) => shownColumn(m, table));
  const cells = (k: (place: number) => number): FigureRow['cells'] =>
    spec.measures.map((m, place) => figureFrom(m, shown[place], k(place)));
  const share = (n: number): number | null => figureOf(valued === 0 ? NaN : n / valued);
  const columns: FigureColumn[] = [
    labelColumn('value', spec.key, codes, table),
    ...(bands
      ? (['from', 'to'] as const).map((key): FigureColumn => ({
          key,
          title: key === 'from' ? 'From' : 'To',
          unit: columnFor(table, spec.key.column).unit,
          type: 'number',
        }))
      : []),
    {
      key: 'count',
      title: 'Count',
      unit: '',
      type: 'count',
      measure: { kind: 'records' },
      adds: { bound: 0 },
    },
    {
      key: 'share',
      title: 'Share',
      unit: '',
      type: 'share',
      words: 'Count ÷ the records that have a value.',
    },
    {
      key: 'cumulative',
      title: 'Cumulative count',
      unit: '',
      type: 'count',
      reach: 'above',
      words: 'The counts from the first row to this one added up.',
    },
    {
      key: 'cumulativeShare',
      title: 'Cumulative share',
      unit: '',
      type: 'share',
      reach: 'above',
      words: 'Cumulative count ÷ the records that have a value.',
    },
    ...(yield* measureColumns(spec.measures, table, records)),
  ];
  const firstMeasure = columns.length - spec.measures.length;
  /** Marks of the figures of a leaf, or of the whole. */
  const marksOf = (n: number, grouping: number, group: number): Mark[] =>
    spec.measures.flatMap((m, k): Mark[] => [
      ...(n > 0 && n < spec.few && MEASURES[m.kind].figure !== 'count'
        ? [{ column: firstMeasure + k, kind: 'few' as const, words: counted(n, 'record') }]
        : []),
      ...influenceMarks(
        table,
        columns[firstMeasure + k],
        firstMeasure + k,
        influences.at(grouping, k, group),
      ),
    ]);
  const deviations = (grouping: number, group: number): Pick<FigureRow, 'deviations'> =>
    deviationsOf(
      columns,
      spec.measures.map((_, k) => [firstMeasure + k, influences.at(grouping, k, group)]),
    );
  let cumulative = 0;
  const total: FigureRow = {
    kind: 'total',
    level: 0,
    keys: [],
    cells: [
      wholeLabel(input, spec.scope, all),
      ...edgesOf(bands, -1),
      all,
      // The shares are of the records that have a value: of all of them where none lacks it.
      blank > 0 ? null : share(valued),
      null,
      null,
      ...cells((k) => totals[k][0]),
    ],
    ...marked(marksOf(all, 1, 0)),
    ...deviations(1, 0),
  };
  const rowOf = (leaf: number): FigureRow => {
    const code = level.code[leaf];
    const outside = isOutside(leaf);
    const n = counts[leaf];
    if (!outside) cumulative += n;
    return {
      kind: outside ? 'outside' : 'group',
      level: 1,
      keys: [codes.key(code)],
      cells: [
        codes.label(code),
        ...edgesOf(bands, code),
        n,
        code < 0 ? null : share(n),
        outside ? null : cumulative,
        outside ? null : share(cumulative),
        ...cells((k) => figures[k][leaf]),
      ],
      where: codes.where(code),
      partOf: 0,
      ...marked(marksOf(n, 0, leaf)),
      ...deviations(0, leaf),
    };
  };
  const rows = yield* madeRows(leaves, rowOf, [total]);
  let groups = 0;
  yield* inStretches(leaves.length, (from, to) => {
    for (let k = from; k < to; k++) if (!isOutside(leaves[k])) groups++;
  });
  return {
    tables: [
      {
        ...tableOf({ name: 'main', caption: 'Frequency', labels: 1, columns, rows }),
        groups,
        // The whole stands in the first row; what is outside has no cumulative figure.
        *carried(n) {
          if (n === 0 || n > groups) return null;
          return yield* carriedFromLeaves(tree, leaves.slice(0, n), (leaf) =>
            codes.where(level.code[leaf]),
          );
        },
      },
    ],
    warnings: [...warnings, ...noteBands(spec, bands, leaves, counts, noBand, level.code)],
  };
}

/** The edges of a band as cells; none where the list is not cut into bands, null for open sides. */
function edgesOf(bands: readonly SettledBand[] | null, code: number): (number | null)[] {
  if (!bands) return [];
  const band = bands[code];
  return band ? [figureOf(band.from), figureOf(band.to)] : [null, null];
}

function noteBands(
  spec: FrequencySpec,
  bands: readonly SettledBand[] | null,
  leaves: readonly number[],
  counts: Float64Array,
  noBand: number,
  code: Int32Array,
): Warning[] {
  if (!bands) return [];
  const out: Warning[] = [];
  const outside = leaves
    .filter((leaf) => code[leaf] === noBand)
    .reduce((n, leaf) => n + counts[leaf], 0);
  if (outside > 0)
    out.push(
      warn(
        'in-no-band',
        `${counted(outside, 'value')} ${outside === 1 ? 'is' : 'are'} in no band.`,
      ),
    );
  if (spec.key.bands?.by === 'equalCount') {
    const inBands = leaves
      .filter((leaf) => code[leaf] >= 0 && code[leaf] !== noBand)
      .map((leaf) => counts[leaf]);
    if (bands.length < spec.key.bands.count || Math.max(...inBands) - Math.min(...inBands) > 1)
      out.push(
        warn(
          'unequal-counts',
          `Equal values are never split, so the ${counted(bands.length, 'band')} hold from ${counted(Math.min(...inBands), 'record')} to ${counted(Math.max(...inBands), 'record')}.`,
        ),
      );
  }
  return out;
}
