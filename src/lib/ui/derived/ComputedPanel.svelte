<script lang="ts">
  import { idOfComputed } from '../../core/prepare/specs';
  import { likeRun } from '../../core/prepare/likeRun';
  import { examplesFor } from '../../core/expression/examples';
  import { FUNCTIONS } from '../../core/expression/functions';
  import { recordPlace } from '../../core/table/recordNumber';
  import type { BenchState } from '../bench/bench.svelte';
  import { usedAs } from '../sentence/columnNote';
  import AcrossFields from './AcrossFields.svelte';
  import { MadeDraft, type Way } from './draft.svelte';
  import ExpressionField from './ExpressionField.svelte';
  import Outcome from './Outcome.svelte';
  import UsedBy from './UsedBy.svelte';
  import WindowFields from './WindowFields.svelte';

  interface Props {
    bench: BenchState;
    /** Place of the computed column being changed; null: a new one. */
    at: number | null;
    way: Way;
  }
  let { bench, at, way }: Props = $props();
  // The panel is made anew for each column.
  // svelte-ignore state_referenced_locally
  const draft = new MadeDraft(bench, at);
  let editor = $state<ExpressionField>();

  /** Columns it can be made of: all but itself. */
  const own = $derived(at === null ? null : bench.doc.computed[at]);
  const others = $derived(
    bench.columns
      .filter((c) => own === null || c.id !== idOfComputed(own))
      .map((c) => ({ ...c, type: usedAs(c) })),
  );
  const numbers = $derived(others.filter((c) => c.type === 'number' || c.type === 'yesno'));
  /** The column whose total every step shows comes first: it is what the list is about. */
  const examples = $derived(
    examplesFor(
      others.toSorted((a, b) => Number(b.id === bench.doc.lead) - Number(a.id === bench.doc.lead)),
    ),
  );
  let uses = $state.raw<readonly string[]>([]);
  const reply = $derived(draft.reply);
  const fault = $derived(draft.way === 'worked out' ? (reply?.fault ?? null) : null);
  const FAULT = 'made-fault';

  // One thing spread over many columns is most likely what is taken together.
  // svelte-ignore state_referenced_locally
  if (at === null) {
    draft.across = { ...draft.across, columns: likeRun(others) };
    const lead = others.find((c) => c.id === bench.doc.lead) ?? numbers[0];
    const days = others.find((c) => c.type === 'date' || c.type === 'datetime');
    draft.window = {
      ...draft.window,
      of: lead?.id,
      // A running total follows the days, where there are any.
      order: days ? [{ column: days.id, descending: false, blanks: 'last' }] : [],
    };
  }

  $effect(() => {
    draft.way = way;
  });
  $effect(() => {
    void draft.spec;
    void bench.runs;
    void draft.look();
  });

  const completing = $derived({
    columns: others,
    values: async (column: string, search: string) => {
      const { items } = await bench.ask('values', { column, search, limit: 12 }, 'complete');
      return items.map((item) => item.text);
    },
  });

  /** A column used elsewhere says where before it goes. */
  async function takeOut(): Promise<void> {
    if (own && uses.length === 0) {
      uses = await bench.ask('uses', { column: idOfComputed(own) }, 'uses');
      if (uses.length) return;
    }
    draft.takeOut();
  }
</script>

<form
  class="fields"
  data-test="made-panel"
  onsubmit={(e) => {
    e.preventDefault();
    draft.keep();
  }}
