<script lang="ts">
  import type { Snippet } from 'svelte';
  interface Props {
    title: string;
    /** What is made there needs more room than what is read. */
    wide?: boolean;
    onclose: () => void;
    children: Snippet;
  }
  let { title, wide = false, onclose, children }: Props = $props();
</script>

<aside class="side" class:wide aria-label={title}>
  <header>
    <h2 class="caps">{title}</h2>
    <button type="button" class="act" onclick={onclose} data-test="close-side"
      >Close <kbd>Esc</kbd></button
    >
  </header>
  {@render children()}
</aside>

<style>
  .side {
    width: 340px;
    border-left: 1px solid var(--rule);
    background: var(--paper);
    display: flex;
    flex-direction: column;
    min-height: 0;
    overflow: auto;
  }
  .side.wide {
    width: 420px;
  }
  @media (width < 1024px) {
    .side,
    .side.wide {
      width: auto;
      max-height: 44vh;
      border-left: 0;
      border-top: 1.5px solid var(--rule-strong);
    }
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    padding: 12px 16px 6px;
    position: sticky;
    top: 0;
    background: var(--paper);
    z-index: 1;
  }
  kbd {
    font: inherit;
    color: var(--ink-soft);
  }
</style>
