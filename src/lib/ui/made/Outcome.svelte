<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { ReplyOf } from '../../engine/protocol';

  interface Props {
    column: NonNullable<ReplyOf<'draft'>['column']>;
    /** Opens a record by its number. */
    onrecord: (number: number) => void;
  }
  let { column, onrecord }: Props = $props();

  const all = $derived(column.all);
  const without = $derived(
    all
      ? [
          all.blank && `${showCount(all.blank)} where a column it needs is blank`,
          all.unread && `${showCount(all.unread)} where one is unread`,
          all.none && `${showCount(all.none)} where it has no value`,
        ].filter(Boolean)
      : [],
  );
  const missing = $derived(all ? all.blank + all.unread + all.none : 0);
</script>

<h3 class="caps">The first records</h3>
<div class="scroll">
  <table>
    <thead>
      <tr
        >{#each column.heads as head, k (k)}<th scope="col" class:right={head.right}
            >{head.name}<small>{head.unit}</small></th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each column.rows as { record, cells, none } (record)}
        <tr>
          {#each cells as cell, k (k)}
            {@const last = k === cells.length - 1}
            <td class:right={column.heads[k]?.right} class:soft={last && none !== ''}
              >{#if last && none}<i>{none}</i>{:else if last}<b>{cell}</b>{:else}{cell ||
                  '–'}{/if}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>
{#if column.of >= column.heads.length}
  <p class="soft">
    The first {column.heads.length - 1} of {column.of} columns it is made of are shown.
  </p>
{/if}
<p data-test="made-outcome">
  {column.type[0].toUpperCase()}{column.type.slice(1)}{#if all}, in {counted(
      all.values,
      'record',
    )}{#if all.distinct !== null}, {counted(all.distinct, 'value')} of it{/if}.
    {#if missing}None in {showCount(missing)}: {without.join(', ')}.{/if}
    {#if all.lowest}From {all.lowest} to {all.highest}{#if all.far}{@const { far } = all},
        <button type="button" class="act far" onclick={() => onrecord(far.record)}
          >one far off: {far.text} in record {showCount(far.record)}</button
        >{/if}.{/if}
  {:else}…{/if}
</p>

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
  th small {
    display: block;
    font-weight: 400;
    color: var(--ink-soft);
  }
  .right {
    text-align: right;
  }
  .soft {
    color: var(--ink-soft);
  }
  p {
    margin: 0;
  }
  .far {
    color: var(--plum);
    display: inline;
  }
</style>
