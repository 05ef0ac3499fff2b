<script lang="ts">
  import { showCount } from '../../../core/table/format';
  import Fan from '../../chart/Fan.svelte';
  import Lines from '../../chart/Lines.svelte';
  import { seriesLines } from '../seriesLines';
  import { columnAt, drawnAt, numberAt } from '../source';
  import ChartNote from '../ChartNote.svelte';
  import type { ViewProps } from '../view';

  let { tally, source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const ahead = $derived(source.table('main'));
  const points = $derived(source.table('points'));
  /** What lies before those ahead; nothing where it is too long to be drawn to its end. */
  const past = $derived(points && points.rows.length === points.length ? points : null);
  const spec = $derived(tally.kind === 'forecast' ? tally : null);
  const at = $derived({
    forecast: ahead ? columnAt(ahead, 'forecast') : -1,
    actual: points ? columnAt(points, 'actual') : -1,
  });
  const bounds = $derived(
    !ahead || !spec
      ? []
      : spec.levels.flatMap((level, k) => {
          const [low, high] = [columnAt(ahead, `low${k + 1}`), columnAt(ahead, `high${k + 1}`)];
          return low < 0 || high < 0
            ? []
            : [
                {
                  name: `${Math.round(level * 100)} %`,
                  low: ahead.rows.map((r) => numberAt(r, low)),
                  high: ahead.rows.map((r) => numberAt(r, high)),
                },
              ];
        }),
  );
  const heldOut = $derived(
    past?.rows.filter((row) => row.marks.some((mark) => mark.kind === 'heldOut')).length ?? 0,
  );
</script>

{#if ahead && at.forecast >= 0}
  <Fan
    {width}
    height={small ? 56 : 270}
    description="{ahead.head.columns[at.forecast].title}: {past?.rows.length ??
      0} periods, and {ahead.rows.length} ahead with their bounds"
    steps={[...(past?.rows ?? []), ...ahead.rows].map((r) => r.cells[0])}
    past={past ? past.rows.map((r) => drawnAt(past, r, at.actual)) : []}
    ahead={ahead.rows.map((r) => drawnAt(ahead, r, at.forecast))}
    {bounds}
    {heldOut}
    unit={ahead.head.columns[at.forecast].unit}
    {chosen}
    {small}
    {onopen}
  />
  {#if points && !past && !small}<ChartNote
      words="The {showCount(points.length)} periods before are too many to draw; the table has all."
    />{/if}
{/if}

{#if !small && source.shape.kind === 'series'}
  <h3 class="caps">Each group carried on by itself</h3>
  <Lines
    {width}
    height={200}
    description="Forecast of {source.shape.lines.length} groups over {source.shape.steps
      .length} periods"
    steps={source.shape.steps}
    lines={seriesLines(source.shape, 'forecast')}
    unit={source.shape.unit}
    {chosen}
    {onopen}
  />
{/if}

<style>
  h3 {
    margin: 10px 0 2px;
  }
</style>
