<script lang="ts">
  import type { Place } from '../../engine/protocol';
  import { UNREACHED } from '../components/unreached';
  import type { BenchState } from './bench.svelte';
  import { PARTS } from './parts';
  import SidePanel from './SidePanel.svelte';

  /** What stands in the panel on the right. */
  interface Props {
    bench: BenchState;
    /** Shows a figure, or a record, in the ledger. */
    toFigure: (place: Place) => Promise<void>;
    toRecord: (record: number) => Promise<void>;
  }
  let { bench, toFigure, toRecord }: Props = $props();

  const TITLES = {
    behind: 'Behind this figure',
    column: 'Column',
    record: 'Record',
    known: 'Known totals',
    made: 'Made column',
    list: 'A list of its own',
  } as const;
</script>

{#if bench.side}
  {@const side = bench.side}
  <SidePanel
    title={TITLES[side.kind]}
    wide={side.kind === 'made' || side.kind === 'list'}
    onclose={() => (bench.side = null)}
  >
    {#if side.kind === 'behind'}
      {#await PARTS.behind() then { default: Behind }}
        <Behind {bench} place={side.place} onledger={toFigure} />
      {:catch}
        <p class="opening">{UNREACHED}</p>
      {/await}
    {:else if side.kind === 'column'}
      {#await PARTS.column() then { default: ColumnPanel }}
        <ColumnPanel {bench} column={side.column} onnarrow={(column) => bench.step.begin(column)} />
      {:catch}
        <p class="opening">{UNREACHED}</p>
      {/await}
    {:else if side.kind === 'known'}
      {#await import('../behind/KnownPanel.svelte') then { default: KnownPanel }}
        <KnownPanel {bench} />
      {:catch}
        <p class="opening">{UNREACHED}</p>
      {/await}
    {:else if side.kind === 'list'}
      {#await import('../derived/ShelvingPanel.svelte') then { default: ShelvingPanel }}
        <ShelvingPanel {bench} of={side.of} />
      {:catch}
        <p class="opening">{UNREACHED}</p>
      {/await}
    {:else if side.kind === 'made'}
      {#await import('../derived/MadePanel.svelte') then { default: MadePanel }}
        {#key `${side.of} ${side.at}`}<MadePanel {bench} of={side.of} at={side.at} />{/key}
      {:catch}
        <p class="opening">{UNREACHED}</p>
      {/await}
    {:else}
      {#await PARTS.record() then { default: RecordPanel }}
        <RecordPanel {bench} record={side.record} column={side.column} onledger={toRecord} />
      {:catch}
        <p class="opening">{UNREACHED}</p>
      {/await}
    {/if}
  </SidePanel>
{/if}

<style>
  .opening {
    padding: 40px;
    color: var(--ink-soft);
  }
</style>
