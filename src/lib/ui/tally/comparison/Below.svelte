<script lang="ts">
  import type { BelowProps } from '../view';
  import EveryTally from './EveryTally.svelte';
  import MovedRecords from './MovedRecords.svelte';

  /** Below a comparison of two readings: the records of the figure that is open, and every other tally. */
  let { bench, tally, chosen }: BelowProps = $props();
</script>

{#if tally.kind === 'comparison'}
  {#if chosen?.table === 'main'}
    <MovedRecords {bench} place={{ tally: bench.shown.id, ...chosen }} />
  {/if}
  <EveryTally {bench} {tally} />
{/if}
