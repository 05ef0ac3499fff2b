<script lang="ts">
  import { inReport } from '../../core/bench/reportEdits';
  import { keepApart, moveTally } from '../../core/bench/trayEdits';
  import type { TrayItem } from '../../core/bench/document';
  import type { BenchState } from '../bench/bench.svelte';
  import Pop from '../shell/Pop.svelte';

  /** What can be done with a tally in the report. */
  interface Props {
    bench: BenchState;
    item: TrayItem;
    name: string;
  }
  let { bench, item, name }: Props = $props();
  const SHOWS = [
    ['both', 'Chart and table'],
    ['all', 'Chart and all its tables'],
    ['chart', 'Chart alone'],
    ['table', 'Table alone'],
  ] as const;
  const shows = $derived(item.shows ?? 'both');
  const inside = $derived(bench.doc.tray.filter((i) => !i.apart));
  const at = $derived(inside.findIndex((i) => i.id === item.id));

  function move(by: -1 | 1): void {
    const before = by < 0 ? inside[at - 1] : inside[at + 2];
    if (at + by < 0 || at + by >= inside.length) return;
    bench.arrange('Move a tally', (doc) => moveTally(doc, item.id, before?.id ?? null));
  }
</script>

<Pop class="section-menu" name="{name} in the report" width={220}>
  {#snippet label()}⋯{/snippet}
  {#snippet children(close)}
    <div class="acts">
      {#if item.tally.kind !== 'ledger'}
        {#each SHOWS as [value, words] (value)}
          <button
            type="button"
            class="act"
            aria-pressed={shows === value}
            onclick={() => {
              close();
              bench.arrange(words, (doc) => inReport(doc, item.id, { shows: value }));
            }}>{shows === value ? '✓ ' : ''}{words}</button
          >
        {/each}
      {/if}
      <button
        type="button"
        class="act"
        aria-pressed={item.newPage === true}
        onclick={() => {
          close();
          bench.arrange('Begin on a new page', (doc) =>
            inReport(doc, item.id, { newPage: item.newPage !== true }),
          );
        }}>{item.newPage ? '✓ ' : ''}Begin on a new page</button
      >
      <button type="button" class="act" disabled={at <= 0} onclick={() => move(-1)}>Move up</button>
      <button type="button" class="act" disabled={at >= inside.length - 1} onclick={() => move(1)}
        >Move down</button
      >
      <button
        type="button"
        class="act"
        onclick={() => {
          close();
          bench.arrange('Keep out of the report', (doc) => keepApart(doc, item.id, true));
        }}>Keep out of the report</button
      >
      <button
        type="button"
        class="act"
        onclick={() => {
          close();
          bench.visit(item.id);
        }}>Open the tally</button
      >
    </div>
  {/snippet}
</Pop>

<style>
  .acts {
    display: grid;
    gap: 5px;
    justify-items: start;
  }
</style>
