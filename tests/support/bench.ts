import type { Bench } from '$lib/core/bench/document';
import type { Recipe } from '$lib/core/read/recipe';
import type { Table } from '$lib/core/table/table';
import type { LedgerSpec } from '$lib/core/tally/kinds/ledger/spec';
import type { FigurePlace, ScopeName } from '$lib/core/tally/answer/result';
import type { Engine } from '$lib/engine/engine';
import { openEngine } from '$lib/engine/openEngine';
import type { ArgsOf, Counts, Do, LedgerPage, Line, ReplyOf } from '$lib/engine/protocol';
import { Replies } from '$lib/engine/replies';

/** The spec of a bench's first tally, a ledger. */
export function spec(doc: Bench): LedgerSpec {
  const { tally } = doc.tray[0];
  if (tally.kind !== 'ledger') throw new Error('the first tally is no ledger');
  return tally;
}

export type Overview = Counts &
  LedgerPage & { ledgerFaults: LedgerPage['faults']; footing: ReplyOf<'footing'> };

/** A list with the engine over it, and the ledger of the bench shown last. */
export class OpenBench {
  readonly engine: Engine;
  #token = 0;
  #tally = 'ledger';

  constructor(
    table: Table,
    recipe: Recipe,
    name: string,
    others: ReadonlyMap<string, Table> = new Map(),
  ) {
    this.engine = openEngine({ name, table, recipe, others });
  }

  /** What the page shows of a bench; every reply is read by its schema. */
  show(doc: Bench): Overview {
    const counts = Replies.resolve.parse(this.engine.now('resolve', { doc }));
    this.#token = counts.token;
    this.#tally = doc.tray[0].id;
    const ledger = Replies.ledger.parse(this.ask('ledger', {}));
    return {
      ...ledger,
      ...counts,
      ledgerFaults: ledger.faults,
      footing: Replies.footing.parse(this.ask('footing', {})),
    };
  }

  lines(from: number, count: number): Line[] {
    return Replies.lines.parse(this.ask('lines', { from, count }));
  }

  /** Asks of the bench shown last, and of its first tally unless another is named. */
  ask<K extends Do>(kind: K, args: object): ReplyOf<K> {
    return this.engine.now(kind, {
      token: this.#token,
      tally: this.#tally,
      ...args,
    } as unknown as ArgsOf<K>);
  }

  place(row: FigurePlace['row'], column: string, scope?: ScopeName) {
    return { tally: this.#tally, table: 'main', row, column, ...(scope && { scope }) };
  }
}
