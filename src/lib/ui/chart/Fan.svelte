<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { area, line } from 'd3-shape';
  import AxisLeft from './AxisLeft.svelte';
  import Chart from './Chart.svelte';
  import { everyNth, extent, type ChartFrame, type Drawn } from './figures';
  import { spreadLabels } from './labels';
  import type { ChartMark } from './marks';

  /** What was, and what comes next: the forecast dashed, its bounds as bands that widen. */
  interface Props extends ChartFrame {
    /** Texts of the periods, past and ahead. */
    steps: readonly string[];
    past: readonly Drawn[];
    ahead: readonly Drawn[];
    /** Bounds from the narrowest out, each with its lower and upper values ahead. */
    bounds: readonly {
      readonly name: string;
      readonly low: readonly number[];
      readonly high: readonly number[];
    }[];
    /** How many of the last points were held out for testing. */
    heldOut: number;
    unit?: string;
  }
  let {
    width,
    height,
    description,
    steps,
    past,
    ahead,
    bounds,
    heldOut,
    unit = '',
    chosen = null,
    small = false,
    onopen,
  }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const margin = $derived(
    small ? { top: 3, right: 3, bottom: 3, left: 3 } : { top: 28, right: 62, bottom: 26, left: 62 },
  );
  const values = $derived([
    ...[...past, ...ahead].map((f) => f.value),
    ...bounds.flatMap((b) => [...b.low, ...b.high]),
  ]);
  const y = $derived(
    scaleLinear(extent(values, true), [height - margin.bottom, margin.top]).nice(5),
  );
  const x = $derived(
    scaleLinear([0, Math.max(1, steps.length - 1)], [margin.left + 4, width - margin.right]),
  );
  const first = $derived(past.length);
  /** What was held out lies so far to the right that its name would not fit behind its start. */
  const atEnd = $derived(x(first - heldOut) > width - margin.right - 130);
  const path = $derived((from: number) =>
    line<Drawn>()
      .defined((f) => f.value === f.value)
      .x((_, k) => x(from + k))
      .y((f) => y(f.value)),
  );
  const band = $derived((bound: (typeof bounds)[number]) =>
    area<number>()
      .x((_, k) => x(first + k))
      .y0((v) => y(v))
      .y1((_, k) => y(bound.high[k])),
  );
  const all = $derived([...past, ...ahead]);
  const marks = $derived(
    all.flatMap((f, k): ChartMark[] =>
      f.value === f.value ? [{ x: x(k), y: y(f.value), words: f.words, place: f.place }] : [],
    ),
  );
  /** Names at the right end: the forecast's, then each bound's at its upper line. */
  const ends = $derived(
    spreadLabels(
      [ahead.map((f) => f.value), ...bounds.map((b) => b.high)].flatMap((line, series) =>
        line.length
          ? [
              {
                text: series === 0 ? 'forecast' : bounds[series - 1].name,
                at: y(line[line.length - 1]) + 4,
                series,
              },
            ]
          : [],
      ),
      13,
      margin.top,
      height - margin.bottom,
    ),
  );
  const nth = $derived(
    everyNth(
      steps.length,
      width - margin.left - margin.right,
      Math.max(...steps.map((s) => s.length), 1) * 6.6 + 14,
    ),
  );
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {small} {onopen}>
  {#if !small}
    {#if heldOut > 0 && heldOut < past.length}
      <rect
        class="held"
        x={x(first - heldOut) - 4}
        width={x(first - 1) - x(first - heldOut) + 8}
        y={margin.top}
        height={height - margin.bottom - margin.top}
      />
      <text
        x={atEnd ? x(first - 1) + 2 : x(first - heldOut) + 2}
        y={margin.top + 13}
        text-anchor={atEnd ? 'end' : 'start'}>held out to choose by</text
      >
    {/if}
    <AxisLeft ticks={y.ticks(5)} {y} from={margin.left} to={width - margin.right} {unit} />
    {#each steps as step, k (k)}
      {#if k % nth === 0}<text x={x(k)} y={height - 8} text-anchor="middle">{step}</text>{/if}
    {/each}
  {/if}
  {#each [...bounds].reverse() as bound (bound.name)}
    <path class="bound" d={band(bound)([...bound.low])} />
  {/each}
  <path class="past" class:fine={past.length > 400} d={path(0)([...past])} />
  <path class="ahead" d={path(first)([...ahead])} />
  {#if !small}
    {#each ends as end (end.series)}
      <text class:name={end.series === 0} x={width - margin.right + 5} y={end.at}>{end.text}</text>
    {/each}
  {/if}
</Chart>

<style>
  path {
    fill: none;
  }
  .past {
    stroke: var(--ink);
    stroke-width: 1.7;
  }
  .fine {
    stroke-width: 1;
  }
  .ahead {
    stroke: var(--tide);
    stroke-width: 2.2;
    stroke-dasharray: 5 3;
  }
  .bound {
    fill: var(--tide-bar);
    fill-opacity: 0.5;
  }
  .held {
    fill: var(--band);
  }
  .name {
    fill: var(--tide);
    font-weight: 600;
  }
</style>
