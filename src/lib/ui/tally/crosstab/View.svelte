<script lang="ts">
  import Bars from '../../chart/Bars.svelte';
  import Lines from '../../chart/Lines.svelte';
  import ChartNote from '../ChartNote.svelte';
  import type { ViewProps } from '../view';
  import { crossModel } from './model';

  let { tally, source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const table = $derived(source.table('main'));
  const inTime = $derived(
    tally.kind === 'crosstab' && tally.across[tally.across.length - 1]?.period !== undefined,
  );
  const lines = $derived(table && inTime ? crossModel(table, 'lines') : null);
  const along = $derived(lines !== null && lines.steps.length > 1);
  const model = $derived(along ? lines : table ? crossModel(table, 'bars') : null);
  const description = $derived(
    model ? `${model.rows.length} rows across ${model.steps.length} groups` : '',
  );
</script>

{#if model && model.steps.length}
  {#if along}
    <Lines
      {width}
      height={small ? 56 : 240}
      {description}
      steps={model.steps}
      lines={model.rows}
      unit={model.unit}
      share={model.share}
      {chosen}
      {small}
      {onopen}
    />
  {:else}
    <Bars
      {width}
      {description}
      rows={model.rows.slice(0, small ? 3 : 10).map((r) => r.name)}
      series={model.steps.map((name, k) => ({
        name,
        figures: model.rows.map((r) => r.figures[k]),
      }))}
      unit={model.unit}
      share={model.share}
      {chosen}
      {small}
      {onopen}
    />
  {/if}
  {#if model.left && !small}<ChartNote words="{model.left} The table has all." />{/if}
{/if}
