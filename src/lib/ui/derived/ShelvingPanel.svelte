<script lang="ts">
  import type { BenchState } from '../bench/bench.svelte';
  import RowsPanel from './RowsPanel.svelte';
  import StackPanel from './StackPanel.svelte';
  import UnstackPanel from './UnstackPanel.svelte';

  /** A new list made of this bench: its columns stacked, unstacked, or the rows of a tally. */
  interface Props {
    bench: BenchState;
    of: 'stack' | 'unstack' | 'rows';
  }
  let { bench, of }: Props = $props();
</script>

{#if of === 'stack'}
  <StackPanel {bench} />
{:else if of === 'unstack'}
  <UnstackPanel {bench} />
{:else}
  {#key bench.shown.id}<RowsPanel {bench} item={bench.shown} />{/key}
{/if}
