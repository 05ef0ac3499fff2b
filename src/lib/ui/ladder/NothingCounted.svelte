<script lang="ts">
  import type { BenchState } from '../bench/bench.svelte';

  /** What to do where no record counts, beside figures that are then empty. */
  let { bench }: { bench: BenchState } = $props();
</script>

{#if bench.counts?.counted.records === 0}
  <p role="status" data-test="nothing-counted">
    No record meets every condition. Switch a step of What counts off, or put records back.
  </p>
{/if}

<style>
  p {
    margin: 0 0 14px;
    color: var(--ink-soft);
  }
</style>
