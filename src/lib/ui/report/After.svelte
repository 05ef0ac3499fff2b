<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { CitedNow } from '../../engine/replies/checks';
  import type { ReportSection } from '../../engine/report';
  import NoteText from './NoteText.svelte';
  import { FootNotes, tablesShown } from './pieces';

  /** What stands under a tally's tables: whether they foot, what should be known, and the note. */
  interface Props {
    section: ReportSection;
    cited: readonly CitedNow[];
    onnote?: ((note: string) => void) | undefined;
  }
  let { section, cited, onnote }: Props = $props();
  const shown = $derived(tablesShown(section));
  const notes = $derived(new FootNotes(section.tables.slice(0, shown)));
  const left = $derived(
    section.tables.slice(shown).map(({ head }) => head.caption || 'its figures'),
  );
  const cut = $derived(
    section.tables.slice(0, shown).filter(({ length, printed }) => length > printed),
  );
</script>

<div class="after">
  {#if section.answered.refused}<p class="bad">{section.answered.refused}</p>{/if}
  {#each section.answered.faults as fault (fault.path)}
    <p class="bad">{fault.message} {fault.remedy}</p>
  {/each}
  <p>
    {#if section.footing}<span class:bad={!section.foots}
        >{section.foots ? '✓' : '✗'} {section.footing}</span
      >{/if}
    From {counted(section.answered.records, 'record')}.
  </p>
  {#if left.length}<p>In the bench, and not printed here: {left.join(', ')}.</p>{/if}
  {#each cut as { head, length, printed } (head.name)}
    <p class="bad">
      {head.caption}: the first {showCount(printed)} of {counted(length, 'row')}. The others are not
      printed; hand the table over as a file to have them all.
    </p>
  {/each}
  {#if notes.notes.length && shown > 0}
    <p class="notes">
      {#each notes.notes as { n, words } (n)}<span><sup>{n}</sup> {words} </span>{/each}
      {#if notes.others}And {counted(notes.others, 'more note')} on single figures, in the bench.{/if}
    </p>
  {/if}
  {#each section.answered.warnings as { code, words } (code + words)}<p>{words}</p>{/each}
  <div class="note" class:bare={!section.item.note}>
    <NoteText
      words={section.item.note}
      {cited}
      label="Note on {section.name || section.answered.sentence}"
      placeholder="Note…"
      onedit={onnote}
      test="note-{section.id}"
    />
  </div>
</div>

<style>
  .after {
    padding-bottom: 12px;
    font-size: 10px;
    line-height: 1.35;
    color: var(--ink-soft);
  }
  p {
    margin: 0 0 2px;
    overflow-wrap: anywhere;
  }
  .bad {
    color: var(--bad);
  }
  .note {
    margin: 7px 0 0;
    padding-left: 9px;
    border-left: 2.5px solid var(--gold);
    font: 13px/1.4 var(--font-serif);
    color: var(--ink);
  }
  .bare:not(:focus-within) {
    margin: 0;
    padding: 0;
    border: 0;
  }
  sup {
    color: var(--plum);
    font-size: 8px;
  }
</style>
