<script lang="ts">
  import Bars from '../../chart/Bars.svelte';
  import { columnAt, drawnAt } from '../source';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 24;
  const table = $derived(source.table('main'));
  const rows = $derived((table?.rows ?? []).slice(0, small ? 5 : MOST));
  /** Figures of several units share an axis only as their relative change. */
  const at = $derived(
    table ? Math.max(columnAt(table, 'change'), columnAt(table, 'difference')) : -1,
  );
</script>

{#if table && at >= 0 && rows.length}
  <Bars
    {width}
    says="How far each figure moved"
    rows={rows.map((r) => `${r.cells[0]}, ${r.cells[1]}`)}
    series={[{ name: 'moved', figures: rows.map((r) => drawnAt(table, r, at)) }]}
    share={table.head.columns[at].type === 'share'}
    {chosen}
    {small}
    {onopen}
  />
{/if}
