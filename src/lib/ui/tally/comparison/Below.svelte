<script lang="ts">
  import type { BelowProps } from '../view';
  import EveryTally from './EveryTally.svelte';

  /** Below a comparison of two readings: every other tally of the bench over both. */
  let { bench, tally }: BelowProps = $props();
</script>

{#if tally.kind === 'comparison'}<EveryTally {bench} {tally} />{/if}
