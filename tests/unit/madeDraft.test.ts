import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import type { ReplyOf } from '$lib/engine/protocol';
import type { BenchState } from '$lib/ui/bench/bench.svelte';
import { MadeDraft } from '$lib/ui/derived/draft.svelte';
import { small } from '../support/smallList';

type Reply = ReplyOf<'draft'>;

const column = { type: 'number', heads: [], of: 1, rows: [], all: null };
const RIGHT: Reply = { fault: null, column };
const WRONG: Reply = {
  fault: { start: 0, end: 1, message: 'There is no column “x”.', remedy: '', fix: null },
  column: null,
};

/** A bench that answers when it is told to, in any order. */
function slowBench() {
  const asked: { whole: boolean; answer: (reply: Reply) => void; refuse: () => void }[] = [];
  const bench = {
    doc: newBench(small, 1),
    columns: [{ id: 'new', name: 'New column', type: 'number', unit: '' }],
    side: null as unknown,
    change(_: string, edit: (doc: object) => object) {
      this.doc = edit(this.doc) as typeof this.doc;
    },
    ask: (_: string, { whole }: { whole: boolean }) =>
      new Promise<Reply>((answer, reject) =>
        asked.push({ whole, answer, refuse: () => reject(new Error('superseded')) }),
      ),
  };
  return { bench, asked, draft: new MadeDraft(bench as unknown as BenchState, null) };
}
const settled = (): Promise<void> => new Promise((done) => setTimeout(done));

describe('a column in the making', () => {
  it('shows the first records, then what came out of all', async () => {
    const { draft, asked } = slowBench();
    void draft.look();
    asked[0].answer(RIGHT);
    await settled();
    expect(draft.reply).toEqual(RIGHT);
    expect(asked.map((a) => a.whole)).toEqual([false, true]);
    const all = {
      values: 6,
      blank: 0,
      unread: 0,
      none: 0,
      lowest: '',
      highest: '',
      far: null,
      distinct: null,
    };
    asked[1].answer({ fault: null, column: { ...column, all } });
    await settled();
    expect(draft.reply?.column?.all?.values).toBe(6);
  });

  it('a late answer never takes the place of a newer one', async () => {
    const { draft, asked } = slowBench();
    void draft.look();
    asked[0].answer(RIGHT);
    await settled();
    // All of the older one is still on its way when the newer one turns out wrong.
    void draft.look();
    asked[2].answer(WRONG);
    await settled();
    asked[1].answer(RIGHT);
    await settled();
    expect(draft.reply).toEqual(WRONG);
    expect(draft.canKeep).toBe(false);
  });

  it('what was refused for a newer one leaves what is shown', async () => {
    const { draft, asked } = slowBench();
    void draft.look();
    void draft.look();
    asked[1].answer(WRONG);
    asked[0].refuse();
    await settled();
    expect(draft.reply).toEqual(WRONG);
  });

  it('has a name that is free, follows an example until one is typed, and opens what it made', async () => {
    const { bench, draft, asked } = slowBench();
    expect(draft.name).toBe('New column 2');
    draft.take('Sum / 2', 'half of Sum');
    expect([draft.name, draft.spec.expression]).toEqual(['Half of Sum', 'Sum / 2']);
    // Changed, it goes by what it is.
    draft.expression = '"Sum ""of"" all" / NULLIF(Sum, 0)';
    expect(draft.name).toBe('Sum "of" all / Sum');
    draft.expression = 'Sum + '.repeat(20);
    expect(draft.name).toBe('New column 2');
    draft.way = 'across columns';
    draft.across = { measure: 'lead', columns: ['Sum'] };
    expect(draft.name).toBe('Lead');
    draft.way = 'worked out';
    draft.rename('Mine');
    draft.take('Sum * 2', 'twice');
    expect(draft.name).toBe('Mine');
    draft.keep();
    expect(bench.doc.computed).toEqual([]);
    void draft.look();
    asked[0].answer(RIGHT);
    await settled();
    draft.keep();
    expect(bench.doc.computed.map((c) => c.name)).toEqual(['Mine']);
    expect(bench.side).toEqual({ kind: 'column', column: 'Mine' });
  });
});
