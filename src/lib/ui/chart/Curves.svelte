<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { curveStepAfter, line } from 'd3-shape';
  import { showNumber } from '../../core/table/format';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import type { Shape } from '../../engine/protocol';
  import AxisLeft from './AxisLeft.svelte';
  import Chart from './Chart.svelte';
  import type { ChartFrame } from './figures';
  import { cut, spreadLabels } from './labels';
  import { styleOf, type ChartMark } from './marks';
  import { tickTexts } from './ticks';

  /** A place or a value read off the curve. */
  interface Reading {
    readonly value: number;
    readonly share: number;
    readonly text: string;
    readonly words: string;
    readonly place: FigurePlace | null;
    /** Which way it was asked. */
    readonly way: 'percentile' | 'rank';
  }
  interface Props extends Omit<ChartFrame, 'small'> {
    shape: Extract<Shape, { kind: 'curves' }>;
    readings: readonly Reading[];
    /** While a reading is dragged or keyed. */
    onmove?: ((at: number, to: number) => void) | undefined;
  }
  let {
    width,
    height,
    description,
    shape,
    readings,
    chosen = null,
    onopen,
    onmove,
  }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const margin = $derived({
    top: 18,
    right: shape.curves.length > 1 ? 120 : 20,
    bottom: 38,
    left: 58,
  });
  const low = $derived(Math.min(...shape.curves.map((c) => c.values[0])));
  /** A few values far off would press all others together: the axis ends at the 99.5 % place. */
  const high = $derived(
    Math.max(
      ...shape.curves.map(
        (c) =>
          c.values[
            Math.max(
              0,
              c.shares.findIndex((s) => s >= 0.995),
            )
          ],
      ),
      ...readings.map((r) => r.value).filter((v) => v === v),
    ),
  );
  const x = $derived(
    scaleLinear([low, high === low ? low + 1 : high], [margin.left, width - margin.right]).nice(6),
  );
  const y = $derived(scaleLinear([0, 1], [height - margin.bottom, margin.top]));
  const path = $derived(
    line<[number, number]>()
      .x(([v]) => Math.min(width - margin.right, x(v)))
      .y(([, s]) => y(s))
      .curve(curveStepAfter),
  );
  const points = (c: (typeof shape.curves)[number]): [number, number][] => [
    [c.values[0], 0],
    ...c.values.map((v, k): [number, number] => [v, c.shares[k]]),
  ];
  const ticks = $derived(x.ticks(6));
  const texts = $derived(tickTexts(ticks));
  const marks = $derived(
    readings.map(({ value, share, words, place }): ChartMark => ({
      x: x(value),
      y: y(share),
      words,
      place,
    })),
  );
  const ends = $derived(
    spreadLabels(
      shape.curves.map((c, series) => ({ text: c.label, at: y(0.98) + series * 4, series })),
      14,
      margin.top + 8,
      height - margin.bottom,
    ),
  );

  let dragging = $state<number | null>(null);
  function moved(event: PointerEvent): void {
    const box = chart?.element()?.getBoundingClientRect();
    if (dragging === null || !box) return;
    const reading = readings[dragging];
    const at =
      reading.way === 'percentile'
        ? y.invert(((event.clientY - box.top) / box.height) * height) * 100
        : x.invert(((event.clientX - box.left) / box.width) * width);
    onmove?.(
      dragging,
      reading.way === 'percentile' ? Math.round(Math.max(0, Math.min(100, at))) : at,
    );
  }
  function keyed(event: KeyboardEvent, k: number): void {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const { way, share, value } = readings[k];
    if (way === 'rank') onmove?.(k, value + by);
    else onmove?.(k, Math.max(0, Math.min(100, Math.round(share * 100) + by)));
  }
</script>

<svelte:window onpointermove={moved} onpointerup={() => (dragging = null)} />
<div class="curves">
  <Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {onopen}>
    <AxisLeft
      ticks={[0, 0.25, 0.5, 0.75, 1]}
      {y}
      from={margin.left}
      to={width - margin.right}
      share
    />
    {#each ticks as tick, k (tick)}
      <text x={x(tick)} y={height - margin.bottom + 17} text-anchor="middle">{texts[k]}</text>
    {/each}
    <text x={width - margin.right} y={height - 5} text-anchor="end"
      >{shape.name}{shape.unit ? `, ${shape.unit}` : ''}</text
    >
    {#each shape.curves as curve, k (k)}
      <path
        d={path(points(curve))}
        style:stroke={styleOf(k).colour}
        stroke-dasharray={styleOf(k).dash}
      />
    {/each}
    {#if shape.curves.length > 1}
      {#each ends as end (end.series)}
        <text
          class="name"
          x={width - margin.right + 6}
          y={end.at}
          style:fill={styleOf(end.series).colour}>{cut(end.text, 112)}</text
        >
      {/each}
    {/if}
    {#each readings as { value, share, text, way }, k (k)}
      {#if value === value && share === share}
        <g class={way}>
          <path class="lead" d="M{margin.left},{y(share)} H{x(value)} V{y(0)}" />
          <circle cx={x(value)} cy={y(share)} r="6" />
          {#if readings.length <= 4 || k === readings.length - 1}
            <text
              class="told"
              x={x(value) + 11}
              y={y(share) + (k % 2 ? 18 : 18)}
              text-anchor={x(value) > width - margin.right - 130 ? 'end' : 'start'}>{text}</text
            >
          {/if}
        </g>
      {/if}
    {/each}
  </Chart>
  {#if onmove}
    {#each readings as { value, share, text, way }, k (k)}
      {#if value === value && share === share}
        <span
          class="handle"
          style:left="{x(value)}px"
          style:top="{y(share)}px"
          role="slider"
          tabindex="0"
          aria-label={way === 'percentile' ? `Percentile ${k + 1}` : `Value ${k + 1}`}
          aria-valuenow={way === 'percentile' ? share * 100 : value}
          aria-valuemin={way === 'percentile' ? 0 : low}
          aria-valuemax={way === 'percentile' ? 100 : high}
          aria-valuetext={text}
          onpointerdown={(e) => {
            e.preventDefault();
            e.currentTarget.focus();
            dragging = k;
          }}
          onkeydown={(e) => keyed(e, k)}
          title={`${text}. Drag it, or use the arrow keys. ${showNumber(value)}`}
          data-test="reading"
        ></span>
      {/if}
    {/each}
  {/if}
</div>

<style>
  .curves {
    position: relative;
  }
  path {
    fill: none;
    stroke-width: 1.8;
  }
  .lead {
    stroke-width: 1;
    stroke-dasharray: 4 3;
  }
  .percentile .lead,
  .percentile circle {
    stroke: var(--brass);
  }
  .rank .lead,
  .rank circle {
    stroke: var(--plum);
  }
  circle {
    fill: var(--paper);
    stroke-width: 2.4;
  }
  .told {
    font-weight: 600;
  }
  .percentile .told {
    fill: var(--brass);
  }
  .rank .told {
    fill: var(--plum);
  }
  .name {
    font-weight: 600;
  }
  .handle {
    position: absolute;
    width: 20px;
    height: 20px;
    margin: -10px 0 0 -10px;
    border-radius: 50%;
    cursor: grab;
    touch-action: none;
  }
</style>
