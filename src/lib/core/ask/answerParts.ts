import { AskRefused } from '../errors';
import { absentColumn } from '../measure/partialColumn';
import { Condenser } from '../parts/condense';
import { rolesOf } from '../parts/roles';
import type { Recipe } from '../read/recipe';
import type { RungResult } from '../selection/ladder';
import { numbersIn } from '../selection/byNumber';
import { without } from '../table/bitset';
import type { Table } from '../table/table';
import { wholeInput } from '../tally/input/input';
import { finish, type Task } from '../task/task';
import { answerOn, faultsOf, refuse } from './answerAsk';
import type { Ask } from './ask';
import type { AskResult } from './result';
import { unjoinedWarning, type Unjoined } from './prepare';
import { resolve, type Resolved } from './resolve';
import { VERSION } from './version';

/** A list that comes in parts, and what an ask about it may speak of besides. */
export interface ListInParts {
  readonly name: string;
  readonly recipe?: Recipe | undefined;
  readonly others: ReadonlyMap<string, Table>;
}

/**
 * Why an ask needs its list as a whole, whatever its columns are; empty where parts may do. What its tallies
 * look at is known with the first part.
 */
export function needsWhole({ corrections, reshape, computed, ladder, also, lists }: Ask): string {
  const numbered =
    ladder.setAside.records.length > 0 ||
    ladder.setAside.kept.length > 0 ||
    ladder.rungs.some(({ condition }) => numbersIn(condition).length > 0);
  if (corrections.length > 0 || numbered) return 'records are named by their numbers';
  if (reshape.some((spec) => spec.do === 'unstack')) return 'records are put together as columns';
  if (computed.some((spec) => spec.window)) return 'a column looks at other records of its group';
  if (also.length > 0) return 'other lists are asked of besides';
  if (Object.values(lists).some((source) => 'tally' in source)) return 'a list is made of a tally';
  return '';
}

/**
 * Answers an ask about a list of which only a part is in memory at a time. Each part is corrected, prepared and
 * narrowed as a whole list is, then reduced to what the tallies need of it.
 * @example
 * const answer = new PartsAnswer({ name: 'Deliveries', others: new Map() }, ask);
 * for (const part of parts) finish(answer.add(part));
 * const result = answer.finish();
 */
export class PartsAnswer {
  #condenser: Condenser | null = null;
  /** The last part as it was resolved: what does not depend on its records holds for all. */
  #last: Resolved | null = null;
  #rungs: RungResult[] = [];
  #unjoined: Unjoined[] = [];

  constructor(
    readonly list: ListInParts,
    readonly ask: Ask,
  ) {}

  /**
   * Takes in a part.
   * @throws BadAsk where the ask does not fit the list, AskRefused where it needs the list as a whole
   */
  *add(table: Table): Task<void> {
    const on = yield* resolve({ ...this.list, table }, this.ask);
    this.#condenser ??= this.#begin(on);
    this.#last = on;
    const { rungs } = on.ladder;
    this.#rungs = rungs.map((rung, k) => added(this.#rungs[k], rung));
    this.#unjoined = on.unjoined.map((join, k) => together(this.#unjoined[k], join));
    yield* this.#condenser.add(on.input);
  }

  #begin(on: Resolved): Condenser {
    refuse(faultsOf(on, this.ask, ''));
    const needed = rolesOf(this.ask.tallies, on.input.table);
    if ('whole' in needed) throw new AskRefused('tallies', `${needed.whole}.`);
    return new Condenser(needed.roles);
  }

  /** @throws AskRefused where the data do not allow a tally, or there was no part */
  finish(): AskResult {
    const last = this.#last;
    if (!last || !this.#condenser) throw new AskRefused('', 'The list has no records.');
    const condensed = this.#condenser.finish();
    const { narrowed, counted } = condensed;
    const found = new Map(condensed.table.columns.map((column) => [column.id, column]));
    const columns = last.input.table.columns.map((c) => found.get(c.id) ?? absentColumn(c));
    const table = { ...condensed.table, columns };
    const whole = wholeInput(table, this.list.name);
    const input = { ...whole, narrowed, counted, ladder: last.given, others: last.input.others };
    const ladder = {
      all: whole.all,
      rungs: this.#rungs,
      narrowed,
      setAside: without(narrowed, counted),
      counted,
    };
    const unjoined = this.#unjoined.filter(({ unmatched }) => unmatched > 0);
    const warnings = [
      ...last.warnings.filter(({ code }) => code !== 'not-joined'),
      ...unjoined.map(unjoinedWarning),
    ];
    const on: Resolved = { ...last, input, ladder, warnings };
    const list = { ...this.list, table };
    const { result } = finish(answerOn(list, on, this.ask, this.ask, ''));
    return { version: VERSION, ...result, also: [] };
  }
}

const together = (before: Unjoined | undefined, part: Unjoined): Unjoined =>
  before
    ? {
        ...part,
        unmatched: before.unmatched + part.unmatched,
        records: before.records + part.records,
      }
    : part;

/** What a rung kept and removed in the parts so far, with one more. */
const added = (before: RungResult | undefined, part: RungResult): RungResult =>
  before
    ? {
        ...part,
        kept: before.kept + part.kept,
        removed: before.removed + part.removed,
        blank: before.blank + part.blank,
        unread: before.unread + part.unread,
      }
    : part;
