<script lang="ts">
  import { moveRung, negateRung, removeRung, switchRung } from '../../core/bench/edits';
  import { missingWords } from '../../core/scope/describe';
  import { showCount } from '../../core/table/format';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Pop from '../shell/Pop.svelte';
  import Switch from '../shell/Switch.svelte';

  interface Props {
    bench: BenchState;
    rung: Counts['rungs'][number];
    /** Share of all records left after it. */
    share: number;
    first: boolean;
    last: boolean;
    onedit: () => void;
  }
  let { bench, rung, share, first, last, onedit }: Props = $props();

  const missing = $derived(missingWords(rung));
</script>

<li class="card" class:off={!rung.on} data-test="rung">
  <div class="line">
    <strong>
      <Switch
        on={rung.on}
        name="{rung.says}: on"
        onchange={() =>
          bench.change(`${rung.on ? 'Switch off' : 'Switch on'}: ${rung.says}`, (doc) =>
            switchRung(doc, rung.id),
          )}
      />
      <span class="says">{rung.says}</span>
    </strong>
    <b>{rung.on ? showCount(rung.records) : '–'}</b>
  </div>
  <div class="line soft">
    {#if rung.fault}
      <span class="fault" data-test="rung-fault">Takes no part: {rung.fault}</span>
    {:else if rung.on}
      <span>−{showCount(rung.removed)}{missing ? ` (${missing})` : ''}</span>
      <span>{rung.lead}</span>
    {:else}
      <span>switched off</span>
    {/if}
  </div>
  <div class="menu">
    <Pop title="Change this step" name="Change the step {rung.says}" width={170}>
      {#snippet label()}<span aria-hidden="true">⋯</span>{/snippet}
      {#snippet children(close)}
        {@const act = (says: string, edit: Parameters<typeof bench.change>[1]) => {
          close();
          bench.change(`${says}: ${rung.says}`, edit);
        }}
        <div class="list">
          <button
            type="button"
            class="act"
            onclick={() => {
              close();
              onedit();
            }}>Edit…</button
          >
          <button
            type="button"
            class="act"
            onclick={() => act('Turn round', (doc) => negateRung(doc, rung.id))}
            >Turn round (not)</button
          >
          <button
            type="button"
            class="act"
            disabled={first}
            onclick={() => act('Move up', (doc) => moveRung(doc, rung.id, -1))}>Move up</button
          >
          <button
            type="button"
            class="act"
            disabled={last}
            onclick={() => act('Move down', (doc) => moveRung(doc, rung.id, 1))}>Move down</button
          >
          <button
            type="button"
            class="act"
            onclick={() => act('Remove', (doc) => removeRung(doc, rung.id))}>Remove</button
          >
        </div>
      {/snippet}
    </Pop>
  </div>
  {#if rung.on}<i class="share" style:width="{share * 100}%"></i>{/if}
</li>

<style>
  .off {
    background: transparent !important;
    border-style: dashed !important;
  }
  .off .says {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  .fault {
    color: var(--plum);
    overflow-wrap: anywhere;
  }
  .menu {
    position: absolute;
    right: 6px;
    bottom: 1px;
    opacity: 0;
  }
  .menu :global(.act) {
    background: var(--raised);
  }
  li:hover .menu,
  .menu:focus-within,
  .menu:has(:global([data-state='open'])) {
    opacity: 1;
  }
  .list {
    display: grid;
    justify-items: start;
    gap: 4px;
  }
  .list button:disabled {
    color: var(--ink-faint);
    cursor: default;
  }
</style>
