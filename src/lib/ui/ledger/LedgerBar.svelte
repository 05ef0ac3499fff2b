<script lang="ts">
  import { setShowDown, setTotals } from '../../core/bench/edits';
  import type { BenchState } from '../bench/bench.svelte';
  import Segments from '../components/Segments.svelte';

  let { bench }: { bench: BenchState } = $props();
  const overview = $derived(bench.ledger);
  const footing = $derived(bench.footing);
  const view = $derived(bench.item.view);
  const spec = $derived(bench.item.tally);
  const shown = $derived(Math.min(view.showDown, (overview?.levels.length ?? 1) - 1));
  const levels = $derived(
    spec.groups.length ? (overview?.levels ?? []) : ['Grand total', 'Records'],
  );
  const notAdding = $derived(
    footing?.notAdding.length
      ? `Computed anew from the records, as they do not add: ${footing.notAdding.join(', ')}.`
      : '',
  );
</script>

<div class="bar">
  {#if overview}
    <div class="levels">
      <span class="what">Show down to</span>
      <Segments
        label="Show down to"
        value={String(shown)}
        options={levels.map((label, k) => ({ value: String(k), label }))}
        onchange={(k) =>
          bench.change(`Show down to ${levels[Number(k)]}`, (doc) => setShowDown(doc, Number(k)))}
        test="level"
      />
      {#if spec.groups.length}
        <span class="totals"
          >Totals
          <button
            type="button"
            class="act"
            onclick={() =>
              bench.change('Move the totals', (doc) =>
                setTotals(doc, view.totals === 'below' ? 'above' : 'below'),
              )}
            title="Turn between under and above"
            >{view.totals === 'below' ? 'under' : 'above'}</button
          >
          each group</span
        >
      {/if}
      <button
        type="button"
        class="act make"
        title="Make a column (c)"
        onclick={() => (bench.side = { kind: 'made', of: 'computed', at: null })}>+ column</button
      >
    </div>
    {#if footing}
      <p
        class="footing"
        class:bad={!footing.foots}
        data-test="footing"
        title={footing.words + (footing.notAdding.length ? ` ${notAdding}` : '')}
      >
        {#if footing.compared > 0}<span aria-hidden="true">{footing.foots ? '✓' : '✗'}</span>{/if}
        {footing.words}
      </p>
    {/if}
  {/if}
</div>

<style>
  .bar {
    container-type: inline-size;
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 16px;
    padding: 7px 20px;
    border-bottom: 1px solid var(--rule);
    min-height: 26px;
    color: var(--ink-soft);
  }
  .levels {
    display: flex;
    align-items: center;
    gap: 10px;
    white-space: nowrap;
    flex: none;
  }
  .footing {
    margin: 0;
    color: var(--good);
    text-align: right;
    min-width: 0;
    line-height: 1.25;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    overflow: hidden;
  }
  @container (max-width: 760px) {
    .what,
    .make,
    .totals {
      display: none;
    }
  }
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
</style>
