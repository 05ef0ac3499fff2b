<script lang="ts">
  import type { Row, TableHead } from '../../engine/protocol';
  import type { Strip } from './view';

  /** Two figures of a row as dots on a line from 0 to the larger of them: where it was, where it is. */
  let { head, row, strip }: { head: TableHead; row: Row; strip: Strip } = $props();
  const WIDE = 72;
  const EDGE = 4;

  const figure = (key: string): number => {
    const value = row.figures[head.columns.findIndex((c) => c.key === key)];
    return typeof value === 'number' ? value : 0;
  };
  const [from, to] = $derived([figure(strip.from), figure(strip.to)]);
  const low = $derived(Math.min(0, from, to));
  const high = $derived(Math.max(0, from, to));
  const x = (value: number): number =>
    high > low ? EDGE + ((value - low) / (high - low)) * (WIDE - 2 * EDGE) : WIDE / 2;
</script>

<!-- What it shows stands in the cells beside it. -->
<svg width={WIDE} height="12" viewBox="0 0 {WIDE} 12" aria-hidden="true">
  <line class="whole" x1={x(low)} x2={x(high)} y1="6" y2="6" />
  <line class="way" x1={x(from)} x2={x(to)} y1="6" y2="6" />
  <circle class="was" cx={x(from)} cy="6" r="3.5" />
  <circle class="is" cx={x(to)} cy="6" r="3.5" />
</svg>

<style>
  svg {
    vertical-align: middle;
    margin-right: 12px;
  }
  .whole {
    stroke: var(--rule);
  }
  .way {
    stroke: var(--plum);
    stroke-width: 2;
  }
  .was {
    fill: var(--paper);
    stroke: var(--plum);
    stroke-width: 1.5;
  }
  .is {
    fill: var(--plum);
  }
</style>
