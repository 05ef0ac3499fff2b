<script lang="ts">
  import { showCount } from '../../../core/table/format';
  import Lines from '../../chart/Lines.svelte';
  import Points from '../../chart/Points.svelte';
  import { columnAt, drawnAt, numberAt, placeOf } from '../source';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen, onrecord }: ViewProps = $props();
  const main = $derived(source.table('main'));
  const points = $derived(source.table('points'));
  const farTable = $derived(source.table('far'));
  const far = $derived.by(() => {
    if (!farTable) return [];
    const [x, y, off] = ['x', 'y', 'deviations'].map((key) => columnAt(farTable, key));
    return farTable.rows.map((row) => ({
      x: numberAt(row, x),
      y: numberAt(row, y),
      words: `Record ${row.cells[0]}: ${row.cells[x]}, ${row.cells[y]}; ${row.cells[off]} deviations off`,
      place: placeOf(farTable, row, y),
    }));
  });
  const count = $derived(main?.rows[0]?.cells[columnAt(main, 'n')] ?? '');
</script>

{#if small}
  {#if main}<p class="small">{count} points</p>{/if}
{:else if source.shape.kind === 'points'}
  <Points
    {width}
    height={330}
    description="{source.shape.y.name} along {source.shape.x.name}: {showCount(
      source.shape.count,
    )} points and {source.shape.lines.length === 1
      ? 'their line'
      : `${source.shape.lines.length} lines`}"
    shape={source.shape}
    {far}
    {chosen}
    {onopen}
    {onrecord}
  />
  {#if source.shape.others}<p class="soft">
      The lines of {showCount(source.shape.others)} more groups are in the table.
    </p>{/if}
{:else if points}
  <Lines
    {width}
    height={260}
    description="The series and its line, over {points.rows.length} periods"
    steps={points.rows.map((r) => r.cells[0])}
    lines={[
      {
        name: 'as it was',
        figures: points.rows.map((r) => drawnAt(points, r, columnAt(points, 'y'))),
      },
      {
        name: 'the line',
        figures: points.rows.map((r) => drawnAt(points, r, columnAt(points, 'fitted'))),
      },
    ]}
    unit={points.head.columns[columnAt(points, 'y')]?.unit}
    {chosen}
    {onopen}
  />
{/if}

<style>
  .soft {
    color: var(--ink-soft);
  }
  .small {
    margin: 0;
    font-size: 20px;
    font-family: var(--font-serif);
    line-height: 56px;
  }
</style>
