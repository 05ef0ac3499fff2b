<script lang="ts">
  import type { BenchState } from './bench.svelte';
  interface Props {
    bench: BenchState;
    oncopy: () => void;
  }
  let { bench, oncopy }: Props = $props();
  const { saver } = $derived(bench);

  /** A reading as comparisons call it; the one that the page was opened with is not among the others. */
  const readingName = (id: number): string =>
    bench.facts.readings.find((r) => r.id === id)?.name ??
    (id === bench.facts.currentReading
      ? 'the reading that this page was opened with'
      : 'a newer one');

  function takeTheirs(): void {
    const doc = saver.takeTheirs();
    if (doc) bench.replace(doc, 'Take what was saved elsewhere');
  }
</script>

{#if saver.state === 'conflict' && saver.theirs}
  <div class="conflict" role="alert" data-test="conflict">
    <p>
      <b>This bench was changed elsewhere</b>, perhaps in another tab (revision {saver.theirs
        .revision}). What you did here is still here and not yet saved.
      {#if saver.theirs.doc.reading !== bench.doc.reading}
        <b>There it looks at another reading of the list</b>: kept, yours goes on looking at {readingName(
          bench.doc.reading,
        )}; theirs looks at {readingName(saver.theirs.doc.reading)}.
      {/if}
    </p>
    <button type="button" class="main-button" onclick={() => saver.keepMine(bench.doc)}
      >Keep mine</button
    >
    <button type="button" class="plain-button" onclick={takeTheirs}>Take theirs</button>
    <button type="button" class="plain-button" onclick={oncopy}>Keep mine as a new bench</button>
  </div>
{:else if saver.state === 'failed'}
  <div class="conflict" role="alert">
    <p>{saver.problem}</p>
    <button type="button" class="plain-button" onclick={() => saver.flush()}>Try now</button>
  </div>
{/if}

<style>
  .conflict {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 8px 20px;
    background: var(--plum-wash);
    color: var(--plum);
    border-bottom: 1px solid var(--rule);
  }
  p {
    margin: 0;
    flex: 1;
  }
</style>
