<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A line over the sentence that tells what became of something else, with what can be done about it. */
  let { test, children }: { test: string; children: Snippet } = $props();
</script>

<div class="news" role="status" data-test={test}>{@render children()}</div>

<style>
  .news {
    display: flex;
    gap: 12px;
    align-items: baseline;
    padding: 6px 20px;
    background: var(--tide-wash);
    border-bottom: 1px solid var(--rule);
  }
</style>
