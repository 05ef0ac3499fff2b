import { compute, type Computed } from '../core/ask/compute';
import type { Stand } from '../core/ask/stand';
import type { Bench, TrayItem } from '../core/bench/document';
import { isLedger } from '../core/bench/tray';
import { directTotal } from '../core/measure/compensated';
import { StepCache } from '../core/steps/cache';
import type { Steps } from '../core/steps/steps';
import type { Table } from '../core/table/table';
import { recordsOf } from '../core/tally/base';
import type { FigureBehind } from '../core/tally/behind';
import type { ScopeName } from '../core/tally/result';
import { EngineError } from './errors';
import { ledgerOf, type LedgerLayout } from './ledger/layout';
import type { ColumnFacts } from './replies';

/** One stand of a bench with what was asked of it so far. Kept for a few tokens, then dropped. */
export class Held {
  readonly #answers = new StepCache<Computed>(4);
  readonly #ledgers = new StepCache<LedgerLayout>(2);
  /** Figures opened last: their records are asked for stretch by stretch. */
  readonly behind = new StepCache<FigureBehind>(2);
  readonly facts = new StepCache<ColumnFacts>(8);

  constructor(
    readonly token: number,
    readonly doc: Bench,
    readonly stand: Stand,
    /** Sum of the lead column over all, each rung, narrowed, set aside, counted. */
    readonly lead: readonly (number | null)[],
    readonly listName: string,
  ) {}

  get table(): Table {
    return this.stand.base.table;
  }

  get counted(): Int32Array {
    return recordsOf(this.stand.base.counted);
  }

  /** @throws EngineError */
  item(id: string): TrayItem {
    const item = this.doc.tray.find((i) => i.id === id);
    if (!item) throw new EngineError('noTally', 'This tally is no longer in the tray.');
    return item;
  }

  /** A tally computed; over another scope only its whole, without groups where it has some. */
  *answer(id: string, scope?: ScopeName): Steps<Computed> {
    const item = this.item(id);
    const key = JSON.stringify([id, scope]);
    const known = this.#answers.get(key);
    if (known) return known;
    const whole =
      scope !== undefined && scope !== item.tally.scope
        ? { ...item.tally, scope, ...(item.tally.kind === 'ledger' && { groups: [] }) }
        : item.tally;
    const computed = yield* compute(this.stand, whole, 'tally');
    this.#answers.set(key, computed);
    return computed;
  }

  /** The ledger of the page. @throws EngineError */
  *ledger(id: string): Steps<LedgerLayout> {
    const item = this.item(id);
    if (!isLedger(item)) throw new EngineError('noTally', 'This tally is no ledger.');
    const known = this.#ledgers.get(id);
    if (known) return known;
    const ledger = yield* ledgerOf(this, item);
    this.#ledgers.set(id, ledger);
    return ledger;
  }
}

/** Sums by column and rungs, kept from stand to stand of one table. */
export class LeadSums {
  #table: Table | null = null;
  #sums = new StepCache<number>(64);

  once(table: Table, key: string, values: Float64Array, records: () => Int32Array): number {
    if (this.#table !== table) {
      this.#table = table;
      this.#sums = new StepCache(64);
    }
    return this.#sums.once(key, () => directTotal(values, records()).total);
  }
}
