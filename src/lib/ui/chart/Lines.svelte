<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { line } from 'd3-shape';
  import AxisLeft from './AxisLeft.svelte';
  import Chart from './Chart.svelte';
  import { everyNth, extent, type ChartFrame, type Series } from './figures';
  import { cut, spreadLabels } from './labels';
  import { styleOf, type ChartMark } from './marks';

  /** Lines over equal steps: periods in turn, or the same months of several years. */
  interface Props extends ChartFrame {
    /** Texts of the steps. */
    steps: readonly string[];
    lines: readonly Series[];
    unit?: string;
    share?: boolean;
    /** Which line is drawn stronger than the others. */
    strong?: number;
  }
  let {
    width,
    height,
    description,
    steps,
    lines,
    unit = '',
    share = false,
    strong = -1,
    chosen = null,
    small = false,
    onopen,
  }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const named = $derived(lines.length > 1 || lines[0]?.name !== '');
  const names = $derived(
    named && !small
      ? Math.min(170, Math.max(...lines.map((l) => l.name.length), 0) * 6.6 + 16)
      : 10,
  );
  const margin = $derived(
    small
      ? { top: 3, right: 3, bottom: 3, left: 3 }
      : { top: 26, right: names, bottom: 26, left: 62 },
  );
  const values = $derived(lines.flatMap((l) => l.figures.map((f) => f.value)));
  const y = $derived(
    scaleLinear(extent(values, !share || Math.min(...values) >= 0), [
      height - margin.bottom,
      margin.top,
    ]).nice(5),
  );
  const x = $derived(
    scaleLinear([0, Math.max(1, steps.length - 1)], [margin.left + 6, width - margin.right - 6]),
  );
  const path = $derived(
    line<{ value: number }>()
      .defined((f) => f.value === f.value)
      .x((_, k) => x(k))
      .y((f) => y(f.value)),
  );
  const marks = $derived(
    lines.flatMap((l) =>
      l.figures.flatMap((f, k): ChartMark[] =>
        f.value === f.value ? [{ x: x(k), y: y(f.value), words: f.words, place: f.place }] : [],
      ),
    ),
  );
  const ends = $derived(
    spreadLabels(
      lines.flatMap((l, series) => {
        const last = l.figures.findLastIndex((f) => f.value === f.value);
        return last < 0 ? [] : [{ text: l.name, at: y(l.figures[last].value) + 4, series }];
      }),
      13,
      margin.top,
      height - margin.bottom,
    ),
  );
  const nth = $derived(
    everyNth(
      steps.length,
      width - margin.left - margin.right,
      Math.max(...steps.map((s) => s.length), 1) * 6.6 + 12,
    ),
  );
  const dots = $derived(values.length <= 160);
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {small} {onopen}>
  {#if !small}
    <AxisLeft ticks={y.ticks(5)} {y} from={margin.left} to={width - margin.right} {unit} {share} />
    {#each steps as step, k (k)}
      {#if k % nth === 0}<text x={x(k)} y={height - 8} text-anchor="middle">{step}</text>{/if}
    {/each}
  {/if}
  {#each lines as series, s (s)}
    {@const style = styleOf(s)}
    <g style:--series={style.colour}>
      <path
        d={path([...series.figures])}
        stroke-dasharray={style.dash}
        class:fine={steps.length > 400}
        class:strong={s === strong}
        class:soft={strong >= 0 && s !== strong}
      />
      {#if dots && !small}
        {#each series.figures as figure, k (k)}
          {#if figure.value === figure.value}<circle
              cx={x(k)}
              cy={y(figure.value)}
              r={figure.few || figure.partial ? 3.5 : 2.6}
              class:hollow={figure.few || figure.partial}
            />{/if}
        {/each}
      {/if}
    </g>
  {/each}
  {#if named && !small}
    {#each ends as end (end.series)}
      <text
        class="name"
        x={width - margin.right + 4}
        y={end.at}
        style:fill={styleOf(end.series).colour}>{cut(end.text, names - 6)}</text
      >
    {/each}
  {/if}
</Chart>

<style>
  path {
    fill: none;
    stroke: var(--series);
    stroke-width: 1.8;
    stroke-linejoin: round;
  }
  .fine {
    stroke-width: 1.1;
  }
  .strong {
    stroke-width: 2.6;
  }
  .soft {
    stroke-opacity: 0.55;
  }
  circle {
    fill: var(--series);
    stroke: var(--series);
  }
  .hollow {
    fill: var(--paper);
    stroke-width: 1.6;
  }
  .name {
    font-weight: 600;
  }
</style>
