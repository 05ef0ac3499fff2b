<script lang="ts">
  import { citeFigure, type WordsPlace } from '../../core/bench/citedEdits';
  import type { Behind, Place } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Choices from '../components/Choices.svelte';
  import Pop from '../components/Pop.svelte';

  /** Puts a figure into words of the report, where it follows what it is. */
  interface Props {
    bench: BenchState;
    place: Place;
    behind: Behind;
  }
  let { bench, place, behind }: Props = $props();

  const INTRO = 'intro';
  /** The tally's own note first, then the words under the title, then the notes of the others. */
  const choices = $derived.by(() => {
    const noted = bench.doc.tray.filter(({ apart }) => !apart);
    const own = noted.filter(({ id }) => id === place.tally);
    const others = noted.filter(({ id }) => id !== place.tally);
    const noteOn = (item: (typeof noted)[number], label: string) => ({
      value: `note ${item.id}`,
      label,
      group: 'notes in the report',
    });
    return [
      ...own.map((item) => noteOn(item, 'the note of this tally')),
      { value: INTRO, label: 'the words under the title', group: 'notes in the report' },
      ...others.map((item) => noteOn(item, bench.nameOf(item))),
    ];
  });

  function put(value: string): void {
    const into: WordsPlace =
      value === INTRO ? { at: 'intro' } : { at: 'note', tally: value.slice('note '.length) };
    const { tally, scope, ...at } = place;
    bench.change('Put a figure into words', (doc) =>
      citeFigure(
        doc,
        { tally, place: at, ...(scope !== undefined && { scope }), read: behind.figure },
        into,
      ),
    );
    bench.notice = 'The figure stands in the report, at the end of those words, and follows.';
  }
</script>

<Pop name="Put into words of the report">
  {#snippet label()}Put into words{/snippet}
  {#snippet children(close)}
    <Choices
      name="words of the report"
      {choices}
      onchoose={(value) => {
        close();
        put(value);
      }}
    />
  {/snippet}
</Pop>
