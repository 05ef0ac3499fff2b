<script lang="ts">
  import { ledgerSentence } from '../../core/tally/kinds/ledger/sentence';
  import { groupWords } from '../../core/tally/sentence/words';
  import type { BenchState } from '../bench/bench.svelte';
  import SentenceBox from './SentenceBox.svelte';
  import Sentence from './Sentence.svelte';

  let { bench }: { bench: BenchState } = $props();
  const spec = $derived(bench.item.tally);
  const names = $derived(new Map(bench.columns.map((c) => [c.id, c.name])));
  const parts = $derived(ledgerSentence(spec, names, bench.facts.listName));
  const loose = $derived(bench.ledger?.loose ?? []);
</script>

<SentenceBox>
  <p>
    <Sentence
      {bench}
      {parts}
      faults={bench.ledger?.faults ?? []}
      onset={(label, next) => bench.retell(label, bench.item.id, next)}
    />
  </p>
  {#each loose as { key, merges } (key)}
    {@const group = spec.groups[key]}
    {#if group}
      <p class="offer">
        {merges === 1 ? 'One label' : `${merges} labels`} of {groupWords(group, names)} differ{merges ===
        1
          ? 's'
          : ''} only in case or outer spaces.
        <button
          type="button"
          class="act"
          onclick={() =>
            bench.retell(`Group by ${groupWords(group, names)}`, bench.item.id, {
              ...spec,
              groups: spec.groups.map((g, k) => (k === key ? { ...g, loose: true } : g)),
            })}>Take them as one</button
        >
      </p>
    {/if}
  {/each}
  {#if spec.groups.length}
    <span class="visually-hidden">Totals {bench.item.view.totals} each group</span>
  {/if}
</SentenceBox>

<style>
  p {
    margin: 0;
  }
  .offer {
    font: 14px var(--font-sans);
    color: var(--plum);
    padding-top: 4px;
  }
</style>
