import type { Bench } from '../../core/bench/document';
import { addRung, changeRung } from '../../core/bench/edits';
import { isComplete, newLeaf } from '../../core/selection/choices';
import { listsAsked, type Condition } from '../../core/selection/condition';
import type { Counts } from '../../engine/protocol';
import type { ListsAtHand } from './listsAtHand';

/** The step being made goes by this name until it is kept. */
export const NEW_STEP = 'new step';

/** A step being made (id null) or changed. */
export interface Step {
  readonly id: string | null;
  readonly condition: Condition;
}

/** What a step needs of the bench that it is a step of. */
interface Of {
  readonly doc: Bench;
  readonly columns: Counts['columns'];
  change(label: string, edit: (doc: Bench) => Bench): void;
  readonly lists: Pick<ListsAtHand, 'with'>;
  compute(small?: boolean): Promise<void>;
}

/** The step of What counts that is being made: the page follows it, the document does not have it yet. */
export class StepDraft {
  now = $state.raw<Step | null>(null);

  constructor(readonly bench: Of) {}

  /** Begins a step, about a column where one is given. */
  begin(column?: string): void {
    const { columns } = this.bench;
    const start =
      columns.find((c) => c.id === column) ?? columns.find((c) => c.type === 'text') ?? columns[0];
    if (start) this.now = { id: null, condition: newLeaf(start.id, start.type) };
  }

  edit(id: string): void {
    const rung = this.bench.doc.ladder.rungs.find((r) => r.id === id);
    if (rung) this.now = { id, condition: rung.condition };
  }

  /** The step as it is now; once nothing in it is empty, the page shows what it would keep. */
  set(condition: Condition): void {
    if (!this.now) return;
    const shown = isComplete(this.now.condition);
    this.now = { ...this.now, condition };
    if (shown || isComplete(condition)) void this.bench.compute(false);
  }

  /** Whether the page shows what the step would keep. */
  get isShown(): boolean {
    return this.now !== null && isComplete(this.now.condition);
  }

  keep(): void {
    const step = this.now;
    this.now = null;
    if (!step) return;
    const { id, condition } = step;
    const listed = (doc: Bench): Bench => this.bench.lists.with(doc, listsAsked(condition));
    if (id === null) this.bench.change('Narrow', (doc) => addRung(listed(doc), condition));
    else this.bench.change('Change a step', (doc) => changeRung(listed(doc), id, condition));
  }

  drop(): void {
    const shown = this.isShown;
    this.now = null;
    if (shown) void this.bench.compute();
  }

  /** The document with the step in it, where nothing of the step is empty. */
  asked(bench: Bench): Bench {
    if (!this.now || !this.isShown) return bench;
    const { id, condition } = this.now;
    const doc = this.bench.lists.with(bench, listsAsked(condition));
    if (id !== null) return changeRung(doc, id, condition);
    const rungs = [...doc.ladder.rungs, { id: NEW_STEP, on: true, condition }];
    return { ...doc, ladder: { ...doc.ladder, rungs } };
  }
}
