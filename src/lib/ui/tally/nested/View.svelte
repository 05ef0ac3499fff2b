<script lang="ts">
  import Bars from '../../chart/Bars.svelte';
  import { drawnAt, firstFigure, groupsOf, labelsOf } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 30;
  const table = $derived(source.table('main'));
  const rows = $derived(table ? groupsOf(table).slice(0, small ? 5 : MOST) : []);
  const at = $derived(table ? firstFigure(table) : -1);
</script>

{#if table && at >= 0 && rows.length}
  <Bars
    {width}
    description="{table.head.columns[at].title} of each group"
    rows={labelsOf(table, rows)}
    series={[{ name: '', figures: rows.map((r) => drawnAt(table, r, at)) }]}
    unit={table.head.columns[at].unit}
    {chosen}
    {small}
    {onopen}
  />
  {#if !small}<DrawnOf {table} drawn={rows.length} />{/if}
{/if}
