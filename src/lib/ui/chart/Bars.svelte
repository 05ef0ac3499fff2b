<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import Chart from './Chart.svelte';
  import { extent, type ChartFrame, type Series } from './figures';
  import Hatch from './Hatch.svelte';
  import { cut } from './labels';
  import { styleOf, type ChartMark } from './marks';
  import { tickTexts } from './ticks';

  /** Bars that lie, one a row and a series: groups, values, conditions. */
  interface Props extends Omit<ChartFrame, 'height'> {
    /** Names of the rows. */
    rows: readonly string[];
    series: readonly Series[];
    unit?: string;
    share?: boolean;
  }
  let {
    width,
    description,
    rows,
    series,
    unit = '',
    share = false,
    chosen = null,
    small = false,
    onopen,
  }: Props = $props();
  const id = $props.id();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const thick = $derived(small ? 7 : series.length > 1 ? 9 : 15);
  const gap = $derived(small ? 3 : 7);
  const band = $derived(thick * series.length + gap);
  const labels = $derived(
    small ? 0 : Math.min(210, Math.max(...rows.map((r) => r.length), 4) * 6.6 + 12),
  );
  const top = $derived(small ? 2 : series.length > 1 ? 40 : 22);
  const height = $derived(top + rows.length * band + (small ? 2 : 8));
  const x = $derived(
    scaleLinear(
      extent(
        series.flatMap((s) => s.figures.map((f) => f.value)),
        true,
      ),
      [labels + 4, width - (small ? 4 : 62)],
    ),
  );
  /** Counts have no halves. */
  const whole = $derived(
    series.every((s) =>
      s.figures.every((f) => !(f.value === f.value) || Number.isInteger(f.value)),
    ),
  );
  const ticks = $derived(x.ticks(4).filter((tick) => !whole || Number.isInteger(tick)));
  const texts = $derived(tickTexts(ticks, share));
  const yOf = (row: number, s: number): number => top + row * band + s * thick;
  const marks = $derived(
    rows.flatMap((_, r) =>
      series.flatMap((s, k): ChartMark[] => {
        const figure = s.figures[r];
        return figure && figure.value === figure.value
          ? [
              {
                x: x(figure.value),
                y: yOf(r, k) + thick / 2,
                words: figure.words,
                place: figure.place,
              },
            ]
          : [];
      }),
    ),
  );
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {small} {onopen}>
  <Hatch id="{id}-part" />
  {#if !small}
    {#each ticks as tick, k (tick)}
      <line x1={x(tick)} x2={x(tick)} y1={top - 4} y2={height - 6} />
      <text x={x(tick)} y={top - 9} text-anchor="middle"
        >{texts[k]}{k === ticks.length - 1 && unit ? ` ${unit}` : ''}</text
      >
    {/each}
    {#if series.length > 1}
      {#each series as s, k (k)}
        <text x={labels + 4 + k * 130} y="13" class="name" style:fill={styleOf(k).colour}
          >{cut(s.name, 122)}</text
        >
      {/each}
    {/if}
  {/if}
  {#each rows as row, r (r)}
    {#if !small}<text
        class="row"
        x={labels - 4}
        y={top + r * band + (band - gap) / 2 + 4}
        text-anchor="end">{cut(row, labels - 10)}</text
      >{/if}
    {#each series as s, k (k)}
      {@const figure = s.figures[r]}
      {#if figure && figure.value === figure.value}
        <rect
          x={Math.min(x(0), x(figure.value))}
          y={yOf(r, k)}
          width={Math.max(1, Math.abs(x(figure.value) - x(0)))}
          height={thick - 1}
          style:fill={figure.partial
            ? `url(#${id}-part)`
            : series.length > 1
              ? styleOf(k).colour
              : 'var(--tide-bar)'}
          class:few={figure.few}
        />
      {/if}
    {/each}
  {/each}
  <line class="zero" x1={x(0)} x2={x(0)} y1={top - 4} y2={height - 4} />
</Chart>

<style>
  line {
    stroke: var(--rule);
  }
  .zero {
    stroke: var(--ink-soft);
  }
  .few {
    fill: var(--paper) !important;
    stroke: var(--tide);
    stroke-dasharray: 3 2;
  }
  .row {
    fill: var(--ink);
  }
  .name {
    font-weight: 600;
  }
</style>
