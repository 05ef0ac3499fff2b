import type { GroupTree } from '../../arrange/tree';
import { StepCache } from '../../task/cache';
import type { Bitset } from '../../table/bitset';
import type { GroupFigures } from '../groups/groupFigures';
import type { KeyGroups } from '../groups/keyGroups';
import type { Rows } from '../kinds/ledger/rows';

/**
 * What tallies over one table and one order keep of their steps. It goes with the stand that owns
 * it; each part is bounded, the longest unused dropped first.
 */
export class TallyMemo {
  readonly codes = new StepCache<KeyGroups>(6);
  readonly trees = new StepCache<GroupTree>(3);
  readonly orders = new StepCache<Int32Array>(2);
  readonly figures = new StepCache<GroupFigures>(8);
  readonly rows = new StepCache<Rows>(2);
  /** Figures of whole selections, for footings. */
  readonly wholes = new StepCache<{
    readonly figures: Float64Array;
    readonly deviations: readonly number[];
    readonly gaps: readonly string[];
  }>(12);
  readonly #numbers = new WeakMap<Bitset, number>();
  #next = 1;

  /** A number that names a selection, for keys. */
  numberOf(selection: Bitset): number {
    let number = this.#numbers.get(selection);
    if (number === undefined) this.#numbers.set(selection, (number = this.#next++));
    return number;
  }
}
