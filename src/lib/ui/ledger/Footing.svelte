<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { LedgerPage } from '../../engine/protocol';
  import { knownAt, knownMarks } from '../behind/knownMarks';
  import KnownSign from '../behind/KnownSign.svelte';
  import GapsSign from './GapsSign.svelte';
  import type { BenchState } from '../bench/bench.svelte';

  interface Props {
    bench: BenchState;
    overview: LedgerPage;
    lefts: readonly (number | null)[];
  }
  let { bench, overview, lefts }: Props = $props();
  const known = $derived(knownMarks(bench.doc, bench.known, bench.item.id));
  const LINES = ['all', 'narrowed', 'counted'] as const;
  const labels = $derived([
    `All ${counted(overview.foot[0].records, 'record')}`,
    `After narrowing, ${showCount(overview.foot[1].records)}`,
    `Grand total, ${showCount(overview.foot[2].records)} counted`,
  ]);
</script>

{#each LINES as line, k (line)}
  <div class="row {line}" role="row" data-test="foot-{line}">
    <div class="lead" role="rowheader">{labels[k]}</div>
    {#each overview.heads as head, c (c)}
      <div
        class="cell"
        class:right={head.right}
        class:fixed={head.fixed}
        role="gridcell"
        style:left={lefts[c] === null ? undefined : `${lefts[c]}px`}
      >
        {#if head.figure !== null}
          {@const column = head.figure}
          <button
            type="button"
            title="Behind this figure"
            onclick={() =>
              (bench.side = {
                kind: 'behind',
                place: { tally: bench.item.id, scope: line, table: 'main', row: [], column },
              })}>{overview.foot[k].cells[c]}</button
          ><GapsSign
            gaps={overview.foot[k].gaps[c]}
            figure={overview.foot[k].cells[c]}
            width={head.width}
          /><KnownSign stands={knownAt(known, { table: 'main', row: [], column }, line)} />
        {/if}
      </div>
    {/each}
  </div>
{/each}

<style>
  .row {
    display: grid;
    grid-template-columns: var(--columns);
    height: 27px;
    background: var(--paper);
    width: var(--wide);
    color: var(--ink-soft);
  }
  .row > div {
    display: flex;
    align-items: center;
    padding: 0 10px;
    background: var(--paper);
    white-space: nowrap;
    overflow: hidden;
    min-width: 0;
  }
  .row > .lead {
    padding-left: 12px;
  }
  .lead {
    position: sticky;
    left: 0;
    z-index: 1;
  }
  .fixed {
    position: sticky;
    z-index: 1;
  }
  .all > div {
    border-top: 1px solid var(--rule-strong);
  }
  .counted {
    color: var(--ink);
    font-weight: 600;
    height: 33px;
  }
  .counted > div {
    border-top: 1px solid var(--rule-strong);
    border-bottom: 4px double var(--rule-strong);
  }
  .right {
    justify-content: flex-end;
  }
  button {
    background: none;
    border: 0;
    padding: 0;
    color: inherit;
    font: inherit;
    cursor: pointer;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  button:hover {
    text-decoration: underline;
    text-decoration-color: var(--tide);
  }
</style>
