<script lang="ts">
  import { replaceState } from '$app/navigation';
  import type { BenchState } from './bench.svelte';

  /** Over a bench that a link opened as it was: what is changed here stays apart. */
  interface Props {
    bench: BenchState;
  }
  let { bench }: Props = $props();
  const earlier = $derived(bench.facts.earlier);

  /** The page goes to the bench itself once it is saved; undo brings back what was newest until then. */
  async function makeNewest(): Promise<void> {
    bench.makeNewest();
    await bench.saver.settle();
    // The page stays as it is, so that the undo does too.
    if (!bench.saver.unsaved) replaceState(`/benches/${bench.facts.id}`, {});
  }
</script>

{#if earlier && bench.saver.apart}
  <div class="earlier" role="status" data-test="earlier">
    <p>
      This is the bench <b>as it was on {earlier.savedAt}</b> (revision {earlier.revision}; the
      newest is {bench.facts.revision}). What you change here stays on this page.
    </p>
    <a class="plain-button" href="/benches/{bench.facts.id}" data-test="to-newest"
      >Go to the newest</a
    >
    <button
      type="button"
      class="main-button"
      onclick={() => void makeNewest()}
      data-test="make-newest">Make this the newest</button
    >
  </div>
{/if}

<style>
  .earlier {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 8px 20px;
    background: var(--brass-wash);
    border-bottom: 1px solid var(--rule);
  }
  p {
    margin: 0;
    flex: 1;
  }
  a {
    text-decoration: none;
    white-space: nowrap;
  }
</style>
