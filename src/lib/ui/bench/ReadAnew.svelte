<script lang="ts">
  import { broughtAs } from '../../core/prepare/specs';
  import type { BenchState } from './bench.svelte';

  /** Says which other lists were read anew since the bench was last saved, and what of it follows them. */
  let { bench }: { bench: BenchState } = $props();

  let seen = $state(false);
  // Told of the bench as it was opened: what is added here later was added knowing the newer reading.
  // svelte-ignore state_referenced_locally
  const told = Object.keys(bench.doc.lists).flatMap((name) => {
    const list = bench.followed(name);
    if (!list?.readSince) return [];
    const brought = bench.doc.joins.filter((j) => j.list === name).flatMap((j) => j.bring);
    return [{ name, readAt: list.readAt, columns: brought.map(broughtAs) }];
  });
</script>

{#if told.length && !seen}
  <div class="anew" role="status" data-test="read-anew">
    <ul>
      {#each told as { name, readAt, columns } (name)}
        <li>
          <b>{name}</b> was read anew on {readAt}, after this bench was last saved. {columns.length
            ? `${columns.join(', ')} ${columns.length === 1 ? 'follows' : 'follow'} it.`
            : 'What is taken from it follows.'}
        </li>
      {/each}
    </ul>
    <button type="button" class="act" onclick={() => (seen = true)}>Good</button>
  </div>
{/if}

<style>
  .anew {
    display: flex;
    gap: 12px;
    align-items: baseline;
    padding: 6px 20px;
    background: var(--tide-wash);
    border-bottom: 1px solid var(--rule);
  }
  ul {
    flex: 1;
    list-style: none;
    margin: 0;
    padding: 0;
  }
</style>
