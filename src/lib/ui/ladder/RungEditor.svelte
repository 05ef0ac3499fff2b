<script lang="ts">
  import { onMount } from 'svelte';
  import { isComplete, newLeaf } from '../../core/selection/choices';
  import type { Code } from '../../core/errors';
  import type { Condition } from '../../core/selection/condition';
  import { missingWords } from '../../core/selection/describe';
  import { showCount } from '../../core/table/format';
  import type { ColumnFacts, ReplyOf } from '../../engine/protocol';
  import { Refused } from '../../worker/engineClient';
  import type { BenchState } from '../bench/bench.svelte';
  import BrushChart from '../column/BrushChart.svelte';
  import ConditionPart from './ConditionPart.svelte';

  /** The step being made or changed: already a card in the ladder, and the page follows it. */
  interface Props {
    bench: BenchState;
    condition: Condition;
    /** Whether the step stands in the ladder already. */
    changing: boolean;
    /** Its place among the steps. */
    place: number;
  }
  let { bench, condition, changing, place }: Props = $props();

  let form: HTMLFormElement;
  let preview = $state.raw<ReplyOf<'try'> | null>(null);
  let facts = $state.raw<ColumnFacts | null>(null);
  let fault = $state('');
  const missing = $derived(preview ? missingWords(preview) : '');
  const column = $derived(condition.kind === 'leaf' ? condition.column : null);
  const type = $derived(bench.column(column)?.type ?? '');
  const brushed = $derived(['number', 'date', 'datetime', 'time'].includes(type));

  onMount(() => form.querySelector<HTMLElement>('button.field, input, textarea')?.focus());

  $effect(() => {
    const asked = condition;
    if (!isComplete(asked)) {
      preview = null;
      return;
    }
    bench.ask('try', { condition: asked, at: place }).then(
      (reply) => {
        preview = reply;
        fault = '';
      },
      (error: unknown) => {
        const passing: readonly Code[] = ['superseded', 'stopped', 'stale'];
        if (error instanceof Refused && !passing.includes(error.code)) fault = error.message;
      },
    );
  });

  // How the column's values fall, to brush a part of it.
  $effect(() => {
    const of = brushed ? column : null;
    facts = null;
    if (of === null) return;
    bench.ask('facts', { column: of }, 'brush').then(
      (reply) => (facts = reply),
      () => undefined,
    );
  });

  const set = (next: Condition): void => bench.step.set(next);
  const another = (): Condition => {
    const start = bench.column(column) ?? bench.columns[0];
    return newLeaf(start.id, start.type);
  };

  function keep(event: SubmitEvent): void {
    event.preventDefault();
    if (isComplete(condition) && fault === '') bench.step.keep();
  }

  function keyed(event: KeyboardEvent): void {
    if (event.key !== 'Escape') return;
    event.preventDefault();
    event.stopPropagation();
    bench.step.drop();
  }
</script>

<li class="card making" data-test="step">
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <form bind:this={form} onsubmit={keep} onkeydown={keyed} aria-label="Step being made">
    <ConditionPart {bench} {condition} onchange={set} />
    {#if brushed && facts && column}
      <BrushChart distribution={facts.distribution} {column} {type} onnarrow={set} />
    {/if}
    <div class="more">
      {#if condition.kind === 'leaf'}
        <button
          type="button"
          class="act"
          onclick={() => set({ kind: 'all', not: false, parts: [condition, another()] })}
          >+ join another condition</button
        >
        <button
          type="button"
          class="act"
          onclick={() => set({ kind: 'expression', not: false, expression: '' })}
          >write an expression</button
        >
      {/if}
    </div>
    <p class="preview" aria-live="polite" data-test="preview">
      {#if fault}<span class="bad">{fault}</span>
      {:else if preview}
        <b>{preview.words}</b>: keeps {showCount(preview.kept)}, removes {showCount(
          preview.removed,
        )}{missing ? ` (${missing})` : ''}.
      {:else}<span class="soft">Fill in what is asked to see its effect.</span>{/if}
    </p>
    <div class="acts">
      <button type="button" class="plain-button" onclick={() => bench.step.drop()}>Cancel</button>
      <button
        type="submit"
        class="main-button"
        disabled={!isComplete(condition) || fault !== ''}
        data-test="accept-rung">{changing ? 'Change' : 'Narrow'}</button
      >
    </div>
  </form>
</li>

<style>
  .making {
    border-color: var(--tide) !important;
    box-shadow: 0 0 0 1px var(--tide);
    overflow: visible !important;
  }
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
    min-width: 0;
  }
  .more {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    font-size: 13px;
  }
  .preview {
    margin: 0;
    padding-top: 6px;
    border-top: 1px solid var(--rule);
    overflow-wrap: anywhere;
    font-size: 13px;
  }
  .soft {
    color: var(--ink-soft);
  }
  .bad {
    color: var(--bad);
  }
  .acts {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
  }
</style>
