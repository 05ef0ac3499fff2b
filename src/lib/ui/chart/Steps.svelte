<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import Chart from './Chart.svelte';
  import type { ChartFrame, Drawn } from './figures';
  import { cut } from './labels';
  import type { ChartMark } from './marks';
  import { tickTexts } from './ticks';

  /** Steps that lead from one figure to another, one under the other. */
  interface Props extends Omit<ChartFrame, 'height'> {
    start: { name: string; value: number };
    end: { name: string; value: number };
    steps: readonly { readonly name: string; readonly drawn: Drawn }[];
    unit?: string;
  }
  let {
    width,
    description,
    start,
    end,
    steps,
    unit = '',
    chosen = null,
    small = false,
    onopen,
  }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const band = $derived(small ? 8 : 24);
  const thick = $derived(small ? 5 : 13);
  const top = $derived(small ? 2 : 24);
  const height = $derived(top + (steps.length + (small ? 0 : 2)) * band + 6);
  const labels = $derived(
    small ? 2 : Math.min(200, Math.max(...steps.map((s) => s.name.length), 6) * 6.6 + 14),
  );
  const runs = $derived.by(() => {
    let at = start.value;
    return steps.map(({ drawn }) => {
      const from = at;
      if (drawn.value === drawn.value) at += drawn.value;
      return { from, to: at };
    });
  });
  const reach = $derived([start.value, end.value, ...runs.map((r) => r.to)]);
  const x = $derived(
    scaleLinear(
      [Math.min(...reach), Math.max(...reach)],
      [labels + 8, width - (small ? 4 : 84)],
    ).nice(4),
  );
  const ticks = $derived(x.ticks(5));
  const texts = $derived(tickTexts(ticks));
  const rowOf = (k: number): number => top + (k + (small ? 0 : 1)) * band;
  const marks = $derived(
    steps.map(({ drawn }, k): ChartMark => ({
      x: (x(runs[k].from) + x(runs[k].to)) / 2,
      y: rowOf(k) + thick / 2,
      words: drawn.words,
      place: drawn.place,
    })),
  );
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {small} {onopen}>
  {#if !small}
    {#each ticks as tick, k (tick)}
      <line class="grid" x1={x(tick)} x2={x(tick)} y1={top - 4} y2={height - 6} />
      <text x={x(tick)} y={top - 9} text-anchor="middle"
        >{texts[k]}{k === ticks.length - 1 && unit ? ` ${unit}` : ''}</text
      >
    {/each}
    <text class="end" x={labels - 4} y={top + 11} text-anchor="end"
      >{cut(start.name, labels - 8)}</text
    >
    <line class="figure" x1={x(start.value)} x2={x(start.value)} y1={top} y2={rowOf(0)} />
    <text class="end" x={labels - 4} y={rowOf(steps.length) + 11} text-anchor="end"
      >{cut(end.name, labels - 8)}</text
    >
    <line
      class="figure"
      x1={x(end.value)}
      x2={x(end.value)}
      y1={rowOf(steps.length) - band + thick}
      y2={rowOf(steps.length) + thick}
    />
  {/if}
  {#each steps as { name, drawn }, k (k)}
    {@const { from, to } = runs[k]}
    {#if !small}
      <text class="row" x={labels - 4} y={rowOf(k) + 11} text-anchor="end"
        >{cut(name, labels - 8)}</text
      >
      <line class="lead" x1={x(to)} x2={x(to)} y1={rowOf(k)} y2={rowOf(k) + band + thick} />
    {/if}
    {#if drawn.value === drawn.value}
      <rect
        x={Math.min(x(from), x(to))}
        y={rowOf(k)}
        width={Math.max(1.5, Math.abs(x(to) - x(from)))}
        height={thick}
        class:down={to < from}
      />
      {#if !small}
        <text class="sign" x={Math.max(x(from), x(to)) + 5} y={rowOf(k) + 11}
          >{to < from ? '−' : '+'}</text
        >
      {/if}
    {/if}
  {/each}
</Chart>

<style>
  .grid {
    stroke: var(--rule);
  }
  .figure {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .lead {
    stroke: var(--ink-soft);
    stroke-dasharray: 1 3;
  }
  rect {
    fill: var(--tide-bar);
  }
  .down {
    fill: var(--brass);
  }
  .row {
    fill: var(--ink);
  }
  .end {
    fill: var(--ink);
    font-weight: 600;
  }
  .sign {
    fill: var(--ink-soft);
    font-weight: 600;
  }
</style>
