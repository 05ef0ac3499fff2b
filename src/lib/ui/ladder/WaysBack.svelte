<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What was done by hand, a line each, each with its way back. */
  let { children }: { children: Snippet } = $props();
</script>

<ul>{@render children()}</ul>

<style>
  ul {
    margin: 0;
    padding: 0;
    max-height: 300px;
    overflow: auto;
    list-style: none;
  }
  ul :global(li) {
    display: flex;
    gap: 10px;
    align-items: baseline;
    justify-content: space-between;
    padding: 4px 2px;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  ul :global(button) {
    flex: none;
  }
</style>
