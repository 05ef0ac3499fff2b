import type { View } from '../../core/bench/document';
import type { RowView } from '../../core/tally/answer/rowOrder';
import { gatherShape } from '../../engine/gatherShape';
import { gatherRows, MOST_DRAWN } from '../../engine/gatherRows';
import type { Answered, ArgsOf, Do, ReplyOf, Row, TableHead } from '../../engine/protocol';

/** A table as it is looked at: some of its columns, and the rows that are at hand. */
export interface RowsAtHand {
  readonly head: TableHead;
  readonly length: number;
  readonly from: number;
  readonly rows: readonly Row[];
  readonly whole: Row | null;
}

/** What the page shows of a tally that is no ledger: all of one stand, so that nothing is mixed. */
export interface TallyPage {
  readonly id: string;
  readonly token: number;
  readonly answered: Answered;
  readonly tables: ReadonlyMap<string, RowsAtHand>;
  /** The first rows of each: what charts are drawn from, whichever rows are looked at. */
  readonly first: ReadonlyMap<string, RowsAtHand>;
  readonly shape: ReplyOf<'shape'>;
}

/** A table's order for the eye; it is no part of the tally and is not kept. */
export type EyeSort = RowView['sort'];

/** Rows that come with a tally at once; longer tables fetch others as they are looked at. */
const FIRST_ROWS = 400;
/** Tables no longer than this are drawn whole; of longer ones so many rows are at hand at least. */
export const WHOLE_ROWS = 120;

type Ask = <K extends Do>(
  token: number,
  kind: K,
  args: Omit<ArgsOf<K>, 'token'>,
  lane?: string,
) => Promise<ReplyOf<K>>;

/** The figures of the open tally, and how its tables are looked at. */
export class TallyFigures {
  page = $state.raw<TallyPage | null>(null);
  /** Orders for the eye, by tally and table. */
  sorts = $state.raw<ReadonlyMap<string, EyeSort>>(new Map());
  /** The first column of figures that is looked at, by tally and table. */
  readonly #across = new Map<string, number>();

  constructor(
    readonly ask: Ask,
    readonly view: () => View,
    readonly fail: (error: unknown) => void,
  ) {}

  /** @param shown told once the figures are there, with why there are none */
  async compute(token: number, id: string, shown: (refused: string) => void): Promise<void> {
    const answered = await this.ask(token, 'answer', { tally: id });
    const tables = await this.#tables({ token, id, answered }, 'drawn ');
    const first = await this.#drawn({ token, id }, tables);
    // The figures do not wait for the drawing of all values: that of before stands until it comes.
    const before = this.page?.id === id ? this.page.shape : null;
    const drawn = gatherShape((from) => this.ask(token, 'shape', { tally: id, from }));
    this.page = { id, token, answered, tables, first, shape: before ?? (await drawn) };
    shown(answered.refused);
    if (!before) return;
    const shape = await drawn;
    if (this.page.token === token && this.page.id === id) this.page = { ...this.page, shape };
  }

