import type { Condition } from '../../scope/condition';
import type { Bitset } from '../../table/bitset';
import type { Figure, FigureRow } from '../result';

/** A row of conditional figures before its figures are computed. */
export interface Row {
  readonly name: string;
  /** The value behind the name, where the rows are groups. */
  readonly key?: Figure;
  readonly kind: FigureRow['kind'];
  readonly selection: Bitset;
  readonly condition?: Condition;
  /** Everything but the records that meet one of these. */
  readonly except?: readonly Condition[];
}
