<script lang="ts">
  import { withUnit } from '../../../core/table/format';
  import Curves from '../../chart/Curves.svelte';
  import Lines from '../../chart/Lines.svelte';
  import { columnAt, drawnAt, labelOf, numberAt, placeOf } from '../source';
  import type { ViewProps } from '../view';

  let {
    tally,
    source,
    width,
    small = false,
    chosen = null,
    onopen,
    onchange,
  }: ViewProps = $props();
  const table = $derived(source.table('main'));
  const ranks = $derived(source.table('ranks'));
  const spec = $derived(tally.kind === 'percentile' ? tally : null);
  const unit = $derived(source.shape.kind === 'curves' ? source.shape.unit : '');
  const readings = $derived.by(() => {
    if (!spec || spec.key || source.shape.kind !== 'curves') return [];
    const value = table ? columnAt(table, 'value') : -1;
    const rank = ranks ? columnAt(ranks, 'rank') : -1;
    return [
      ...(table && value >= 0
        ? table.rows.map((row, k) => ({
            value: numberAt(row, value),
            share: (spec.percentiles[k] ?? NaN) / 100,
            text: `${spec.percentiles[k]} % at or under ${withUnit(row.cells[value], unit)}`,
            words: `${spec.percentiles[k]} % are at or under ${withUnit(row.cells[value], unit)}`,
            place: placeOf(table, row, value),
            way: 'percentile' as const,
          }))
        : []),
      ...(ranks && rank >= 0
        ? ranks.rows.map((row) => ({
            value: numberAt(row, 0),
            share: numberAt(row, rank),
            text: `${withUnit(row.cells[0], unit)}: ${row.cells[rank]}`,
            words: `${withUnit(row.cells[0], unit)} stands at ${row.cells[rank]}`,
            place: placeOf(ranks, row, rank),
            way: 'rank' as const,
          }))
        : []),
    ];
  });

  /** A place or a value dragged elsewhere. */
  function move(at: number, to: number): void {
    if (!spec) return;
    const places = spec.percentiles.length;
    if (at < places) {
      const percentiles = spec.percentiles.map((p, k) => (k === at ? to : p));
      if (new Set(percentiles).size === places)
        onchange?.('Move a percentile', { ...spec, percentiles });
    } else {
      const value = Number(to.toPrecision(4));
      onchange?.('Move a value', {
        ...spec,
        ranksOf: spec.ranksOf.map((v, k) => (k === at - places ? value : v)),
      });
    }
  }
</script>

{#if small}
  {#if table}
    <Lines
      {width}
      height={56}
      description=""
      steps={table.rows.map((r) => labelOf(table, r))}
      lines={[
        {
          name: '',
          figures: table.rows.map((r) => drawnAt(table, r, columnAt(table, 'value'))),
        },
      ]}
      small
    />
  {/if}
{:else if source.shape.kind === 'curves' && source.shape.curves.length}
  <Curves
    {width}
    height={290}
    description="All values of {source.shape
      .name} in order: at each value, the share at or under it"
    shape={source.shape}
    {readings}
    {chosen}
    {onopen}
    onmove={spec && !spec.key ? move : undefined}
  />
  {#if source.shape.others}<p class="soft">
      {source.shape.others} more groups are in the table.
    </p>{/if}
{/if}

<style>
  .soft {
    color: var(--ink-soft);
    margin: 2px 0;
  }
</style>
