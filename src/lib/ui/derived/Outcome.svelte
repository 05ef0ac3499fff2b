<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import FirstRecords from './FirstRecords.svelte';
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
<FirstRecords heads={column.heads} rows={column.rows} own={column.heads.length - 1} />
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
