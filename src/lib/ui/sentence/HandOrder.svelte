<script lang="ts">
  import { counted } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';

  interface Props {
    bench: BenchState;
    level: number;
    given: readonly string[];
    ondone: (labels: string[]) => void;
  }
  let { bench, level, given, ondone }: Props = $props();
  let labels = $state<string[]>([]);
  /** Groups that are too many to be ordered one by one. */
  let more = $state(0);

  $effect(() => {
    bench.ask('labels', { tally: bench.item.id, level }).then(
      (found) => {
        const [there, chosen] = [new Set(found.labels), new Set(given)];
        labels = [
          ...given.filter((label) => there.has(label)),
          ...found.labels.filter((label) => !chosen.has(label)),
        ];
        more = found.more;
      },
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
{#if more > 0}<p data-test="more-labels">
    {counted(more, 'group')} more {more === 1 ? 'follows' : 'follow'} these, by
    {more === 1 ? 'its label' : 'their labels'}.
  </p>{/if}
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
  p:last-of-type {
    max-width: 260px;
    color: var(--ink-soft);
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