  /** The first rows of every table. */
  async #tables(
    { token, id, answered }: Pick<TallyPage, 'token' | 'id' | 'answered'>,
    lane: string,
  ): Promise<ReadonlyMap<string, RowsAtHand>> {
    const tables = new Map<string, RowsAtHand>();
    for (const own of answered.tables) {
      const across = this.#across.get(`${id} ${own.name}`) ?? 0;
      const head =
        across === own.across.from || across >= own.across.of
          ? own
          : await this.ask(token, 'head', { tally: id, table: own.name, across });
      // A lane of its own: looking on at the older rows must not take its place.
      tables.set(own.name, await this.#rows(token, id, head, 0, WHOLE_ROWS, lane + own.name));
    }
    return tables;
  }

  /** The tables as their charts need them: some whole and in their own order. */
  async #drawn(
    { token, id }: Pick<TallyPage, 'token' | 'id'>,
    tables: ReadonlyMap<string, RowsAtHand>,
  ): Promise<ReadonlyMap<string, RowsAtHand>> {
    const drawn = new Map(tables);
    for (const [name, { head, rows, length }] of tables) {
      const sorted = this.sorts.get(`${id} ${name}`) !== undefined;
      if (!head.drawnWhole || (rows.length === length && !sorted)) continue;
      const ask = this.#rowsOf(token, id, head, undefined, `drawn ${name}`);
      drawn.set(name, { head, from: 0, ...(await gatherRows(ask, 0, MOST_DRAWN)) });
    }
    return drawn;
  }

  /** Rows from a place on, `least` of them at least. */
  async #rows(
    token: number,
    tally: string,
    head: TableHead,
    from: number,
    least: number,
    lane = `rows ${head.name}`,
  ): Promise<RowsAtHand> {
    const ask = this.#rowsOf(token, tally, head, this.sorts.get(`${tally} ${head.name}`), lane);
    return { head, from, ...(await gatherRows(ask, from, FIRST_ROWS, least)) };
  }

  /** How rows of a table are asked for. */
  #rowsOf(
    token: number,
    tally: string,
    head: TableHead,
    sort: EyeSort,
    lane: string,
  ): (from: number, count: number) => Promise<ReplyOf<'rows'>> {
    const { showDown, turned } = this.view();
    const view: RowView = { sort, down: showDown, turned };
    const at = { tally, table: head.name, across: head.across.from, view };
    return (from, count) => this.ask(token, 'rows', { ...at, from, count }, lane);
  }

  /** The rows again, as they are looked at now. */
  async again(): Promise<void> {
    const { page } = this;
    if (!page) return;
    try {
      const tables = await this.#tables(page, 'rows ');
      this.#put(page, tables, await this.#drawn(page, tables));
    } catch (error) {
      this.fail(error);
    }
  }

  /** Has the rows of a long table around those in view at hand. */
  async look(table: string, first: number, count: number): Promise<void> {
    const { page } = this;
    const have = page?.tables.get(table);
    if (!page || !have) return;
    const last = Math.min(have.length, first + count);
    if (first >= have.from && last <= have.from + have.rows.length) return;
    try {
      // As many above as below what is in view, of the rows that come at once.
      const spare = Math.max(0, have.rows.length - count);
      const from = Math.max(0, first - (spare >> 1));
      const rows = await this.#rows(page.token, page.id, have.head, from, last - from);
      this.#put(page, new Map(this.page?.tables).set(table, rows));
    } catch (error) {
      this.fail(error);
    }
  }

  /** Shows a wide table from another of its columns of figures on; its rows stay where they are. */
  async lookAcross(table: string, across: number): Promise<void> {
    const { page } = this;
    const have = page?.tables.get(table);
    if (!page || !have) return;
    const { token, id } = page;
    try {
      const head = await this.ask(token, 'head', { tally: id, table, across });
      const first = await this.#rows(token, id, head, 0, WHOLE_ROWS);
      const { from } = have;
      const rows = from > 0 ? await this.#rows(token, id, head, from, WHOLE_ROWS) : first;
      this.#across.set(`${id} ${table}`, head.across.from);
      const others = this.page ?? page;
      this.#put(
        page,
        new Map(others.tables).set(table, rows),
        new Map([...others.first, ...(await this.#drawn(page, new Map([[table, first]])))]),
      );
    } catch (error) {
      this.fail(error);
    }
  }

  /** Sorts a table for the eye; undefined: in its own order again. */
  sort(table: string, sort: EyeSort): void {
    const sorts = new Map(this.sorts);
    if (sort) sorts.set(table, sort);
    else sorts.delete(table);
    this.sorts = sorts;
    void this.again();
  }

  /** Takes rows in, unless newer figures stand there by now. */
  #put(
    { token, id }: TallyPage,
    tables: ReadonlyMap<string, RowsAtHand>,
    first = this.page?.first,
  ): void {
    if (first && this.page?.token === token && this.page.id === id)
      this.page = { ...this.page, tables, first };
  }
}
