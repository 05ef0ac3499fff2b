import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { addRung } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import type { Condition } from '$lib/core/selection/condition';
import { NEW_STEP, StepDraft } from '$lib/ui/bench/step.svelte';
import { small } from '../support/smallList';

const at = (least: number): Condition => ({
  kind: 'leaf',
  column: 'Sum',
  not: false,
  test: { test: 'compare', op: 'ge', value: least },
});
const EMPTY: Condition = {
  kind: 'leaf',
  column: 'Region',
  not: false,
  test: { test: 'is', values: [], exact: false },
};

/** A bench whose step is being made: how often it was computed, and what was done to it. */
function benchOf(doc: Bench = newBench(small, 1)) {
  const done: string[] = [];
  const bench = {
    doc,
    columns: small.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })) as never,
    computed: [] as (boolean | undefined)[],
    done,
    change(label: string, edit: (doc: Bench) => Bench): void {
      done.push(label);
      bench.doc = edit(bench.doc);
    },
    lists: { with: (of: Bench): Bench => of },
    compute(some?: boolean): Promise<void> {
      bench.computed.push(some);
      return Promise.resolve();
    },
  };
  return { bench, draft: new StepDraft(bench) };
}

describe('a step that is being made', () => {
  it('begins with the column named, else with a text, and shows nothing while it is empty', () => {
    const { bench, draft } = benchOf();
    draft.begin('Sum');
    expect(draft.now).toMatchObject({ id: null, condition: { column: 'Sum' } });
    draft.begin();
    expect(draft.now?.condition).toMatchObject({ column: 'Region' });
    draft.begin('no such column');
    expect(draft.now?.condition).toMatchObject({ column: 'Region' });
    expect(draft.asked(bench.doc)).toBe(bench.doc);
    draft.set(EMPTY);
    expect(bench.computed).toEqual([]);
  });

  it('is followed by the page once nothing in it is empty, and is in the document only when kept', () => {
    const { bench, draft } = benchOf();
    draft.begin();
    draft.set(at(9));
    expect(bench.computed).toEqual([false]);
    expect(bench.doc.ladder.rungs).toEqual([]);
    expect(draft.asked(bench.doc).ladder.rungs).toEqual([
      { id: NEW_STEP, on: true, condition: at(9) },
    ]);
    // Emptied again, what the page shows goes back to what the document says.
    draft.set(EMPTY);
    expect(bench.computed).toEqual([false, false]);
    expect(draft.asked(bench.doc)).toBe(bench.doc);
    draft.set(at(10));
    draft.keep();
    expect([bench.done, draft.now]).toEqual([['Narrow'], null]);
    expect(bench.doc.ladder.rungs.map(({ condition }) => condition)).toEqual([at(10)]);
  });

  it('dropped, it leaves nothing; what it showed is computed away', () => {
    const { bench, draft } = benchOf();
    draft.begin();
    draft.drop();
    expect(bench.computed).toEqual([]);
    draft.begin();
    draft.set(at(9));
    draft.drop();
    expect(bench.computed).toEqual([false, undefined]);
    expect(bench.doc.ladder.rungs).toEqual([]);
    draft.keep();
    draft.set(at(1));
    expect([bench.done, draft.now]).toEqual([[], null]);
  });

  it('a step that stands is changed in its place', () => {
    const { bench, draft } = benchOf(addRung(addRung(newBench(small, 1), at(1)), at(2)));
    const [first, second] = bench.doc.ladder.rungs;
    draft.edit('no such step');
    expect(draft.now).toBeNull();
    draft.edit(first.id);
    expect(draft.now).toEqual({ id: first.id, condition: at(1) });
    draft.set(at(5));
    expect(draft.asked(bench.doc).ladder.rungs).toEqual([{ ...first, condition: at(5) }, second]);
    draft.keep();
    expect(bench.done).toEqual(['Change a step']);
    expect(bench.doc.ladder.rungs).toEqual([{ ...first, condition: at(5) }, second]);
  });
});
