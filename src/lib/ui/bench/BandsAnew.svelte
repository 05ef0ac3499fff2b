<script lang="ts">
  import { leaveBands, outdatedBands, takeBands } from '../../core/bench/bandUse';
  import { counted } from '../../core/table/format';
  import type { BenchState } from './bench.svelte';
  import NewsStrip from './NewsStrip.svelte';

  /** Offers bands that were kept anew, here or in another bench, to the tallies that have them as they were. */
  let { bench }: { bench: BenchState } = $props();

  const outdated = $derived(outdatedBands(bench.doc, bench.keptBands, bench.names));

  /** Where else they are kept; nothing for those of this bench. */
  function whereOf(name: string): string {
    if (bench.doc.bands.some((own) => own.name === name)) return '';
    const found = bench.facts.bands.find((one) => one.name === name);
    return found ? ` in ${found.list}, ${found.bench}` : '';
  }
</script>

{#each outdated as { kept, tallies } (kept.name)}
  <NewsStrip test="bands-anew">
    <p>
      The bands <b>“{kept.name}”</b> were kept anew{whereOf(kept.name)}. {counted(
        tallies.length,
        'tally has',
        'tallies have',
      )} them as they were.
    </p>
    <button
      type="button"
      class="act"
      onclick={() =>
        bench.change(`Take the bands “${kept.name}” as they are kept now`, (doc) =>
          takeBands(doc, kept, bench.names),
        )}>Take them</button
    >
    <button
      type="button"
      class="act"
      onclick={() =>
        bench.change(`Leave the bands “${kept.name}” as they were`, (doc) =>
          leaveBands(doc, kept, bench.names),
        )}>Leave them as they were</button
    >
  </NewsStrip>
{/each}

<style>
  p {
    flex: 1;
    margin: 0;
  }
</style>
