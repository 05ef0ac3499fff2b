<script lang="ts">
  import { showCount, plainNumber } from '../../core/table/format';
  import { scaleLinear, scaleSqrt } from 'd3-scale';
  import { area, line } from 'd3-shape';
  import type { Shape } from '../../engine/protocol';
  import AxisLeft from './AxisLeft.svelte';
  import Chart from './Chart.svelte';
  import type { ChartFrame } from './figures';
  import { cut, spreadLabels } from './labels';
  import { styleOf, type ChartMark } from './marks';
  import { tickTexts } from './ticks';

  /** Points of one number along another, their lines, and the bounds around the line of the whole. */
  interface Props extends ChartFrame {
    shape: Extract<Shape, { kind: 'points' }>;
    /** Far-off points, opened as figures of the tally. */
    far: readonly { x: number; y: number; words: string; place: ChartMark['place'] }[];
    onrecord?: ((record: number) => void) | undefined;
  }
  let { width, height, description, shape, far, chosen = null, onopen, onrecord }: Props = $props();
  const id = $props.id();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const named = $derived(shape.lines.length > 1);
  const margin = $derived({ top: 26, right: named ? 130 : 16, bottom: 40, left: 66 });
  const xs = $derived([
    ...shape.points.map(([x]) => x),
    ...shape.cells.flatMap(([x]) => [x, x + shape.cell[0]]),
  ]);
  const ys = $derived([
    ...shape.points.map(([, y]) => y),
    ...shape.cells.flatMap(([, y]) => [y, y + shape.cell[1]]),
  ]);
  const ends = (values: readonly number[]): [number, number] => {
    let [low, high] = [Infinity, -Infinity];
    for (const v of values) {
      if (v < low) low = v;
      if (v > high) high = v;
    }
    return low === high ? [low - 1, high + 1] : [low, high];
  };
  const x = $derived(scaleLinear(ends(xs), [margin.left + 8, width - margin.right - 8]).nice(6));
  const y = $derived(scaleLinear(ends(ys), [height - margin.bottom, margin.top]).nice(5));
  const most = $derived(Math.max(1, ...shape.cells.map(([, , n]) => n)));
  const dark = $derived(scaleSqrt([0, most], [0.06, 0.85]));
  const ticks = $derived(x.ticks(6));
  const texts = $derived(tickTexts(ticks));
  const band = $derived(
    area<readonly [number, number, number]>()
      .x(([at]) => x(at))
      .y0(([, low]) => y(low))
      .y1(([, , high]) => y(high)),
  );
  const path = $derived(
    line<readonly [number, number]>()
      .x(([at]) => x(at))
      .y(([, up]) => y(up)),
  );
  const words = (a: number, b: number): string =>
    `${shape.x.name} ${plainNumber(a)}${shape.x.unit ? ` ${shape.x.unit}` : ''}, ${shape.y.name} ${plainNumber(b)}${shape.y.unit ? ` ${shape.y.unit}` : ''}`;
  const marks = $derived<ChartMark[]>([
    ...far.map((f) => ({ x: x(f.x), y: y(f.y), words: f.words, place: f.place })),
    ...shape.points.map(([a, b, record]) => ({
      x: x(a),
      y: y(b),
      words: `${words(a, b)}: record ${showCount(record + 1)}`,
      place: null,
      record,
    })),
    ...shape.cells.map(([a, b, n]) => ({
      x: x(a + shape.cell[0] / 2),
      y: y(b + shape.cell[1] / 2),
      words: `${showCount(n)} records about ${words(Number((a + shape.cell[0] / 2).toPrecision(3)), Number((b + shape.cell[1] / 2).toPrecision(3)))}`,
      place: null,
    })),
  ]);
  const labels = $derived(
    named
      ? spreadLabels(
          shape.lines.map((l, series) => ({ text: l.label, at: y(l.to[1]) + 4, series })),
          13,
          margin.top,
          height - margin.bottom,
        )
      : [],
  );
  const colour = (series: number): string =>
    named && series === 0 ? 'var(--ink)' : styleOf(named ? series - 1 : 0).colour;
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {onopen} {onrecord}>
  <AxisLeft
    ticks={y.ticks(5)}
    {y}
    from={margin.left}
    to={width - margin.right}
    unit={`${shape.y.name}${shape.y.unit ? `, ${shape.y.unit}` : ''}`}
  />
  {#each ticks as tick, k (tick)}
    <text x={x(tick)} y={height - margin.bottom + 17} text-anchor="middle">{texts[k]}</text>
  {/each}
  <text x={width - margin.right} y={height - 5} text-anchor="end"
    >{shape.x.name}{shape.x.unit ? `, ${shape.x.unit}` : ''}</text
  >
  {#each shape.cells as [a, b, n] (`${a} ${b}`)}
    <rect
      x={x(a)}
      y={y(b + shape.cell[1])}
      width={Math.max(1, x(a + shape.cell[0]) - x(a) - 0.5)}
      height={Math.max(1, y(b) - y(b + shape.cell[1]) - 0.5)}
      style:fill="var(--tide)"
      fill-opacity={dark(n)}
    />
  {/each}
  {#each shape.points as [a, b, record, group] (record)}
    <circle
      cx={x(a)}
      cy={y(b)}
      r={shape.points.length > 600 ? 2 : 3.2}
      style:fill={group < 0 ? 'var(--tide)' : styleOf(group).colour}
      fill-opacity="0.5"
    />
  {/each}
  {#if shape.band.length}
    <clipPath id="{id}-plot"
      ><rect
        x={margin.left}
        y={margin.top - 6}
        width={Math.max(0, width - margin.left - margin.right)}
        height={Math.max(0, height - margin.top - margin.bottom + 12)}
      /></clipPath
    >
    <path class="band" d={band(shape.band)} clip-path="url(#{id}-plot)" />
  {/if}
  {#each shape.lines as { from, to, label }, k (label + k)}
    <path
      class="line"
      d={path([from, to])}
      style:stroke={colour(k)}
      stroke-dasharray={named && k > 0 ? styleOf(k - 1).dash : ''}
    />
  {/each}
  {#each labels as end (end.series)}
    <text class="name" x={width - margin.right + 6} y={end.at} style:fill={colour(end.series)}
      >{cut(end.text, 120)}</text
    >
  {/each}
  {#each far as f, k (k)}
    <circle class="far" cx={x(f.x)} cy={y(f.y)} r="5.5" />
  {/each}
</Chart>

<style>
  .band {
    fill: var(--ink);
    fill-opacity: 0.07;
  }
  .line {
    fill: none;
    stroke-width: 1.8;
  }
  .far {
    fill: none;
    stroke: var(--plum);
    stroke-width: 1.6;
  }
  .name {
    font-weight: 600;
  }
</style>
