import type { GroupKey } from '../../arrange/groupKey';
import { groupKeys, groupPath } from '../../arrange/tree';
import type { Measure } from '../../measure/measure';
import type { Condition } from '../../selection/condition';
import type { Bitset } from '../../table/bitset';
import { inStretches, type Task } from '../../task/task';
import type { Figure } from '../answer/result';
import { orderedFor, recordsOf, type TallyInput } from '../input/input';
import type { Influence } from '../trust/influence';
import type { Warning } from '../trust/warnings';
import { computeGroups } from './groupFigures';
import { groupWhere, treeOf } from './keys';
import { recordCount } from '../../table/recordCounts';

/** A figure of one side, with the values it stands on. */
export interface SideFigure {
  readonly figure: number;
  readonly values: number;
  /** Records of the group. */
  readonly records: number;
  readonly rests: Influence | null;
}

/** A group by its keys. */
export interface SideGroup {
  readonly path: string[];
  readonly keys: Figure[];
  readonly where: Condition;
  readonly side: SideFigure;
}

/** A measure by groups over one of two selections that are set against each other. */
export interface SideFigures {
  readonly total: SideFigure;
  /** By the JSON of their keys, as the two sides may number them differently; those with a record. */
  readonly groups: ReadonlyMap<string, SideGroup>;
  /** Groups of the list without a record in the selection, by the same. */
  readonly without: ReadonlySet<string>;
  readonly warnings: readonly Warning[];
}

/** Groups made between two pauses: each is an object of its own. */
const GROUPS = 2048;

/**
 * What a measure comes to by groups over a selection.
 * @throws BadBands, UnknownColumn, ExpressionError, TallyRefused where there are too many groups
 */
export function* sideFigures(
  { input, selection }: { readonly input: TallyInput; readonly selection: Bitset },
  { by, measure }: { readonly by: readonly GroupKey[]; readonly measure: Measure },
): Task<SideFigures> {
  const { tree, warnings } = yield* treeOf(input, by, selection);
  const values: Measure =
    measure.column === undefined ? { kind: 'records' } : { kind: 'values', column: measure.column };
  const measures = [measure, values];
  const records = recordsOf(selection);
  const figures = yield* computeGroups(
    {
      table: input.table,
      tree,
      records,
      ordered: yield* orderedFor(input, selection, measures),
    },
    measures,
  );
  const deepest = tree.levels.length - 1;
  const counts = figures.records[deepest];
  const groups = new Map<string, SideGroup>();
  const without = new Set<string>();
  yield* inStretches(
    counts.length,
    (from, to) => {
      for (let g = from; g < to; g++) {
        const keys = groupKeys(tree, deepest, g);
        if (counts[g] === 0) without.add(JSON.stringify(keys));
        else
          groups.set(JSON.stringify(keys), {
            path: groupPath(tree, deepest, g),
            keys,
            where: groupWhere(tree, deepest, g),
            side: {
              figure: figures.levels[deepest][0][g],
              values: figures.levels[deepest][1][g],
              records: counts[g],
              rests: figures.influences.at(deepest + 1, 0, g),
            },
          });
      }
    },
    GROUPS,
  );
  return {
    total: {
      figure: figures.total[0],
      values: figures.total[1],
      records: recordCount(input.table, records),
      rests: figures.influences.at(0, 0, 0),
    },
    groups,
    without,
    warnings,
  };
}
