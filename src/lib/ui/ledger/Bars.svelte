<script lang="ts">
  import type { Distribution } from '../../engine/protocol';

  interface Props {
    distribution: Distribution | undefined;
    width?: number;
    height?: number;
  }
  let { distribution, width = 44, height = 16 }: Props = $props();

  const counts = $derived(
    distribution?.kind === 'bins'
      ? distribution.counts
      : distribution?.kind === 'values'
        ? distribution.items.map((i) => i.count)
        : [],
  );
  const most = $derived(Math.max(1, ...counts));
  const step = $derived(width / Math.max(1, counts.length));
</script>

<svg {width} {height} viewBox="0 0 {width} {height}" aria-hidden="true">
  {#each counts as n, k (k)}
    {@const h = n === 0 ? 0 : Math.max(1, (n / most) * height)}
    <rect x={k * step} y={height - h} width={Math.max(1, step - 1)} height={h} />
  {/each}
</svg>

<style>
  svg {
    display: block;
    fill: var(--tide-bar);
  }
</style>
