<script lang="ts" generics="Spec">
  import type { Fault } from '../../core/tally/fault';
  import { isWithin } from '../../core/tally/faultPath';
  import type { Part, Slot } from '../../core/tally/sentence';
  import { groupWords, measurePhrase, sortWords } from '../../core/tally/words';
  import type { BenchState } from '../bench/bench.svelte';
  import Pop from '../shell/Pop.svelte';
  import GroupMenu from './GroupMenu.svelte';
  import MeasureMenu from './MeasureMenu.svelte';
  import SortMenu from './SortMenu.svelte';

  interface Props {
    bench: BenchState;
    /** The sentence of a tally, as its kind says it. */
    parts: readonly Part<Spec>[];
    /** What does not fit the list; it shows at its word. */
    faults: readonly Fault[];
    /** Takes the spec with another thing at a word. */
    onset: (says: string, spec: Spec) => void;
  }
  let { bench, parts, faults, onset }: Props = $props();
  const names = $derived(new Map(bench.columns.map((c) => [c.id, c.name])));

  const KIND = { key: 'Group', sort: 'Order', measure: 'Measure' } as const;
  const ADD = { key: 'add a group', sort: 'add an order of records', measure: 'add a measure' };

  const faultOf = (slot: Slot<Spec>): Fault | undefined =>
    slot.add ? undefined : faults.find((fault) => isWithin(fault, `tally.${slot.path}`));

  /** Name of a marked word for screen readers: its sort and place, what stands there, what is wrong. */
  function nameOf(slot: Slot<Spec>): string {
    if (slot.add) return `${slot.words} ${ADD[slot.takes.a]}`;
    const place = Number(/\[(\d+)\]$/.exec(slot.path)?.[1] ?? 0) + 1;
    const fault = faultOf(slot);
    const wrong = fault ? `. Takes no part: ${fault.message} ${fault.remedy}` : '';
    return `${KIND[slot.takes.a]} ${place}: ${slot.words}${wrong}`;
  }
</script>

{#each parts as part, k (typeof part === 'string' ? `words ${k}` : part.path)}
  {#if typeof part === 'string'}{part}{:else}
    {@const fault = faultOf(part)}
    {@const { takes } = part}
    <Pop
      class="word{part.add ? ' empty' : ''}{fault ? ' faulty' : ''}"
      width={takes.a === 'measure' ? 320 : 300}
      name={nameOf(part)}
      title={fault ? `Takes no part: ${fault.message} ${fault.remedy}` : undefined}
    >
      {#snippet label()}{part.words}{#if fault}<span aria-hidden="true">&nbsp;⚠</span
          >{/if}{/snippet}
      {#snippet children(close)}
        {#if fault}<p class="wrong">Takes no part: {fault.message} {fault.remedy}</p>{/if}
        {#if takes.a === 'key'}<GroupMenu
            {bench}
            group={takes.value}
            level={takes.level}
            taken={takes.taken}
            measures={takes.measures}
            onchange={(next) =>
              onset(
                next ? `Group by ${groupWords(next, names)}` : 'Take a group out',
                takes.set(next),
              )}
            {close}
          />
        {:else if takes.a === 'sort'}<SortMenu
            {bench}
            sort={takes.value}
            onchange={(next) =>
              onset(
                next ? `Sort by ${sortWords(next, names)}` : 'Take a sort out',
                takes.set(next),
              )}
            {close}
          />
        {:else}<MeasureMenu
            {bench}
            measure={takes.value}
            onchange={(next) =>
              onset(
                next ? `Show the ${measurePhrase(next, names)}` : 'Take a measure out',
                takes.set(next),
              )}
            {close}
          />{/if}
      {/snippet}
    </Pop>{/if}
{/each}

<style>
  :global(.word) {
    font: inherit;
    font-weight: 500;
    color: var(--tide);
    background: none;
    border: 0;
    border-bottom: 2px solid var(--tide);
    padding: 0 1px;
    line-height: 1.15;
    cursor: pointer;
    text-align: left;
    overflow-wrap: anywhere;
    max-width: 100%;
  }
  :global(.word.empty) {
    color: var(--ink-faint);
    border-bottom: 1px dashed var(--ink-faint);
    font-weight: 400;
  }
  :global(.word.faulty) {
    color: var(--plum);
    border-bottom: 2px dotted var(--plum);
  }
  :global(.word:hover) {
    background: var(--tide-wash);
  }
  .wrong {
    font: 14px var(--font-sans);
    color: var(--plum);
    margin: 0 0 8px;
  }
</style>
