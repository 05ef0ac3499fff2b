<script lang="ts">
  import type { Snippet } from 'svelte';
  import { showCount } from '../../core/table/format';

  /** Records behind a figure, as many as are at hand, with the way to more. */
  interface Props {
    columns: readonly { readonly name: string; readonly right: boolean }[];
    /** The rows, each a `tr`. */
    children: Snippet;
    /** How many there are besides. */
    besides: number;
    onmore: () => void;
  }
  let { columns, children, besides, onmore }: Props = $props();
</script>

<div class="records">
  <table>
    <thead>
      <tr>
        {#each columns as { name, right }, c (c)}<th scope="col" class:right>{name}</th>{/each}
      </tr>
    </thead>
    <tbody>{@render children()}</tbody>
  </table>
  {#if besides > 0}
    <button type="button" class="act more" onclick={onmore}>{showCount(besides)} more</button>
  {/if}
</div>

<style>
  .records {
    border-top: 1px solid var(--rule);
    overflow: auto;
    flex: 1;
    min-height: 120px;
  }
  table {
    border-collapse: collapse;
    min-width: 100%;
    font-size: 13px;
  }
  th,
  .records :global(td),
  .records :global(th[scope='row']) {
    text-align: left;
    font-weight: 400;
    padding: 3px 8px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
  }
  th {
    font-weight: 600;
    border-bottom: 1.5px solid var(--rule-strong);
    padding: 5px 8px;
    position: sticky;
    top: 0;
    background: var(--paper);
  }
  th:first-child,
  .records :global(tbody tr > :first-child) {
    padding-left: 16px;
  }
  .right,
  .records :global(.right) {
    text-align: right;
  }
  .records :global(.plain) {
    background: none;
    border: 0;
    padding: 0;
    font: inherit;
    color: var(--tide);
    cursor: pointer;
  }
  .more {
    margin: 6px 16px;
  }
</style>
