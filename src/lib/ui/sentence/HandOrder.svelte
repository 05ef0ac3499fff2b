<script lang="ts">
  import type { BenchState } from '../bench/bench.svelte';

  interface Props {
    bench: BenchState;
    level: number;
    given: readonly string[];
    ondone: (labels: string[]) => void;
  }
  let { bench, level, given, ondone }: Props = $props();
  let labels = $state<string[]>([]);

  $effect(() => {
    bench.ask('labels', { tally: bench.item.id, level }).then(
      (found) =>
        (labels = [
          ...given.filter((g) => found.includes(g)),
          ...found.filter((f) => !given.includes(f)),
        ]),
      () => {},
    );
  });

  function move(at: number, by: -1 | 1): void {
    const to = at + by;
    if (to < 0 || to >= labels.length) return;
    [labels[at], labels[to]] = [labels[to], labels[at]];
  }
</script>

<p class="caps">Order by hand</p>
<ol>
  {#each labels as label, k (label)}
    <li>
      <span>{label}</span>
      <button
        type="button"
        class="act"
        aria-label="{label} up"
        disabled={k === 0}
        onclick={() => move(k, -1)}>↑</button
      >
      <button
        type="button"
        class="act"
        aria-label="{label} down"
        disabled={k === labels.length - 1}
        onclick={() => move(k, 1)}>↓</button
      >
    </li>
  {/each}
</ol>
<button type="button" class="main-button" onclick={() => ondone([...labels])}>Use this order</button
>

<style>
  ol {
    list-style: none;
    padding: 0;
    margin: 6px 0;
    max-height: 280px;
    overflow: auto;
  }
  li {
    display: flex;
    gap: 4px;
    align-items: center;
    padding: 1px 0;
  }
  span {
    flex: 1;
    overflow-wrap: anywhere;
  }
  button:disabled {
    opacity: 0.35;
  }
</style>
