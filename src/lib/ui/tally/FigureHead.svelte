<script lang="ts">
  import type { EyeSort } from '../bench/tallyFigures.svelte';
  import { headSpans, type ShownColumn, type ShownColumns } from './columns';

  /** The heads of a figure table: what several columns have in common over them, then each by itself. */
  interface Props {
    shown: ShownColumns;
    sort: EyeSort;
    /** A head was pressed: the table is sorted by it, for the eye. */
    onturn: (column: ShownColumn) => void;
  }
  let { shown, sort, onturn }: Props = $props();
  const columns = $derived([...shown.labels, ...shown.figures]);
  const firstFigure = $derived(shown.labels.length);
  const spans = $derived(headSpans(shown.figures));
  /** Height of the heads that stand over others. */
  let spanHeight = $state(0);
</script>

<thead>
  {#if spans.length}
    <tr bind:clientHeight={spanHeight}>
      {#each shown.labels as column, c (column.key)}<td class="over" class:lead={c === 0}
        ></td>{/each}
      {#each spans as { words, columns: over }, k (k)}
        {#if words}<th class="over" scope="colgroup" colspan={over}>{words}</th>
        {:else}<td class="over" colspan={over}></td>{/if}
      {/each}
    </tr>
  {/if}
  <tr>
    {#each columns as column, c (column.key)}
      <th
        scope="col"
        style:top={spans.length ? `${spanHeight - 1}px` : undefined}
        class:right={column.right && c >= firstFigure}
        class:lead={c === 0}
        aria-sort={sort?.column === column.key
          ? sort.descending
            ? 'descending'
            : 'ascending'
          : undefined}
      >
        <button
          type="button"
          tabindex="-1"
          title="{column.title}{column.words ? `. ${column.words}` : ''}. Sort for the eye"
          onclick={() => onturn(column)}
          class:short={column.words.length <= 16 && column.sub.length <= 20}
          >{column.words}{#if sort?.column === column.key}<span aria-hidden="true"
              >{sort.descending ? ' ▾' : ' ▴'}</span
            >{/if}{#if column.sub}<small>{column.sub}</small>{/if}</button
        >
      </th>
    {/each}
  </tr>
</thead>

<style>
  th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
    text-align: left;
    vertical-align: bottom;
    font-weight: 600;
    padding: 0 10px 5px;
    border-bottom: 1.5px solid var(--rule-strong);
    max-width: 190px;
  }
  .lead {
    position: sticky;
    left: 0;
    background: var(--paper);
    max-width: 320px;
  }
  th.lead {
    z-index: 2;
  }
  .over {
    position: sticky;
    top: 0;
    z-index: 1;
    height: auto;
    padding: 0 10px 3px;
    line-height: 1.3;
    text-align: center;
    background: var(--paper);
    border-bottom: 0;
    white-space: normal;
    max-width: none;
  }
  th.over {
    color: var(--ink-soft);
    /* A line over just the columns that it is of. */
    background: linear-gradient(var(--rule-strong) 0 0) 10px 100% / calc(100% - 20px) 1px no-repeat
      var(--paper);
  }
  td.over.lead {
    z-index: 2;
  }
  th button {
    background: none;
    border: 0;
    padding: 0;
    font: inherit;
    color: inherit;
    text-align: inherit;
    cursor: pointer;
    overflow-wrap: break-word;
  }
  .short {
    white-space: nowrap;
  }
  th small {
    display: block;
    font-weight: 400;
    font-size: 12px;
    color: var(--ink-soft);
  }
  .right {
    text-align: right;
  }
</style>
