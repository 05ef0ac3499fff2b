<script lang="ts">
  import type { MeasureKind } from '../../../core/measure/measure';
  import type { Row } from '../../../engine/protocol';
  import Boxes from '../../chart/Boxes.svelte';
  import type { Drawn } from '../../chart/figures';
  import { drawnAt } from '../source';
  import DrawnOf from '../DrawnOf.svelte';
  import type { ViewProps } from '../view';

  let { tally, source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 30;
  const table = $derived(source.table('main'));
  const NONE: Drawn = { value: NaN, words: '', place: null };
  const spec = $derived(tally.kind === 'spread' ? tally : null);
  /** Columns share an axis only where they share a unit: the first column's rows are drawn. */
  const first = $derived(table?.rows[0]?.cells[0]);
  const rows = $derived(
    (table?.rows ?? [])
      .filter((r) => r.cells[0] === first || !spec?.key)
      .filter((r) => r.kind !== 'total' || !spec?.key || !small)
      .slice(0, small ? 4 : MOST),
  );

  function factOf(row: Row, kind: MeasureKind): Drawn {
    const at = spec?.facts.findIndex((f) => f.kind === kind) ?? -1;
    const column = table?.head.columns.findIndex((c) => c.key === `f${at + 1}`) ?? -1;
    return table && at >= 0 && column >= 0 ? drawnAt(table, row, column) : NONE;
  }
  const drawn = $derived(
    rows.map((row) => ({
      name: spec?.key ? row.cells[1] || 'All' : row.cells[0],
      few: row.marks.some((m) => m.kind === 'few'),
      facts: {
        low: factOf(row, 'min'),
        q1: factOf(row, 'lowerQuartile'),
        median: factOf(row, 'median'),
        q3: factOf(row, 'upperQuartile'),
        high: factOf(row, 'max'),
        mean: factOf(row, 'mean'),
      },
    })),
  );
  const any = $derived(drawn.some((d) => Object.values(d.facts).some((f) => f.value === f.value)));
</script>

{#if table && any}
  <Boxes
    {width}
    description="How far {first} spreads: range, quartiles, median and mean of each group"
    rows={drawn}
    {chosen}
    {small}
    {onopen}
  />
  {#if !small}<p class="soft">
      Line: lowest to highest. Box: quartiles, with the median. Diamond: mean. Hollow: few records.
    </p>
    <DrawnOf {table} drawn={rows.length} />{/if}
{:else if !small}
  <p class="soft">
    Choose lowest, quartiles, median, highest or mean among the facts to see them drawn.
  </p>
{/if}

<style>
  .soft {
    color: var(--ink-soft);
    margin: 2px 0;
    font-size: 12px;
  }
</style>
