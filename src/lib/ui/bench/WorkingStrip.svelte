<script lang="ts">
  import { isLedger } from '../../core/bench/tray';
  import ProgressBar from '../components/ProgressBar.svelte';
  import type { BenchState } from './bench.svelte';

  /** Long work on the figures: how far it is, a way to stop it, and what to do once it was stopped. */
  let { bench }: { bench: BenchState } = $props();

  const working = $derived(bench.working);
  /** Whether older figures of the open tally stand below. */
  const older = $derived(
    isLedger(bench.shown) ? bench.ledger !== null : bench.figures.page?.id === bench.shown.id,
  );
</script>

{#if working.stopped}
  <div class="strip stopped" role="status" data-test="stopped">
    <span
      >{older
        ? 'Stopped. The figures below are older than what is asked.'
        : 'Stopped before there were figures.'}</span
    >
    <button type="button" class="act" onclick={() => void bench.compute()}>Compute</button>
    {#if bench.canUndo}
      <button type="button" class="act undo" onclick={() => bench.undo()}
        >Undo: {bench.canUndo}</button
      >
    {/if}
  </div>
{:else if working.long}
  <div class="strip" role="status" data-test="working">
    <span>Computing…</span>
    <ProgressBar value={working.long.share} name="Computed so far" />
    <button type="button" class="act" onclick={() => working.stop()}>Stop</button>
  </div>
{/if}
{#if bench.errand.now}
  <div class="strip late" role="status" data-test="errand">
    <span>{bench.errand.now.what}…</span>
    <ProgressBar value={bench.errand.now.share} name="Done so far" />
    <button type="button" class="act" onclick={() => bench.errand.stop()}>Stop</button>
  </div>
{/if}

<style>
  .strip {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 12px;
    padding: 6px 20px;
    border-bottom: 1px solid var(--rule);
    background: var(--panel);
  }
  /* What is done at once is not announced. */
  .late {
    animation: come 0s 0.4s both;
  }
  @keyframes come {
    from {
      visibility: hidden;
      position: absolute;
    }
  }
  .undo {
    max-width: 44ch;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .stopped {
    color: var(--plum);
    background: var(--plum-wash);
  }
</style>
