<script lang="ts">
  import type { Snippet } from 'svelte';

  /** The form of a panel that makes a list: one field under another. */
  interface Props {
    test: string;
    onsubmit: () => void;
    children: Snippet;
  }
  let { test, onsubmit, children }: Props = $props();
</script>

<form
  data-test={test}
  onsubmit={(e) => {
    e.preventDefault();
    onsubmit();
  }}
>
  {@render children()}
</form>

<style>
  form {
    padding: 4px 16px 20px;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
  form :global {
    p {
      margin: 0;
    }
    label:not(.check, [data-part]) {
      display: grid;
      gap: 2px;
      color: var(--ink-soft);
      font-size: 13px;
    }
    .check {
      display: flex;
      gap: 6px;
      align-items: center;
      color: var(--ink-soft);
      font-size: 13px;
    }
    .soft {
      color: var(--ink-soft);
      font-size: 13px;
    }
    .fault {
      padding: 7px 10px;
      border-radius: 6px;
      background: var(--plum-wash);
      color: var(--plum);
    }
    .main-button {
      justify-self: end;
    }
  }
</style>
