<script lang="ts">
  import { showCount } from '../../../core/table/format';
  import Bars from '../../chart/Bars.svelte';
  import { columnAt, drawnAt, labelOf } from '../source';
  import ChartNote from '../ChartNote.svelte';
  import type { ViewProps } from '../view';

  /** Both figures of each group, one under the other. */
  let { tally, source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 12;
  const table = $derived(source.table('main'));
  const at = $derived({
    here: table ? columnAt(table, 'here') : -1,
    there: table ? columnAt(table, 'there') : -1,
  });
  const groups = $derived((table?.rows ?? []).filter(({ kind }) => kind === 'group'));
  const rows = $derived(groups.slice(0, small ? 4 : MOST));
  const other = $derived(tally.kind === 'reconciliation' ? tally.with : '');
  const side = (column: number): string => table?.head.columns[column]?.title ?? '';
</script>

{#if table && at.here >= 0 && rows.length}
  <Bars
    {width}
    description="{side(at.here)} beside {side(at.there)}"
    rows={rows.map((row) => labelOf(table, row))}
    series={[
      { name: 'this list', figures: rows.map((row) => drawnAt(table, row, at.here)) },
      { name: other, figures: rows.map((row) => drawnAt(table, row, at.there)) },
    ]}
    share={false}
    {chosen}
    {small}
    {onopen}
  />
  {#if groups.length > rows.length && !small}
    <ChartNote
      words="The first {rows.length} of {showCount(
        groups.length,
      )} groups are drawn; the table has all."
    />
  {/if}
{/if}
