<script lang="ts">
  import Lines from '../../chart/Lines.svelte';
  import { columnAt } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';
  import { seriesLines } from '../seriesLines';
  import { alongTime, yearsOverlaid } from './model';

  let {
    tally,
    source,
    width,
    small = false,
    drawn = 'along',
    chosen = null,
    onopen,
  }: ViewProps = $props();
  const table = $derived(source.table('main'));
  const spec = $derived(tally.kind === 'periods' ? tally : null);
  const model = $derived(
    table && spec
      ? drawn === 'overlaid' && !small
        ? yearsOverlaid(table, spec.calendar?.yearStartsIn ?? 1)
        : alongTime(table, small ? 1 : sameUnit())
      : null,
  );
  /** How many of the measures share the unit of the first: only those share an axis. */
  function sameUnit(): number {
    if (!table || !spec) return 1;
    const unit = (k: number): string | undefined => {
      const column = table.head.columns[columnAt(table, `m${k + 1}`)];
      return column && `${column.unit} ${column.type}`;
    };
    let n = 1;
    while (n < spec.measures.length && unit(n) === unit(0)) n++;
    return n;
  }
  const head = $derived(table?.head.columns[columnAt(table, 'm1')]);
</script>

{#if !small && source.shape.kind === 'series'}
  <Lines
    {width}
    height={270}
    description="{source.shape.title} of {source.shape.lines.length} groups over {source.shape.steps
      .length} periods"
    steps={source.shape.steps}
    lines={seriesLines(source.shape, 'm1')}
    unit={source.shape.unit}
    share={source.shape.share}
    {chosen}
    {onopen}
  />
  {#if source.shape.others}<p class="soft">
      {source.shape.others} more groups are in the table.
    </p>{/if}
{:else if model && head && model.steps.length}
  <Lines
    {width}
    height={small ? 56 : 250}
    description="{head.title} over {model.steps.length} periods{model.lines.length > 1
      ? `, ${model.lines.length} lines`
      : ''}"
    steps={model.steps}
    lines={model.lines}
    strong={model.strong}
    unit={head.unit}
    share={head.type === 'share'}
    {chosen}
    {small}
    {onopen}
  />
  {#if table && !small}<DrawnOf {table} drawn={table.rows.length} what="periods" />{/if}
{/if}

<style>
  .soft {
    color: var(--ink-soft);
    margin: 2px 0;
  }
</style>
