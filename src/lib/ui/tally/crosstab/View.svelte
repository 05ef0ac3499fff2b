<script lang="ts">
  import Bars from '../../chart/Bars.svelte';
  import Lines from '../../chart/Lines.svelte';
  import type { ViewProps } from '../view';
  import { crossModel } from './model';

  let { tally, source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const table = $derived(source.table('main'));
  const model = $derived(table ? crossModel(table) : null);
  const along = $derived(
    tally.kind === 'crosstab' && tally.across[tally.across.length - 1]?.period !== undefined,
  );
  const description = $derived(
    model ? `${model.rows.length} rows across ${model.steps.length} groups` : '',
  );
</script>

{#if model && model.steps.length}
  {#if along && model.steps.length > 1}
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
      series={model.steps.slice(0, 6).map((name, k) => ({
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
{/if}
