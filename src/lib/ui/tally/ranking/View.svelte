<script lang="ts">
  import Bars from '../../chart/Bars.svelte';
  import Slopes from '../../chart/Slopes.svelte';
  import { columnAt, drawnAt, firstFigure, labelsOf, numberAt, placeOf } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';

  let { tally, source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 24;
  const table = $derived(source.table('main'));
  const grouped = $derived(tally.kind === 'ranking' && tally.within < tally.groups.length);
  const rows = $derived(
    (table?.rows ?? [])
      .filter((r) => r.kind === 'group' || (r.kind === 'others' && grouped))
      .slice(0, small ? 5 : MOST),
  );
  const by = $derived(
    table
      ? columnAt(table, 'm1') >= 0
        ? columnAt(table, 'm1')
        : columnAt(table, 'value') >= 0
          ? columnAt(table, 'value')
          : firstFigure(table)
      : -1,
  );
  const before = $derived(table ? columnAt(table, 'placeBefore') : -1);
  const after = $derived(table ? columnAt(table, 'placeAfter') : -1);
  const placed = $derived(rows.filter((r) => r.kind === 'group'));
  const names = $derived(table ? labelsOf(table, placed) : []);
</script>

{#if table && by >= 0 && rows.length}
  <div class:two={before >= 0 && !small && width > 760}>
    <Bars
      width={before >= 0 && !small && width > 760 ? Math.round(width * 0.55) : width}
      description="{table.head.columns[by].title}, in places"
      rows={grouped
        ? labelsOf(table, rows)
        : rows.map((r) => `${r.cells[0]}. ${r.cells[table.head.labels - 1] ?? ''}`)}
      series={[
        { name: table.head.columns[by].title, figures: rows.map((r) => drawnAt(table, r, by)) },
      ]}
      unit={table.head.columns[by].unit}
      {chosen}
      {small}
      {onopen}
    />
    {#if before >= 0 && !small}
      <Slopes
        width={width > 760 ? Math.round(width * 0.42) : width}
        description="Change of place"
        before={table.head.columns[before].title.replace('Place in ', '')}
        after={table.head.columns[after].title.replace('Place in ', '')}
        rows={placed.map((r, k) => ({
          name: names[k],
          from: numberAt(r, before),
          to: numberAt(r, after),
          words: `${names[k]}: place ${r.cells[before]}, then ${r.cells[after]}`,
          place: placeOf(table, r, after),
        }))}
        {chosen}
        {onopen}
      />
    {/if}
  </div>
  {#if !small}<DrawnOf {table} drawn={rows.length} what={grouped ? 'groups' : 'places'} />{/if}
{/if}

<style>
  .two {
    display: flex;
    gap: 20px;
    align-items: flex-start;
  }
</style>
