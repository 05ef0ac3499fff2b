<script lang="ts">
  import { takeBackCorrection } from '../../core/bench/edits';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';

  /** The cells that were put right by hand, each with a way to its record and a way back. */
  interface Props {
    bench: BenchState;
    corrections: Counts['corrections'];
    close: () => void;
  }
  let { bench, corrections, close }: Props = $props();
</script>

<ul class="corrections">
  {#each corrections as { record, column, words } (`${record} ${column}`)}
    <li>
      <span>{words}</span>
      <button
        type="button"
        class="act small"
        aria-label="Take back the correction of {words}"
        onclick={() => {
          bench.change(`Take back the correction of ${words}`, (doc) =>
            takeBackCorrection(doc, record, column),
          );
          if (corrections.length === 1) close();
        }}
        data-test="take-back">Take back</button
      >
    </li>
  {/each}
</ul>

<style>
  .corrections {
    margin: 0;
    padding: 0;
    max-height: 300px;
    overflow: auto;
    list-style: none;
  }
  li {
    display: flex;
    gap: 10px;
    align-items: baseline;
    justify-content: space-between;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  button {
    flex: none;
  }
</style>
