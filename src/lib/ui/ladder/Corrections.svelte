<script lang="ts">
  import { takeBackCorrection } from '../../core/bench/edits';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import WaysBack from './WaysBack.svelte';

  /** The cells that were put right by hand, each with a way to its record and a way back. */
  interface Props {
    bench: BenchState;
    corrections: Counts['corrections'];
    close: () => void;
  }
  let { bench, corrections, close }: Props = $props();
</script>

<WaysBack>
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
</WaysBack>
