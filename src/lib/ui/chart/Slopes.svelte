<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import Chart from './Chart.svelte';
  import type { ChartFrame } from './figures';
  import { cut } from './labels';
  import type { ChartMark } from './marks';

  /** Places in two periods, one line a group: up in blue, down in brass. */
  interface Props extends Omit<ChartFrame, 'height' | 'small'> {
    before: string;
    after: string;
    rows: readonly {
      readonly name: string;
      readonly from: number;
      readonly to: number;
      readonly words: string;
      readonly place: FigurePlace | null;
    }[];
  }
  let { width, description, before, after, rows, chosen = null, onopen }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const last = $derived(Math.max(2, ...rows.flatMap((r) => [r.from, r.to]).filter((v) => v === v)));
  const height = $derived(44 + last * 28);
  const y = $derived(scaleLinear([1, last], [44, height - 18]));
  const left = 64;
  const right = $derived(width - 150);
  const marks = $derived(
    rows.flatMap(({ to, words, place }): ChartMark[] =>
      to === to ? [{ x: right, y: y(to), words, place }] : [],
    ),
  );
  const way = (row: (typeof rows)[number]): string =>
    row.to < row.from ? 'up' : row.to > row.from ? 'down' : 'same';
  const arrow = (row: (typeof rows)[number]): string => {
    const by = Math.abs(row.from - row.to);
    return row.from !== row.from
      ? ' new'
      : row.to < row.from
        ? ` ↑ ${by}`
        : row.to > row.from
          ? ` ↓ ${by}`
          : '';
  };
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {onopen}>
  <text class="head" x={left} y="16" text-anchor="middle">{cut(before, 120)}</text>
  <text class="head" x={right} y="16" text-anchor="middle">{cut(after, 120)}</text>
  {#each rows as row (row.name)}
    <g class={way(row)}>
      {#if row.from === row.from && row.to === row.to}<line
          x1={left}
          x2={right}
          y1={y(row.from)}
          y2={y(row.to)}
        />{/if}
      {#if row.from === row.from}
        <circle class="hollow" cx={left} cy={y(row.from)} r="4" />
        <text x={left - 12} y={y(row.from) + 4} text-anchor="end">{row.from}</text>
      {/if}
      {#if row.to === row.to}
        <circle cx={right} cy={y(row.to)} r="4" />
        <text class="now" x={right + 10} y={y(row.to) + 4}
          >{row.to}{arrow(row)} {cut(row.name, 92)}</text
        >
      {/if}
    </g>
  {/each}
</Chart>

<style>
  .head {
    font-size: 11px;
    letter-spacing: 0.06em;
    font-weight: 600;
  }
  line {
    stroke: var(--rule);
    stroke-width: 2;
  }
  circle {
    fill: var(--ink);
    stroke: var(--ink);
  }
  .hollow {
    fill: var(--paper);
  }
  .up line {
    stroke: var(--tide);
    stroke-width: 2.4;
  }
  .up .now {
    fill: var(--tide);
    font-weight: 600;
  }
  .down line {
    stroke: var(--brass);
    stroke-width: 2;
  }
</style>
