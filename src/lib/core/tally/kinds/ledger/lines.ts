import { groupKeys, type GroupTree } from '../../../arrange/tree';
import { pausing, type Task } from '../../../task/task';
import type { Figure } from '../../answer/result';
import type { ShownGroups } from '../../groups/sortedGroups';
import type { Rows } from './rows';

/** One line of the ledger as it stands on the page. */
export type LedgerLine =
  | { kind: 'group'; level: number; group: number; open: boolean; carriesTotals: boolean }
  | { kind: 'total'; level: number; group: number }
  | { kind: 'record'; record: number; row: number; level: number };

/** What is open: down to which level, and the groups that differ from it. */
export interface Unfolding {
  /** 0: the grand total only; 1: the first level's groups; levels + 1: the records. */
  readonly showDown: number;
  /** Keys (see groupKeyText) of groups folded or unfolded one by one. */
  readonly turned: ReadonlySet<string>;
  readonly totals: 'above' | 'below';
}

/** Names a group by its keys, the same at every reading. */
export const groupKeyText = (keys: readonly Figure[]): string => JSON.stringify(keys);

/** Groups between two pauses. */
const GROUPS = 4096;

const GROUP = 0;
const TOTAL = 1;
const RECORDS = 2;

/** Lines by number, without holding one object for each. */
export class NumberedLines {
  readonly #starts: number[] = [];
  readonly #kinds: number[] = [];
  readonly #levels: number[] = [];
  readonly #groups: number[] = [];
  readonly #opens: boolean[] = [];
  #length = 0;

  private constructor(
    readonly tree: GroupTree,
    readonly rows: Rows,
    readonly shown: ShownGroups,
    readonly unfolding: Unfolding,
  ) {}

  static *of(
    tree: GroupTree,
    rows: Rows,
    shown: ShownGroups,
    unfolding: Unfolding,
  ): Task<NumberedLines> {
    const lines = new NumberedLines(tree, rows, shown, unfolding);
    if (unfolding.showDown === 0) return lines;
    if (tree.levels.length === 0) lines.#push(RECORDS, 0, 0, rows.records.length, true);
    else yield* lines.#children(0, 0, pausing(GROUPS));
    return lines;
  }

  get length(): number {
    return this.#length;
  }

  /** Whether a group is open: by the level shown, unless it was turned by itself. */
  isOpen(level: number, group: number): boolean {
    const byLevel = level + 1 < this.unfolding.showDown;
    if (this.unfolding.turned.size === 0) return byLevel;
    return this.unfolding.turned.has(groupKeyText(groupKeys(this.tree, level, group))) !== byLevel;
  }

  *#children(level: number, parent: number, due: (done: number) => boolean): Task<void> {
    const order = this.shown.order[level];
    const from = this.shown.start[level][parent];
    const to = this.shown.start[level][parent + 1];
    const deepest = level === this.tree.levels.length - 1;
    for (let k = from; k < to; k++) {
      const group = order[k];
      const open = this.isOpen(level, group);
      this.#push(GROUP, level, group, 1, open);
      if (due(this.#starts.length)) yield undefined;
      if (!open) continue;
      if (deepest)
        this.#push(
          RECORDS,
          level,
          group,
          this.rows.end[level][group] - this.rows.first[level][group],
          true,
        );
      else yield* this.#children(level + 1, group, due);
      if (this.unfolding.totals === 'below') this.#push(TOTAL, level, group, 1, true);
    }
  }

  #push(kind: number, level: number, group: number, lines: number, open: boolean): void {
    if (lines === 0) return;
    this.#starts.push(this.#length);
    this.#kinds.push(kind);
    this.#levels.push(level);
    this.#groups.push(group);
    this.#opens.push(open);
    this.#length += lines;
  }

  /** Whether any line is a record. */
  get showsRecords(): boolean {
    return this.#kinds.includes(RECORDS);
  }

  /** The line at a place 0..length-1. */
  at(line: number): LedgerLine {
    let low = 0;
    let high = this.#starts.length - 1;
    while (low < high) {
      const mid = (low + high + 1) >>> 1;
      if (this.#starts[mid] <= line) low = mid;
      else high = mid - 1;
    }
    const level = this.#levels[low];
    const group = this.#groups[low];
    switch (this.#kinds[low]) {
      case GROUP: {
        const open = this.#opens[low];
        return {
          kind: 'group',
          level,
          group,
          open,
          carriesTotals: !open || this.unfolding.totals === 'above',
        };
      }
      case TOTAL:
        return { kind: 'total', level, group };
      default: {
        const first = this.tree.levels.length ? this.rows.first[level][group] : 0;
        const row = first + line - this.#starts[low];
        return {
          kind: 'record',
          record: this.rows.records[row],
          row,
          level: this.tree.levels.length,
        };
      }
    }
  }

  /** The place of a record's line, or of the folded group that hides it; -1 when it is not in the ledger. */
  lineOf(record: number): number {
    for (let s = 0; s < this.#starts.length; s++) {
      if (this.#kinds[s] !== RECORDS) continue;
      const level = this.#levels[s];
      const group = this.#groups[s];
      const first = this.tree.levels.length ? this.rows.first[level][group] : 0;
      const end = this.tree.levels.length ? this.rows.end[level][group] : this.rows.records.length;
      const at = this.rows.records.subarray(first, end).indexOf(record);
      if (at >= 0) return this.#starts[s] + at;
    }
    return -1;
  }

  /** The place of a group's total (or its only line); -1 when it is hidden. */
  lineOfGroup(level: number, group: number): number {
    let found = -1;
    for (let s = 0; s < this.#starts.length; s++)
      if (this.#levels[s] === level && this.#groups[s] === group && this.#kinds[s] !== RECORDS) {
        found = this.#starts[s];
        if (this.#kinds[s] === TOTAL || !this.#opens[s] || this.unfolding.totals === 'above')
          return found;
      }
    return found;
  }
}