>
  <div class="names">
    <input
      class="field name"
      aria-label="Name of the column"
      value={draft.name}
      maxlength="200"
      oninput={(e) => draft.rename(e.currentTarget.value)}
      data-test="made-name"
    />
    <input
      class="field"
      aria-label="Unit"
      placeholder="unit"
      maxlength="40"
      bind:value={draft.unit}
      data-test="made-unit"
    />
  </div>
  {#if draft.way === 'worked out'}
    <ExpressionField
      bind:this={editor}
      value={draft.expression}
      {fault}
      {completing}
      hint={examples[0]?.expression ?? ''}
      describedBy={FAULT}
      onchange={(text) => (draft.expression = text)}
      onkeep={() => draft.keep()}
    />
  {:else if draft.way === 'within groups'}
    <WindowFields
      window={draft.window}
      columns={others}
      onchange={(window) => (draft.window = window)}
    />
  {:else}
    <AcrossFields
      across={draft.across}
      columns={numbers}
      onchange={(across) => (draft.across = across)}
    />
  {/if}

  <div id={FAULT} aria-live="polite">
    {#if reply?.fault && draft.isBegun}
      <p class="fault" data-test="made-fault">
        {draft.way === 'worked out' && reply.fault.start > 0
          ? `Character ${reply.fault.start + 1}: ${reply.fault.message}`
          : reply.fault.message}
        {#if fault && fault.fix !== null}
          <button type="button" class="act" onclick={() => editor?.mend()} data-test="made-fix"
            >{fault.fix ? `Write ${fault.fix}` : 'Take it out'} <kbd>Alt Enter</kbd></button
          >
        {:else}{reply.fault.remedy}{/if}
      </p>
    {/if}
  </div>

  {#if reply?.column}
    <Outcome
      column={reply.column}
      onrecord={(number) =>
        (bench.side = { kind: 'record', record: recordPlace(number), column: null })}
    />
  {/if}

  {#if draft.way === 'worked out'}
    {#if examples.length && !draft.expression.trim()}
      <h3 class="caps">For this list</h3>
      <ul class="examples">
        {#each examples as { words, expression } (expression)}
          <li>
            <button type="button" class="act" onclick={() => draft.take(expression, words)}
              >{words}</button
            > <code>{expression}</code>
          </li>
        {/each}
      </ul>
    {/if}
    <details>
      <summary class="caps">Words you can use</summary>
      <p class="words">
        <code>+ − * / || = &lt;&gt; &lt; &gt; AND OR NOT IN BETWEEN LIKE IS NULL</code>
        <code>CASE WHEN … THEN … ELSE … END</code>
        <code>COALESCE(a, b)</code> <code>NULLIF(a, 0)</code>
        <code>EXTRACT(YEAR FROM day)</code> <code>CAST(a AS VARCHAR)</code>
        {#each [...new Set(Object.values(FUNCTIONS).map((f) => f.example))] as example (example)}
          <code>{example}</code>
        {/each}
      </p>
    </details>
  {/if}

  {#if uses.length}<UsedBy {uses} />{/if}
  <div class="acts">
    {#if !draft.isNew}<button
        type="button"
        class="plain-button"
        onclick={() => void takeOut()}
        data-test="made-out">{uses.length ? 'Take it out all the same' : 'Take it out'}</button
      >{/if}
    <button type="submit" class="main-button" disabled={!draft.canKeep} data-test="made-keep"
      >Keep <kbd>Ctrl Enter</kbd></button
    >
  </div>
</form>

<style>
  .fields {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
  .names {
    display: grid;
    grid-template-columns: 1fr 72px;
    gap: 8px;
  }
  .name {
    font-weight: 600;
  }
  .fault {
    margin: 0;
    padding: 7px 10px;
    border-radius: 6px;
    background: var(--plum-wash);
    color: var(--plum);
  }
  .fault .act {
    text-decoration: underline;
  }
  .examples {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 4px;
  }
  code {
    font-family: ui-monospace, 'DejaVu Sans Mono', monospace;
    font-size: 12px;
    color: var(--ink-soft);
    background: none;
    padding: 0;
    white-space: normal;
  }
  .examples code {
    display: block;
    overflow-wrap: anywhere;
  }
  .words {
    display: flex;
    flex-wrap: wrap;
    gap: 3px 12px;
  }
  summary {
    cursor: pointer;
  }
  .acts {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
  }
  kbd {
    font: inherit;
    font-size: 12px;
    opacity: 0.75;
  }
</style>
