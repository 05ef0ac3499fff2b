<script lang="ts">
  import type { ComparisonSpec } from '../../../core/tally/kinds/comparison/spec';
  import { SimpleTally } from '../../../core/tally/spec/simpleSpecs';
  import type { Moved } from '../../../engine/replies/moved';
  import type { BenchState } from '../../bench/bench.svelte';
  import TalliesMoved from './TalliesMoved.svelte';

  /** Below a comparison with an older reading: every tally of the bench, before and after. */
  let { bench, tally }: { bench: BenchState; tally: ComparisonSpec } = $props();
  let moved = $state.raw<Moved | null>(null);

  $effect(() => {
    void bench.runs;
    const { with: older, to } = tally;
    if ([older, to ?? older].some((name) => !(name in bench.doc.lists))) return;
    bench.ask('moved', { with: older, to }, 'moved').then(
      (found) => (moved = found),
      // A newer one is on its way, or the reading is not at hand: the sentence says so.
      () => undefined,
    );
  });

  function apart(id: string): void {
    const item = bench.doc.tray.find((i) => i.id === id);
    const own = item && SimpleTally.safeParse(item.tally).data;
    if (own) bench.begin('What moved', { ...$state.snapshot(tally), tally: own });
    else bench.notice = 'This tally cannot be taken apart to the records: it is made of another.';
  }
</script>

{#if moved}
  <section aria-labelledby="every-tally">
    <h2 class="caps" id="every-tally">Every tally of this bench, before and after</h2>
    <TalliesMoved {moved} onapart={apart} />
  </section>
{/if}
