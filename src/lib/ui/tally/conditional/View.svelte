<script lang="ts">
  import Bars from '../../chart/Bars.svelte';
  import { drawnAt, groupsOf, labelsOf } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 24;
  const table = $derived(source.table('main'));
  const rows = $derived(table ? groupsOf(table).slice(0, small ? 4 : MOST) : []);
  const at = $derived(table?.head.labels ?? 0);
</script>

{#if table && rows.length}
  <Bars
    {width}
    description="{table.head.columns[at]?.title} of each row"
    rows={labelsOf(table, rows)}
    series={[
      {
        name: table.head.columns[at]?.title ?? '',
        figures: rows.map((r) => drawnAt(table, r, at)),
      },
    ]}
    unit={table.head.columns[at]?.unit}
    {chosen}
    {small}
    {onopen}
  />
  {#if !small}<DrawnOf {table} drawn={rows.length} />{/if}
{/if}
