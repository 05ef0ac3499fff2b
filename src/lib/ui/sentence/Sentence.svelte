<script lang="ts" generics="Spec">
  import type { Fault } from '../../core/tally/fault';
  import { isWithin } from '../../core/tally/faultPath';
  import type { Part, Slot } from '../../core/tally/sentence';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Pop from '../shell/Pop.svelte';
  import SlotMenu from './SlotMenu.svelte';

  interface Props {
    bench: BenchState;
    /** The sentence of a tally, as its kind says it. */
    parts: readonly Part<Spec>[];
    /** What does not fit the list; it shows at its word. */
    faults: readonly Fault[];
    /** Columns of an inner result, for the places that choose among those. */
    inner?: Counts['columns'] | null;
    /** Takes the spec with another thing at a word. */
    onset: (says: string, spec: Spec) => void;
  }
  let { bench, parts, faults, inner = null, onset }: Props = $props();

  const SORTS = {
    key: 'Group',
    sort: 'Order',
    measure: 'Measure',
    column: 'Column',
    condition: 'Condition',
  } as const;
  const ADD = {
    key: 'add a group',
    sort: 'add an order of records',
    measure: 'add a measure',
    column: 'choose a column',
    condition: 'add a condition',
  } as const;
  const sortOf = <T extends object>(words: T, a: string): string | undefined =>
    Object.entries(words).find(([sort]) => sort === a)?.[1];

  const faultOf = (slot: Slot<Spec>): Fault | undefined =>
    slot.add ? undefined : faults.find((fault) => isWithin(fault, `tally.${slot.path}`));

  /** Name of a marked word for screen readers: its sort and place, what stands there, what is wrong. */
  function nameOf(slot: Slot<Spec>): string {
    const { a } = slot.takes;
    if (slot.add)
      return a === 'more' ? 'more choices' : `${slot.words} ${sortOf(ADD, a) ?? 'choose'}`;
    const place = /\[(\d+)\]$/.exec(slot.path);
    const sort = slot.name ?? sortOf(SORTS, a) ?? 'Choice';
    const fault = faultOf(slot);
    const wrong = fault ? `. Takes no part: ${fault.message} ${fault.remedy}` : '';
    return `${sort}${place ? ` ${Number(place[1]) + 1}` : ''}: ${slot.words}${wrong}`;
  }
  const WIDE: readonly string[] = ['condition', 'bands'];
</script>

{#each parts as part, k (typeof part === 'string' ? `words ${k}` : part.path)}
  {#if typeof part === 'string'}{part}{:else}
    {@const fault = faultOf(part)}
    <Pop
      class="word{part.add ? ' empty' : ''}{fault ? ' faulty' : ''}"
      width={WIDE.includes(part.takes.a) ? 460 : part.takes.a === 'measure' ? 320 : 300}
      name={nameOf(part)}
      title={fault ? `Takes no part: ${fault.message} ${fault.remedy}` : undefined}
    >
      {#snippet label()}{part.words}{#if fault}<span aria-hidden="true">&nbsp;⚠</span
          >{/if}{/snippet}
      {#snippet children(close)}
        {#if fault}<p class="wrong">Takes no part: {fault.message} {fault.remedy}</p>{/if}
        <SlotMenu
          {bench}
          place={part}
          columns={part.ofInner && inner ? inner : bench.columns}
          {onset}
          {close}
        />
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
    /* As wide as a finger needs, also where a single digit stands. */
    min-width: 25px;
    text-align: center;
    cursor: pointer;
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
