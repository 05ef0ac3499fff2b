<script lang="ts" generics="Spec">
  import type { Fault } from '../../core/tally/spec/fault';
  import { isWithin } from '../../core/tally/spec/faultPath';
  import type { Move, Part, Slot } from '../../core/tally/sentence/sentence';
  import type { HTMLButtonAttributes } from 'svelte/elements';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Pop from '../components/Pop.svelte';
  import { UNREACHED } from '../components/unreached';
  import { slotMenu } from './slotMenu';
  import type SlotMenu from './SlotMenu.svelte';

  interface Props {
    bench: BenchState;
    /** The sentence of a tally, as its kind says it. */
    parts: readonly Part<Spec>[];
    /** What does not fit the list; it shows at its word. */
    faults: readonly Fault[];
    /** Columns of an inner result, for the places that choose among those. */
    inner?: Counts['columns'] | null;
    /** Takes the spec with another thing at a word. */
    onset: (label: string, spec: Spec) => void;
  }
  let { bench, parts, faults, inner = null, onset }: Props = $props();

  let Menu = $state.raw<typeof SlotMenu>();
  async function fetchMenu(): Promise<void> {
    Menu ??= (await slotMenu()).default;
  }

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
  /** The word that is dragged, and the one it would be dropped on. */
  let dragged = $state.raw<Slot<Spec> | null>(null);
  let over = $state<string | null>(null);
  const landing = (part: Slot<Spec>): Move<Spec> | undefined =>
    dragged?.moves?.find(({ onto }) => onto === part.path);

  const dragging = (part: Slot<Spec>): HTMLButtonAttributes => ({
    draggable: (part.moves?.length ?? 0) > 0,
    ondragstart: (event) => {
      event.dataTransfer?.setData('text/plain', part.words);
      dragged = part;
    },
    ondragend: () => {
      dragged = null;
      over = null;
    },
    ondragover: (event) => {
      if (!landing(part)) return;
      event.preventDefault();
      over = part.path;
    },
    ondragleave: () => {
      if (over === part.path) over = null;
    },
    ondrop: (event) => {
      const move = landing(part);
      dragged = null;
      over = null;
      if (!move) return;
      event.preventDefault();
      onset(move.words, move.set());
    },
  });

  const WIDE: readonly string[] = ['condition', 'bands'];
</script>

{#each parts as part, k (typeof part === 'string' ? `words ${k}` : part.path)}
  {#if typeof part === 'string'}{part}{:else}
    {@const fault = faultOf(part)}
    <Pop
      class="word{part.add ? ' empty' : ''}{fault ? ' faulty' : ''}{over === part.path
        ? ' landing'
        : ''}"
      more={dragging(part)}
      needs={fetchMenu}
      width={WIDE.includes(part.takes.a) ? 460 : part.takes.a === 'measure' ? 320 : 300}
      name={nameOf(part)}
      title={fault ? `Takes no part: ${fault.message} ${fault.remedy}` : undefined}
    >
      {#snippet label()}{part.words}{#if fault}<span aria-hidden="true">&nbsp;⚠</span
          >{/if}{/snippet}
      {#snippet children(close)}
        {#if fault}<p class="wrong">Takes no part: {fault.message} {fault.remedy}</p>{/if}
        {#if Menu}
          <Menu
            {bench}
            place={part}
            columns={part.ofInner && inner ? inner : bench.columns}
            {onset}
            {close}
          />
        {:else}
          <p>{UNREACHED}</p>
        {/if}
        {@const near = part.moves?.filter(({ far }) => !far) ?? []}
        {#if near.length}
          <div class="moves">
            {#each near as move (move.onto)}
              <button
                type="button"
                class="act"
                onclick={() => {
                  close();
                  onset(move.words, move.set());
                }}>{move.words}</button
              >
            {/each}
          </div>
        {/if}
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
  :global(.word.landing) {
    background: var(--tide-wash);
    box-shadow: -3px 0 0 var(--tide);
  }
  .moves {
    display: grid;
    justify-items: start;
    margin-top: 8px;
    border-top: 1px solid var(--rule);
    padding-top: 6px;
  }
  .wrong {
    font: 14px var(--font-sans);
    color: var(--plum);
    margin: 0 0 8px;
  }
</style>
