<script lang="ts">
  import type { Figure } from '../../core/tally/answer/result';

  /** A change as a step from where it was, to the left or to the right, against the largest of them. */
  let { change, most }: { change: Figure; most: number } = $props();
  const WIDE = 64;
  const EDGE = 4;
  const middle = WIDE / 2;
  const share = $derived(
    typeof change === 'number' && most > 0 ? Math.max(-1, Math.min(1, change / most)) : 0,
  );
  const to = $derived(middle + share * (middle - EDGE));
</script>

<!-- What it shows stands in the cell beside it. -->
<svg width={WIDE} height="12" viewBox="0 0 {WIDE} 12" aria-hidden="true">
  <line class="whole" x1={EDGE} x2={WIDE - EDGE} y1="6" y2="6" />
  {#if typeof change === 'number'}
    <line class="way" x1={middle} x2={to} y1="6" y2="6" />
    <circle class="was" cx={middle} cy="6" r="3" />
    <circle class="is" cx={to} cy="6" r="3.5" />
  {/if}
</svg>

<style>
  svg {
    display: inline-block;
    vertical-align: middle;
    margin-right: 10px;
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
