<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Where a tally's sentence stands: on top, in the serif face. */
  let { children }: { children: Snippet } = $props();
</script>

<div class="sentence serif" data-test="sentence">{@render children()}</div>

<style>
  .sentence {
    padding: 12px 20px 8px;
    border-bottom: 1px solid var(--rule);
    font-size: 19px;
    line-height: 1.5;
    max-height: 168px;
    overflow: auto;
  }
  .sentence > :global(p) {
    margin: 0;
  }
</style>
