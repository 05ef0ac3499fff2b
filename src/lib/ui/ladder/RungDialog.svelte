<script lang="ts">
  import { tick } from 'svelte';
  import { addRung, changeRung } from '../../core/bench/edits';
  import { isComplete, newLeaf } from '../../core/scope/choices';
  import type { Condition } from '../../core/scope/condition';
  import { missingWords } from '../../core/scope/describe';
  import { showCount } from '../../core/table/format';
  import { Refused } from '../../worker/engineClient';
  import type { ReplyOf } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import ConditionPart from './ConditionPart.svelte';

  let { bench }: { bench: BenchState } = $props();

  let dialog: HTMLDialogElement;
  let condition = $state.raw<Condition | null>(null);
  let editing = $state<string | null>(null);
  let preview = $state.raw<ReplyOf<'try'> | null>(null);
  const missing = $derived(preview ? missingWords(preview) : '');
  let fault = $state('');

  /** Opens on a new step, about a column where one is given. */
  export function add(column?: string): void {
    const start =
      bench.column(column) ?? bench.columns.find((c) => c.type === 'text') ?? bench.columns[0];
    if (!start) return;
    editing = null;
    void show(newLeaf(start.id, start.type));
  }

  export function edit(id: string): void {
    const rung = bench.doc.ladder.rungs.find((r) => r.id === id);
    if (!rung) return;
    editing = id;
    void show(rung.condition);
  }

  async function show(start: Condition): Promise<void> {
    condition = start;
    preview = null;
    fault = '';
    await tick();
    dialog.showModal();
  }

  const place = $derived(
    editing === null
      ? bench.doc.ladder.rungs.length
      : bench.doc.ladder.rungs.findIndex((r) => r.id === editing),
  );

  $effect(() => {
    if (!condition || !isComplete(condition)) {
      preview = null;
      return;
    }
    bench.ask('try', { condition: $state.snapshot(condition) as Condition, at: place }).then(
      (reply) => {
        preview = reply;
        fault = '';
      },
      (error: unknown) => {
        if (error instanceof Refused && error.name !== 'Superseded') fault = error.message;
      },
    );
  });

  const joinable = $derived(condition?.kind === 'leaf');

  function join(): void {
    if (condition)
      condition = {
        kind: 'all',
        not: false,
        parts: [condition, newLeaf(bench.columns[0].id, bench.columns[0].type)],
      };
  }

  function accept(event: SubmitEvent): void {
    event.preventDefault();
    const chosen = condition;
    const id = editing;
    if (!chosen || !isComplete(chosen) || fault) return;
    dialog.close();
    if (id === null) bench.change('Narrow', (doc) => addRung(doc, chosen));
    else bench.change('Change a step', (doc) => changeRung(doc, id, chosen));
  }
</script>

<dialog bind:this={dialog} aria-labelledby="rung-title" onclose={() => (condition = null)}>
  {#if condition}
    <form onsubmit={accept}>
      <h2 class="serif" id="rung-title">
        {editing === null ? 'Narrow what counts' : 'Change this step'}
      </h2>
      <p class="soft">
        Only records that meet this go on to the next step. A blank meets nothing but “is blank”.
      </p>
      <ConditionPart {bench} {condition} onchange={(next) => (condition = next)} />
      {#if joinable}<button type="button" class="act" onclick={join}
          >+ join another condition</button
        >{/if}
      <p class="preview" aria-live="polite" data-test="preview">
        {#if fault}<span class="bad">{fault}</span>
        {:else if preview}
          <b>{preview.says}</b>: keeps {showCount(preview.kept)}, removes {showCount(
            preview.removed,
          )}{missing ? ` (${missing})` : ''}.
        {:else}<span class="soft">Fill in what is asked to see its effect.</span>{/if}
      </p>
      <div class="acts">
        <button type="button" class="plain-button" onclick={() => dialog.close()}>Cancel</button>
        <button
          type="submit"
          class="main-button"
          disabled={!isComplete(condition) || fault !== ''}
          data-test="accept-rung">{editing === null ? 'Narrow' : 'Change'}</button
        >
      </div>
    </form>
  {/if}
</dialog>

<style>
  dialog {
    width: min(620px, 94vw);
    padding: 18px 20px;
    max-height: 88vh;
  }
  form {
    display: grid;
    gap: 10px;
    justify-items: stretch;
  }
  h2 {
    margin: 0;
    font-size: 20px;
  }
  p {
    margin: 0;
  }
  .soft {
    color: var(--ink-soft);
  }
  .bad {
    color: var(--bad);
  }
  .preview {
    min-height: 2.8em;
    padding-top: 8px;
    border-top: 1px solid var(--rule);
  }
  .acts {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
  }
  form > .act {
    justify-self: start;
  }
</style>
