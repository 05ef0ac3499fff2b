<script lang="ts">
  import type { MadePlace } from '../../core/bench/madeEdits';
  import type { BenchState } from '../bench/bench.svelte';
  import Segments from '../components/Segments.svelte';
  import ComputedPanel from './ComputedPanel.svelte';
  import type { Way } from './draft.svelte';
  import JoinPanel from './JoinPanel.svelte';

  const WAYS: readonly Way[] = ['worked out', 'across columns', 'within groups'];
  const JOINED = 'from another list';
  /** Shorter ones, so that all stand side by side. */
  const LABELS: Readonly<Record<string, string>> = {
    'across columns': 'across',
    [JOINED]: 'other list',
  };

  interface Props {
    bench: BenchState;
    of: MadePlace['of'];
    /** Place of what is being changed; null: a new one. */
    at: number | null;
  }
  let { bench, of, at }: Props = $props();
  // The panel is made anew for each column.
  // svelte-ignore state_referenced_locally
  let way = $state<string>(
    of === 'joins'
      ? JOINED
      : at !== null && bench.doc.computed[at]?.across
        ? 'across columns'
        : at !== null && bench.doc.computed[at]?.window
          ? 'within groups'
          : 'worked out',
  );
  const own = $derived(WAYS.find((w) => w === way));
  /** What is made stays a column of its own, or one from another list. */
  const ways = $derived(
    [...WAYS, JOINED]
      .filter((value) => at === null || (value === JOINED) === (of === 'joins'))
      .map((value) => ({ value, label: LABELS[value] ?? value })),
  );
</script>

<div class="pad">
  {#if ways.length > 1}
    <Segments
      label="How the column is made"
      value={way}
      options={ways}
      test="made-way"
      onchange={(next) => (way = next)}
    />
  {/if}
  {#if own}<ComputedPanel {bench} at={of === 'computed' ? at : null} way={own} />
  {:else}<JoinPanel {bench} at={of === 'joins' ? at : null} />{/if}
</div>

<style>
  .pad {
    padding: 4px 16px 20px;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
</style>
