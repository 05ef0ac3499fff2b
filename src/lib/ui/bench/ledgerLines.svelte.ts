import type { ArgsOf, Line } from '../../engine/protocol';

/** Lines fetched beyond those in view, on each side. */
const MARGIN = 14;

type Ask = (token: number, args: Omit<ArgsOf<'lines'>, 'token'>, lane?: string) => Promise<Line[]>;

/** The figures on the page: their token, the open ledger and how many lines it has. */
interface OnPage {
  readonly token: number;
  readonly tally: string;
  readonly total: number;
}

/** The lines of the open ledger around those in view. */
export class LedgerLines {
  from = $state.raw(0);
  lines = $state.raw<readonly Line[]>([]);
  #window = { from: 0, count: 60 };
  #seen = { first: 0, count: 0 };
  #looking = false;

  constructor(
    readonly ask: Ask,
    readonly onPage: () => OnPage,
    readonly fail: (error: unknown) => void,
  ) {}

  /** The line at a place; none where it is not at hand. */
  at(n: number): Line | undefined {
    return this.lines[n - this.from];
  }

  /** Fetches the lines in view of newer figures. @param total how many there are now */
  async draw(token: number, tally: string, total: number): Promise<void> {
    const from = Math.max(0, Math.min(this.#window.from, total - 1));
    const { count } = this.#window;
    // A lane of its own: scrolling meanwhile must not take its place.
    this.#take(from, await this.#lines({ token, tally, total }, from, count, 'drawn'));
  }

  /**
   * Has the lines around those in view at hand. One request is on its way at a time: while it is,
   * scrolling on only moves where the next one looks.
   */
  async look(first: number, count: number): Promise<void> {
    this.#window = { from: Math.max(0, first - MARGIN), count: count + 2 * MARGIN };
    this.#seen = { first, count };
    if (this.#looking || this.#atHand()) return;
    this.#looking = true;
    try {
      for (let asked = -1; !this.#atHand() && asked !== this.#window.from;) {
        const { from, count: wanted } = this.#window;
        asked = from;
        const { token, tally, total } = this.onPage();
        const lines = await this.#lines({ token, tally, total }, from, wanted);
        // Lines of older figures never stand beside newer ones: ask those instead.
        if (this.onPage().token !== token) {
          asked = -1;
          continue;
        }
        this.#take(from, lines);
      }
    } catch (error) {
      this.fail(error);
    } finally {
      this.#looking = false;
    }
  }

  /** Lines from a place on, in as many answers as their weight takes. */
  async #lines(
    { token, tally, total }: OnPage,
    from: number,
    count: number,
    lane?: string,
  ): Promise<Line[]> {
    const lines: Line[] = [];
    const wanted = Math.min(count, total - from);
    do {
      const at = { tally, from: from + lines.length, count: count - lines.length };
      const came = await this.ask(token, at, lane);
      if (came.length === 0) break;
      lines.push(...came);
    } while (lines.length < wanted);
    return lines;
  }

  #take(from: number, lines: readonly Line[]): void {
    this.from = from;
    this.lines = lines;
  }

  /** Whether the lines last looked at are there. */
  #atHand(): boolean {
    const { first, count } = this.#seen;
    const { total } = this.onPage();
    return (
      first >= total ||
      (first >= this.from && Math.min(total, first + count) <= this.from + this.lines.length)
    );
  }
}
