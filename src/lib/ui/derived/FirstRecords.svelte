<script lang="ts">
  /** The first records of the list with what is made or brought, as a small table. */
  interface Props {
    heads: readonly { readonly name: string; readonly unit: string; readonly right: boolean }[];
    /** `none`: why the last cell has no value. */
    rows: readonly {
      readonly record: number;
      readonly cells: readonly string[];
      readonly none?: string;
    }[];
    /** The first so many columns are the list's own; what follows them stands out. */
    own: number;
  }
  let { heads, rows, own }: Props = $props();
</script>

<div class="scroll">
  <table>
    <thead>
      <tr
        >{#each heads as head, k (k)}<th scope="col" class:right={head.right}
            >{head.name}<small>{head.unit}</small></th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each rows as { record, cells, none } (record)}
        <tr>
          {#each cells as cell, k (k)}
            <td class:right={heads[k]?.right} class:made={k >= own}
              >{#if none && k === cells.length - 1}<i>{none}</i>{:else}{cell || '–'}{/if}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    padding: 4px 6px;
    border-bottom: 1px solid var(--rule);
    text-align: left;
    vertical-align: top;
    max-width: 150px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  th {
    border-bottom: 1.5px solid var(--rule-strong);
  }
  small {
    display: block;
    font-weight: 400;
    color: var(--ink-soft);
  }
  .right {
    text-align: right;
  }
  .made {
    font-weight: 600;
  }
  i {
    font-weight: 400;
    color: var(--ink-soft);
  }
</style>
