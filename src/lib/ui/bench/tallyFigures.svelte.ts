import type { View } from '../../core/bench/document';
import type { RowView } from '../../core/tally/rowOrder';
import type { Answered, ArgsOf, Do, ReplyOf, Row } from '../../engine/protocol';

/** Rows of a table that are at hand. */
export interface RowsAtHand {
  readonly length: number;
  readonly from: number;
  readonly rows: readonly Row[];
}

/** What the page shows of a tally that is no ledger: all of one stand, so that nothing is mixed. */
export interface TallyPage {
  readonly id: string;
  readonly token: number;
  readonly answered: Answered;
  readonly tables: ReadonlyMap<string, RowsAtHand>;
  readonly shape: ReplyOf<'shape'>;
}

/** A table's order for the eye; it is no part of the tally and is not kept. */
export type EyeSort = RowView['sort'];

/** Rows that come with a tally at once; longer tables fetch others as they are looked at. */
const FIRST_ROWS = 400;

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

  constructor(
    readonly ask: Ask,
    readonly view: () => View,
    readonly fail: (error: unknown) => void,
  ) {}

  /** @param shown told once the figures are there, with why there are none */
  async compute(token: number, id: string, shown: (refused: string) => void): Promise<void> {
    const answered = await this.ask(token, 'answer', { tally: id });
    const tables = new Map<string, RowsAtHand>();
    // A lane of its own: looking on at the older rows must not take its place.
    for (const { name } of answered.tables)
      tables.set(name, await this.#rows(token, id, name, 0, `drawn ${name}`));
    // The figures do not wait for the drawing of all values: that of before stands until it comes.
    const before = this.page?.id === id ? this.page.shape : null;
    const drawn = this.ask(token, 'shape', { tally: id });
    this.page = { id, token, answered, tables, shape: before ?? (await drawn) };
    shown(answered.refused);
    if (!before) return;
    const shape = await drawn;
    if (this.page.token === token && this.page.id === id) this.page = { ...this.page, shape };
  }

  async #rows(
    token: number,
    tally: string,
    table: string,
    from: number,
    lane = `rows ${table}`,
  ): Promise<RowsAtHand> {
    const { showDown, turned } = this.view();
    const view: RowView = { sort: this.sorts.get(`${tally} ${table}`), down: showDown, turned };
    const { length, rows } = await this.ask(
      token,
      'rows',
      { tally, table, from, count: FIRST_ROWS, view },
      lane,
    );
    return { length, from, rows };
  }

  /** The rows again, as they are looked at now. */
  async again(): Promise<void> {
    const { page } = this;
    if (!page) return;
    try {
      const tables = new Map<string, RowsAtHand>();
      for (const { name } of page.answered.tables)
        tables.set(name, await this.#rows(page.token, page.id, name, 0));
      this.#put(page, tables);
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
      const rows = await this.#rows(page.token, page.id, table, from);
      this.#put(page, new Map(this.page?.tables).set(table, rows));
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
  #put({ token, id }: TallyPage, tables: ReadonlyMap<string, RowsAtHand>): void {
    if (this.page?.token === token && this.page.id === id) this.page = { ...this.page, tables };
  }
}
