import { EngineError } from '../core/errors';
import { compute } from '../core/ask/compute';
import type { Evaluated } from '../core/tally/kind/evaluate';
import type { AskedList, Resolved } from '../core/ask/resolve';
import type { Bench, TrayItem } from '../core/bench/document';
import { isLedger } from '../core/bench/tray';
import { directTotal } from '../core/measure/compensated';
import type { Recipe } from '../core/read/recipe';
import { StepCache } from '../core/task/cache';
import type { Task } from '../core/task/task';
import type { KeyMatch } from '../core/prepare/join';
import type { Bitset } from '../core/table/bitset';
import type { Table } from '../core/table/table';
import { recordsOf, type TallyInput } from '../core/tally/input/input';
import type { Answer } from '../core/tally/answer/answer';
import { checkFooting } from '../core/tally/trust/checkFooting';
import type { Footing } from '../core/tally/trust/footing';
import type { FigureBehind } from '../core/tally/behind/behind';
import type { ScopeName } from '../core/tally/answer/result';
import type { Tally } from '../core/tally/spec/specs';
import { ledgerOf, type LedgerLayout } from './ledger/layout';
import type { ColumnFacts } from './replies/column';
import type { ResolvedBench } from './resolvedBench';

const footings = new WeakMap<Answer, Footing>();

/** A list that is open, with how it was read. */
export type OpenList = AskedList & { readonly recipe: Recipe };

/** A tally over another scope: only its whole, without groups where it has some. */
export const overScope = (tally: Tally, scope: ScopeName | undefined): Tally =>
  scope !== undefined && scope !== tally.scope
    ? { ...tally, scope, ...(tally.kind === 'ledger' && { groups: [] }) }
    : tally;

/** A bench that was resolved, with what was asked of it so far. Kept for a few tokens, then dropped. */
export class Session implements ResolvedBench {
  readonly #ledgers = new StepCache<LedgerLayout>(2);
  /** Figures opened last: their records are asked for stretch by stretch. */
  readonly behind = new StepCache<FigureBehind>(2);
  readonly facts = new StepCache<ColumnFacts>(8);
  /** Rows in the order they are looked at, by table and view. */
  readonly orders = new StepCache<Int32Array>(6);
  /** How keys meet those of other lists, for joins in the making. */
  readonly matches = new StepCache<KeyMatch>(2);
  readonly wholes = new StepCache<Bitset>(6);

  constructor(
    readonly token: number,
    readonly doc: Bench,
    readonly resolved: Resolved,
    /** Sum of the lead column over all, each rung, narrowed, set aside, counted. */
    readonly lead: readonly (number | null)[],
    /** The list as it was read. */
    readonly list: OpenList,
    /** Tallies computed over the same records, those of earlier sessions too. */
    readonly answers: StepCache<Evaluated>,
  ) {}

  get listName(): string {
    return this.list.name;
  }

  get table(): Table {
    return this.resolved.input.table;
  }

  get counted(): Int32Array {
    return recordsOf(this.resolved.input.counted);
  }

  /** @throws EngineError */
  item(id: string): TrayItem {
    const item = this.doc.tray.find((i) => i.id === id);
    if (!item) throw new EngineError('noTally', 'This tally is no longer in the tray.');
    return item;
  }

  /** A tally of the tray computed; over another scope only its whole, without groups where it has some. */
  *answer(id: string, scope?: ScopeName): Task<Evaluated> {
    return yield* this.computed(overScope(this.item(id).tally, scope));
  }

  /** Any tally computed in this session, kept for a while. */
  *computed(tally: Tally): Task<Evaluated> {
    const key = JSON.stringify(tally);
    const known = this.answers.get(key);
    if (known) return known;
    const computed = yield* compute(this.resolved, tally, 'tally');
    this.answers.set(key, computed);
    return computed;
  }

  /** Whether a tally foots; checked once an answer. Null where it has no figures. */
  *footing(id: string): Task<Footing | null> {
    const { answer, input } = yield* this.answer(id);
    if (!answer) return null;
    const known = footings.get(answer);
    if (known) return known;
    const footing = yield* checkFooting(input, answer);
    footings.set(answer, footing);
    return footing;
  }

  /** The ledger of the page. @throws EngineError */
  *ledger(id: string): Task<LedgerLayout> {
    const item = this.item(id);
    if (!isLedger(item)) throw new EngineError('noTally', 'This tally is no ledger.');
    const known = this.#ledgers.get(id);
    if (known) return known;
    const ledger = yield* ledgerOf(this, item);
    this.#ledgers.set(id, ledger);
    return ledger;
  }
}

/** Sums by column and rungs, kept from session to session of one table. */
export class LeadSums {
  #table: Table | null = null;
  #sums = new StepCache<number>(64);

  *once(table: Table, key: string, values: Float64Array, records: Int32Array): Task<number> {
    if (this.#table !== table) {
      this.#table = table;
      this.#sums = new StepCache(64);
    }
    const known = this.#sums.get(key);
    if (known !== undefined) return known;
    const { total } = yield* directTotal(values, records);
    this.#sums.set(key, total);
    return total;
  }
}

/** Answers by the records and the order they were computed from; those of the last two are kept. */
export class AnswerCache {
  readonly #kept: { input: TallyInput; answers: StepCache<Evaluated> }[] = [];

  /** Whatever was computed over the very same records, in the same order, beside the same lists. */
  of(input: TallyInput): StepCache<Evaluated> {
    const known = this.#kept.find(
      ({ input: b }) =>
        b.counted === input.counted &&
        b.narrowed === input.narrowed &&
        b.memo === input.memo &&
        b.others === input.others,
    );
    if (known) return known.answers;
    const answers = new StepCache<Evaluated>(24);
    this.#kept.push({ input, answers });
    if (this.#kept.length > 2) this.#kept.shift();
    return answers;
  }
}
