<script lang="ts">
  import { MOST_COLUMNS, type Across } from '../../core/tally/answer/columnsInView';
  import { showCount } from '../../core/table/format';

  /** Which columns of a wide table are in view, and the way to the others. */
  interface Props {
    across: Across;
    onacross: (from: number) => void;
  }
  let { across, onacross }: Props = $props();
  const to = $derived(Math.min(across.from + MOST_COLUMNS, across.of));
  const lastFrom = $derived(Math.floor((across.of - 1) / MOST_COLUMNS) * MOST_COLUMNS);
  const ways = $derived([
    { name: 'First', from: 0, idle: across.from === 0 },
    { name: 'Earlier', from: Math.max(0, across.from - MOST_COLUMNS), idle: across.from === 0 },
    { name: 'Later', from: to, idle: to === across.of },
    { name: 'Last', from: lastFrom, idle: to === across.of },
  ]);
</script>

<nav aria-label="Columns in view" data-test="columns-in-view">
  <span role="status">
    Columns of figures {showCount(across.from + 1)} to {showCount(to)} of {showCount(across.of)}
  </span>
  {#each ways as { name, from, idle } (name)}
    <button
      type="button"
      class="act"
      disabled={idle}
      onclick={() => onacross(from)}
      data-test="columns-{name.toLowerCase()}">{name}</button
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    gap: 12px;
    align-items: baseline;
    margin-bottom: 6px;
    color: var(--ink-soft);
  }
  .act:disabled {
    color: var(--ink-soft);
    opacity: 0.6;
    cursor: default;
  }
</style>
