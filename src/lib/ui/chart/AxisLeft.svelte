<script lang="ts">
  import { tickTexts } from './ticks';

  /** Horizontal rules with their values at the left. */
  interface Props {
    ticks: readonly number[];
    y: (value: number) => number;
    from: number;
    to: number;
    /** Written above the axis. */
    unit?: string;
    share?: boolean;
  }
  let { ticks, y, from, to, unit = '', share = false }: Props = $props();
  const texts = $derived(tickTexts(ticks, share));
  const top = $derived(Math.min(...ticks.map(y)));
</script>

{#each ticks as tick, k (tick)}
  <line class:zero={tick === 0} x1={from} x2={to} y1={y(tick)} y2={y(tick)} />
  <text x={from - 7} y={y(tick) + 4} text-anchor="end">{texts[k]}</text>
{/each}
{#if unit}<text class="unit" x={from - 7} y={top - 9} text-anchor="end">{unit}</text>{/if}

<style>
  line {
    stroke: var(--rule);
  }
  .zero {
    stroke: var(--ink-soft);
  }
  .unit {
    fill: var(--ink-faint);
  }
</style>
