<script lang="ts">
  import { scaleLinear, scaleSymlog } from 'd3-scale';
  import { showNumber } from '../../core/table/format';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import type { Shape } from '../../engine/protocol';
  import Chart from './Chart.svelte';
  import type { ChartFrame } from './figures';
  import { handleTexts, spreadLabels } from './labels';
  import type { ChartMark } from './marks';

  /** A band on the distribution. */
  interface BandDrawn {
    readonly from: number;
    readonly to: number;
    readonly text: string;
    readonly words: string;
    readonly place: FigurePlace | null;
  }
  interface Props extends ChartFrame {
    shape: Extract<Shape, { kind: 'bins' }>;
    bands: readonly BandDrawn[];
    /** Edges that can be dragged; none where they follow from the values. */
    edges: readonly number[];
    squeezed: boolean;
    /** While an edge is dragged or keyed. */
    onedge?: (at: number, value: number) => void;
  }
  let {
    width,
    height,
    description,
    shape,
    bands,
    edges,
    squeezed,
    chosen = null,
    small = false,
    onopen,
    onedge,
  }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const margin = $derived(
    small ? { top: 3, right: 3, bottom: 3, left: 3 } : { top: 28, right: 26, bottom: 46, left: 26 },
  );
  const domain = $derived<[number, number]>([
    Math.min(shape.edges[0], ...finite(bands.flatMap((b) => [b.from]))),
    Math.max(shape.edges[shape.edges.length - 1], ...finite(bands.flatMap((b) => [b.to]))),
  ]);
  const range = $derived<[number, number]>([margin.left, width - margin.right]);
  const binWidth = $derived(shape.edges[1] - shape.edges[0]);
  const x = $derived(
    squeezed
      ? scaleSymlog(domain, range).constant(Math.max(binWidth * 2, (domain[1] - domain[0]) / 60))
      : scaleLinear(domain, range),
  );
  const most = $derived(Math.max(1, ...shape.counts));
  /** One value far above all others is drawn cut off, and says how high it is. */
  const second = $derived(Math.max(1, ...[...shape.counts].sort((a, b) => b - a).slice(1, 2)));
  const cutOff = $derived(most > second * 3);
  const y = $derived(
    scaleLinear([0, cutOff ? second * 1.25 : most], [height - margin.bottom, margin.top]).clamp(
      true,
    ),
  );
  const bandOf = (from: number): number =>
    bands.findIndex((b) => from >= b.from - 1e-9 && from < b.to - 1e-9);
  const openBand = $derived(
    chosen
      ? bands.findIndex((b) => JSON.stringify(b.place?.row) === JSON.stringify(chosen.row))
      : -1,
  );
  const marks = $derived(
    bands.map((band): ChartMark => ({
      x: (x(clamp(band.from)) + x(clamp(band.to))) / 2,
      y: margin.top + 4,
      words: band.words,
      place: band.place,
    })),
  );
  const pills = $derived.by(() => {
    const room = width - margin.left - margin.right;
    const { texts, apart } = handleTexts(edges, room);
    return spreadLabels(
      edges.map((edge, series) => ({ text: texts[series], at: x(edge), series })),
      apart,
      margin.left,
      width - margin.right,
    );
  });

  function finite(values: readonly number[]): number[] {
    return values.filter(Number.isFinite);
  }
  function clamp(value: number): number {
    return Math.max(domain[0], Math.min(domain[1], value));
  }

  let dragging = $state<number | null>(null);
  const step = $derived(10 ** -shape.decimals);
  const rounded = (value: number): number =>
    Number((Math.round(value / step) * step).toFixed(shape.decimals));

  /** An edge stays between its neighbours. */
  function put(at: number, value: number): void {
    const low = (edges[at - 1] ?? -Infinity) + step;
    const high = (edges[at + 1] ?? Infinity) - step;
    const next = Math.max(low, Math.min(high, rounded(value)));
    if (next !== edges[at]) onedge?.(at, next);
  }
  function moved(event: PointerEvent): void {
    if (dragging === null) return;
    const box = chart?.element()?.getBoundingClientRect();
    if (box) put(dragging, x.invert(((event.clientX - box.left) / box.width) * width));
  }
  function keyed(event: KeyboardEvent, at: number): void {
    const by = { ArrowRight: 1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put(at, edges[at] + by * step);
  }
</script>

<svelte:window onpointermove={moved} onpointerup={() => (dragging = null)} />
<div class="falls">
  <Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {small} {onopen}>
    {#each shape.counts as count, k (k)}
      {#if count > 0}
        <rect
          x={x(shape.edges[k])}
          width={Math.max(0.8, x(shape.edges[k + 1]) - x(shape.edges[k]) - 0.6)}
          y={y(count)}
          height={height - margin.bottom - y(count)}
          class:strong={openBand >= 0 && bandOf(shape.edges[k]) === openBand}
        />
      {/if}
    {/each}
    <line class="floor" x1={range[0]} x2={range[1]} y1={y(0)} y2={y(0)} />
    {#if !small}
      {#each bands as band, k (k)}
        {@const from = x(clamp(band.from))}
        {@const to = x(clamp(band.to))}
        {#if to - from > 34}<text
            class="share"
            x={(from + to) / 2}
            y={margin.top - 10}
            text-anchor="middle">{band.text}</text
          >{/if}
      {/each}
      {#each edges as edge, k (k)}
        <line class="edge" x1={x(edge)} x2={x(edge)} y1={margin.top - 6} y2={y(0) + 6} />
      {/each}
      {#if cutOff}
        <text x={x(shape.edges[shape.counts.indexOf(most)]) + 5} y={margin.top + 12}
          >↑ {showNumber(most)}</text
        >
      {/if}
      {#if edges.length === 0}
        {#each x.ticks(7) as tick (tick)}
          <text x={x(tick)} y={height - margin.bottom + 16} text-anchor="middle"
            >{showNumber(tick)}</text
          >
        {/each}
      {/if}
      <text x={range[1]} y={height - 4} text-anchor="end"
        >{shape.name}{shape.unit ? `, ${shape.unit}` : ''}{shape.over || shape.under
          ? `; ${showNumber(shape.over + shape.under)} beyond what is drawn`
          : ''}</text
      >
    {/if}
  </Chart>
  {#if !small}
    {#each pills as pill (pill.series)}
      <span
        class="pill"
        class:dragging={dragging === pill.series}
        style:left="{pill.at}px"
        style:top="{height - margin.bottom + 7}px"
        role="slider"
        tabindex="0"
        aria-label="Edge {pill.series + 1}"
        aria-valuenow={edges[pill.series]}
        aria-valuemin={domain[0]}
        aria-valuemax={domain[1]}
        aria-valuetext="{pill.text} {shape.unit}"
        onpointerdown={(e) => {
          e.preventDefault();
          e.currentTarget.focus();
          dragging = pill.series;
        }}
        onkeydown={(e) => keyed(e, pill.series)}
        data-test="edge">{pill.text}</span
      >
    {/each}
  {/if}
</div>

<style>
  .falls {
    position: relative;
  }
  rect {
    fill: var(--tide-bar);
  }
  rect.strong {
    fill: var(--tide);
  }
  .floor {
    stroke: var(--rule-strong);
  }
  .edge {
    stroke: var(--rule-strong);
    stroke-width: 1.2;
  }
  .share {
    font-weight: 600;
    fill: var(--ink);
  }
  .pill {
    position: absolute;
    transform: translateX(-50%);
    padding: 1px 8px;
    border: 1.5px solid var(--tide);
    border-radius: 11px;
    background: var(--paper);
    color: var(--tide);
    font-size: 12px;
    font-weight: 600;
    cursor: ew-resize;
    touch-action: none;
    user-select: none;
    white-space: nowrap;
  }
  .pill.dragging,
  .pill:focus-visible {
    background: var(--tide);
    color: var(--on-tide);
  }
</style>
