import type { Condition } from '../../../selection/condition';
import type { Bitset } from '../../../table/bitset';
import type { Figure, FigureRow } from '../../answer/result';

/** A row of conditional figures before its figures are computed. */
export interface Row {
  readonly name: string;
  /** What the row is found by: the value of its group, or its name told apart from others. */
  readonly key?: Figure;
  readonly kind: FigureRow['kind'];
  readonly selection: Bitset;
  readonly condition?: Condition;
  /** Everything but the records that meet one of these. */
  readonly except?: readonly Condition[];
}
