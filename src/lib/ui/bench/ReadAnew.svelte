<script lang="ts">
  import { broughtAs } from '../../core/prepare/specs';
  import type { BenchState } from './bench.svelte';
  import NewsStrip from './NewsStrip.svelte';

  /** Says which other lists were read anew since the analyst last knew them, and what follows them. */
  let { bench }: { bench: BenchState } = $props();

  const told = $derived(
    bench.lists.readAnew.map(({ name, readAt }) => {
      const brought = bench.doc.joins.filter((j) => j.list === name).flatMap((j) => j.bring);
      return { name, readAt, columns: brought.map(broughtAs) };
    }),
  );
</script>

{#if told.length}
  <NewsStrip test="read-anew">
    <ul>
      {#each told as { name, readAt, columns } (name)}
        <li>
          <b>{name}</b> was read anew on {readAt}. {columns.length
            ? `${columns.join(', ')} ${columns.length === 1 ? 'follows' : 'follow'} it.`
            : 'What is taken from it follows.'}
        </li>
      {/each}
    </ul>
    <button type="button" class="act" onclick={() => bench.takeNote()}>Good</button>
  </NewsStrip>
{/if}

<style>
  ul {
    flex: 1;
    list-style: none;
    margin: 0;
    padding: 0;
  }
</style>
