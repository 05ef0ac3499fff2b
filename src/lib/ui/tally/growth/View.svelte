<script lang="ts">
  import { showCount } from '../../../core/table/format';
  import Lines from '../../chart/Lines.svelte';
  import type { Drawn } from '../../chart/figures';
  import { columnAt, drawnAt, numberAt } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const main = $derived(source.table('main'));
  const periods = $derived(source.table('periods'));
  const value = $derived(periods ? columnAt(periods, 'value') : -1);
  const rate = $derived(main ? numberAt(main.rows[0], columnAt(main, 'rate')) : NaN);
  const firstValue = $derived(main ? numberAt(main.rows[0], columnAt(main, 'first')) : NaN);
  const figures = $derived(
    periods && value >= 0 ? periods.rows.map((row) => drawnAt(periods, row, value)) : [],
  );
  const count = $derived(
    main ? Math.max(2, Math.round(numberAt(main.rows[0], columnAt(main, 'intervals'))) + 1) : 0,
  );
  /** What the same rate from first to last would have come to at each period. */
  const even = $derived(
    Array.from({ length: figures.length || Math.min(count, 400) }, (_, k): Drawn => ({
      value: firstValue * (1 + rate) ** k,
      words: `at the compound rate: ${(firstValue * (1 + rate) ** k).toPrecision(6)}`,
      place: null,
    })),
  );
  const all = $derived(periods?.length ?? count);
  const steps = $derived(
    periods ? periods.rows.map((row) => row.cells[0]) : even.map((_, k) => `interval ${k}`),
  );
</script>

{#if main && even.length && rate === rate}
  <Lines
    {width}
    height={small ? 56 : 230}
    description="The values from first to last, and what the compound rate makes of the first, over {steps.length -
      1} intervals"
    {steps}
    lines={[
      ...(figures.length ? [{ name: 'as it was', figures }] : []),
      { name: 'at the compound rate', figures: even },
    ]}
    unit={main.head.columns[0]?.unit}
    {chosen}
    {small}
    {onopen}
  />
  {#if !small}<p class="soft">
      {showCount(all)} values, {showCount(all - 1)} intervals between them: growth is counted over the
      intervals.
    </p>
    {#if periods}<DrawnOf table={periods} drawn={periods.rows.length} what="periods" />{/if}{/if}
{/if}

<style>
  .soft {
    color: var(--ink-soft);
    margin: 2px 0;
  }
</style>
