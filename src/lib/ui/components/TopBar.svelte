<script lang="ts">
  import type { Snippet } from 'svelte';
  import Contrast from '@lucide/svelte/icons/contrast';
  import { turnTheme } from './theme';
  import Tip from './Tip.svelte';

  interface Props {
    /** Where one is: list, bench. */
    trail?: Snippet;
    acts?: Snippet;
  }
  let { trail, acts }: Props = $props();
</script>

<header class="bar">
  <a class="brand" href="/" aria-label="Tally Loft, to the shelf">
    <svg viewBox="0 0 28 24" width="26" height="22" aria-hidden="true">
      <g stroke="currentColor" stroke-width="2.2" stroke-linecap="round"
        ><path d="M5 4v16M11 4v16M17 4v16M23 4v16" /><path d="M2 18.500L26 6.500" /></g
      >
    </svg>
    <span>Tally Loft</span>
  </a>
  <div class="trail">{@render trail?.()}</div>
  <div class="acts">
    {@render acts?.()}
    <Tip
      class="bar-button icon"
      tip="Turn between light and dark"
      aria-label="Turn between light and dark"
      onclick={() => turnTheme()}
    >
      <Contrast size={16} aria-hidden="true" />
    </Tip>
  </div>
</header>

<style>
  .bar {
    display: flex;
    align-items: center;
    gap: 16px;
    height: 45px;
    padding: 0 16px;
    background: var(--bar);
    color: var(--on-bar);
    border-bottom: 1px solid light-dark(transparent, var(--rule));
  }
  .brand {
    display: flex;
    align-items: center;
    gap: 8px;
    color: var(--on-bar);
    text-decoration: none;
    font: 600 18px/1 var(--font-serif);
    white-space: nowrap;
  }
  @media (width < 900px) {
    .brand span {
      display: none;
    }
  }
  .brand svg {
    color: var(--gold);
    fill: none;
  }
  .trail {
    flex: 1;
    min-width: 0;
    color: var(--on-bar-soft);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .acts {
    flex: none;
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .bar :global(.bar-button) {
    display: inline-flex;
    align-items: center;
    gap: 8px;
    background: transparent;
    color: var(--on-bar);
    border: 1px solid #4a5164;
    border-radius: 6px;
    padding: 4px 11px;
    font: inherit;
    cursor: pointer;
    text-decoration: none;
    white-space: nowrap;
  }
  .bar :global(.bar-button:hover:not(:disabled)) {
    border-color: var(--gold);
  }
  .bar :global(.bar-button:disabled) {
    color: #8d93a3;
    cursor: default;
  }
  .bar :global(.bar-button.icon) {
    padding: 5px 8px;
  }
  .bar :global(.bar-button.strong) {
    background: var(--gold);
    color: #1c2333;
    border-color: var(--gold);
    font-weight: 600;
  }
  .bar :global(:focus-visible) {
    outline-color: var(--gold);
  }
</style>
