<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import Chart from './Chart.svelte';
  import { extent, type ChartFrame, type Drawn } from './figures';
  import { cut } from './labels';
  import type { ChartMark } from './marks';
  import { tickTexts } from './ticks';

  /** How far groups spread: range as a line, quartiles as a box, the median in it, the mean as a mark. */
  interface Props extends Omit<ChartFrame, 'height'> {
    rows: readonly {
      readonly name: string;
      readonly facts: Readonly<Record<'low' | 'q1' | 'median' | 'q3' | 'high' | 'mean', Drawn>>;
      readonly few: boolean;
    }[];
    unit?: string;
  }
  let {
    width,
    description,
    rows,
    unit = '',
    chosen = null,
    small = false,
    onopen,
  }: Props = $props();
  let chart = $state<Chart>();
  export const element = (): SVGSVGElement | undefined => chart?.element();

  const band = $derived(small ? 13 : 28);
  const labels = $derived(
    small ? 4 : Math.min(210, Math.max(...rows.map((r) => r.name.length), 4) * 6.6 + 12),
  );
  const top = $derived(small ? 2 : 24);
  const height = $derived(top + rows.length * band + 4);
  const x = $derived(
    scaleLinear(
      extent(
        rows.flatMap((r) => Object.values(r.facts).map((f) => f.value)),
        false,
      ),
      [labels + 6, width - 24],
    ).nice(5),
  );
  const ticks = $derived(x.ticks(6));
  const texts = $derived(tickTexts(ticks));
  const middle = (k: number): number => top + k * band + band / 2;
  const marks = $derived(
    rows.flatMap((row, k) =>
      (['low', 'q1', 'median', 'mean', 'q3', 'high'] as const).flatMap((key): ChartMark[] => {
        const { value, words, place } = row.facts[key];
        return value === value ? [{ x: x(value), y: middle(k), words, place }] : [];
      }),
    ),
  );
  const there = (value: number): boolean => value === value;
</script>

<Chart bind:this={chart} {width} {height} {description} {marks} {chosen} {small} {onopen}>
  {#if !small}
    {#each ticks as tick, k (tick)}
      <line class="grid" x1={x(tick)} x2={x(tick)} y1={top - 4} y2={height} />
      <text x={x(tick)} y={top - 9} text-anchor="middle"
        >{texts[k]}{k === ticks.length - 1 && unit ? ` ${unit}` : ''}</text
      >
    {/each}
  {/if}
  {#each rows as { name, facts, few }, k (k)}
    {@const at = middle(k)}
    {@const half = small ? 4 : 8}
    {#if !small}<text class="row" x={labels - 4} y={at + 4} text-anchor="end"
        >{cut(name, labels - 10)}</text
      >{/if}
    {#if there(facts.low.value) && there(facts.high.value)}
      <line class="range" x1={x(facts.low.value)} x2={x(facts.high.value)} y1={at} y2={at} />
    {/if}
    {#if there(facts.q1.value) && there(facts.q3.value)}
      <rect
        x={x(facts.q1.value)}
        width={Math.max(1, x(facts.q3.value) - x(facts.q1.value))}
        y={at - half}
        height={half * 2}
        class:few
      />
    {/if}
    {#if there(facts.median.value)}
      <line
        class="median"
        x1={x(facts.median.value)}
        x2={x(facts.median.value)}
        y1={at - half}
        y2={at + half}
      />
    {/if}
    {#if there(facts.mean.value) && !small}
      <path class="mean" d="M{x(facts.mean.value)},{at - 5} l5,5 l-5,5 l-5,-5 z" />
    {/if}
  {/each}
</Chart>

<style>
  .grid {
    stroke: var(--rule);
  }
  .range {
    stroke: var(--ink-soft);
    stroke-width: 1.4;
  }
  rect {
    fill: var(--tide-bar);
    stroke: var(--tide);
  }
  rect.few {
    fill: var(--paper);
    stroke-dasharray: 3 2;
  }
  .median {
    stroke: var(--tide);
    stroke-width: 2.5;
  }
  .mean {
    fill: var(--brass);
    stroke: var(--paper);
  }
  .row {
    fill: var(--ink);
  }
</style>
