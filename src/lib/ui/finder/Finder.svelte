<script lang="ts">
  import { Combobox, useListCollection } from '@skeletonlabs/skeleton-svelte';
  import Dialog from '../components/Dialog.svelte';
  import type { Act } from './acts';
  import type { FirstFigure } from './firstFigures';

  interface Props {
    acts: readonly Act[];
    /** Finds more by what was typed: values of columns. */
    search: (text: string) => Promise<readonly Act[]>;
    /** What is searched; it is searched again where another stands in its place. */
    token: number;
    /** Wishes that the list answers, to begin with. */
    examples: () => Promise<readonly string[]>;
  }
  let { acts, search, token, examples }: Props = $props();
  let tryThese = $state.raw<readonly string[]>([]);
  let field = $state<HTMLInputElement>();
  let text = $state('');
  let at = $state(0);
  let open = $state(false);

  const words = $derived(text.toLowerCase().split(/\s+/).filter(Boolean));
  let more = $state.raw<readonly Act[]>([]);
  /** What `more` was found by. */
  let searched = $state('');
  /** Why values and tallies could not be looked for. */
  let trouble = $state('');
  /** Enter came before what these words find: it is done when that is there. */
  let entering = false;
  /** The words for which the words not understood were gone to: the next Enter takes the offer all the same. */
  let shownLeft = $state('');
  $effect(() => {
    const typed = text.trim();
    const of = token;
    entering = false;
    trouble = '';
    if (!open || typed.length < 2) {
      more = [];
      searched = typed;
      return;
    }
    search(typed).then(
      (values) => {
        if (typed !== text.trim() || of !== token) return;
        more = values;
        searched = typed;
        if (entering) take(found[0]);
      },
      (error: unknown) => {
        if (typed === text.trim() && of === token)
          trouble = error instanceof Error ? error.message : String(error);
      },
    );
  });
  // Shown before anything is typed; without them the finder is the same.
  $effect(() => {
    const of = token;
    if (!open) return;
    examples().then(
      (found) => of === token && (tryThese = found),
      () => (tryThese = []),
    );
  });
  const known = $derived(
    acts
      .filter((act) => words.every((w) => `${act.label} ${act.kind}`.toLowerCase().includes(w)))
      .slice(0, 60),
  );
  const found = $derived([
    ...known.filter(({ loosely }) => !loosely),
    ...more,
    ...known.filter(({ loosely }) => loosely),
  ]);
  const collection = $derived(
    useListCollection({
      items: found.map((act, k) => ({ act, value: String(k) })),
      itemToString: ({ act }) => act.label,
    }),
  );
  const chosen = $derived(Math.min(at, found.length - 1));

  export function show(): void {
    text = '';
    at = 0;
    shownLeft = '';
    open = true;
  }

  /** Goes to the first words that an act does not do; takes it where there are none, or they were gone to. */
  function take(act: Act | undefined): void {
    const [first] = act?.left ?? [];
    const from = first === undefined ? -1 : text.toLowerCase().indexOf(first.toLowerCase());
    if (first === undefined || shownLeft === text.trim() || !field) {
      run(act);
      return;
    }
    shownLeft = text.trim();
    field.focus();
    if (from >= 0) field.setSelectionRange(from, from + first.length);
  }

  function run(act: Act | undefined): void {
    if (!act) return;
    open = false;
    act.run();
  }

  /** Enter takes what is marked as the letters stand, however fast they came: never what fewer letters found. */
  function entered(event: KeyboardEvent): void {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const first = known.find(({ loosely }) => !loosely);
    if (searched !== text.trim() && (at > 0 || !first)) entering = true;
    else take(found[chosen]);
  }
  const left = $derived(found[chosen]?.left ?? []);

  /** The first figures of what is marked; they follow when they are there. */
  let figures = $state.raw<readonly FirstFigure[]>([]);
  $effect(() => {
    const asked = found[chosen]?.figures;
    figures = [];
    let stale = false;
    asked?.().then(
      (first) => stale || (figures = first),
      // Without them the offer is the same.
      () => undefined,
    );
    return () => (stale = true);
  });
</script>

<Dialog bind:open name="Find or do" width={680} first={() => field ?? null}>
  <Combobox
    {collection}
    open
    value={[]}
    inputValue={text}
    onInputValueChange={({ inputValue, reason }) => {
      if (reason !== 'input-change') return;
      text = inputValue;
      at = 0;
    }}
    highlightedValue={found.length ? String(chosen) : null}
    onHighlightChange={({ highlightedValue }) => {
      if (highlightedValue !== null) at = Number(highlightedValue);
    }}
    onSelect={({ itemValue }) => take(found[Number(itemValue)])}
    onOpenChange={(now) => {
      if (!now.open && now.reason === 'escape-key') open = false;
    }}
    inputBehavior="autohighlight"
    selectionBehavior="preserve"
    loopFocus={false}
  >
    <Combobox.Input>
      {#snippet element(attributes)}
        <input
          {...attributes}
          class="field"
          type="text"
          placeholder="Find a column or a value, or do something…"
          bind:this={field}
          aria-label="Find or do"
          onkeydown={(event) => {
            entered(event);
            if (!event.defaultPrevented) attributes.onkeydown?.(event);
          }}
          data-test="finder"
        />
      {/snippet}
    </Combobox.Input>
    {#if text === '' && tryThese.length}
      <p class="try" data-test="examples">
        Ask as you would say it:
        {#each tryThese as wish (wish)}<button
            type="button"
            class="act"
            onclick={() => {
              text = wish;
              at = 0;
              field?.focus();
            }}>{wish}</button
          >{/each}
      </p>
    {/if}
    {#if found[chosen]?.read?.length}
      <ul class="read" aria-label="Read as" data-test="read-as">
        {#each found[chosen].read as { typed, as }, k (k)}
          <li class:left={as === ''}><b>{typed}</b><small>{as || 'not understood'}</small></li>
        {/each}
      </ul>
    {/if}
    <Combobox.Content>
      {#snippet element(attributes)}
        <ul
          {...attributes}
          aria-labelledby={undefined}
          aria-label="What was found"
          data-test="finder-list"
        >
          {#each collection.items as item (item.value)}
            <Combobox.Item {item}>
              {#snippet element(attributes)}
                <li {...attributes} role="option" aria-selected={item.value === String(chosen)}>
                  <span
                    >{#if item.act.left?.length}<b class="left" data-test="left"
                        >Not understood: {item.act.left.map((word) => `“${word}”`).join(', ')}.</b
                      >{/if}{#each item.act.taken ?? [] as { typed, takenFor } (typed)}<small
                        class="taken"
                        data-test="taken">“{typed}” taken for “{takenFor}”.</small
                      >{/each}{item.act
                      .label}{#if item.value === String(chosen) && figures.length}<span
                        class="figures"
                        data-test="first-figures"
                        >{#each figures as { label, figure }, k (k)}<span
                            >{label} <b>{figure}</b></span
                          >{/each}</span
                      >{/if}</span
                  ><small>{item.act.keys ?? item.act.kind}</small>
                </li>
              {/snippet}
            </Combobox.Item>
          {/each}
        </ul>
      {/snippet}
    </Combobox.Content>
  </Combobox>
  {#if left.length}<p class="left" role="status" data-test="not-understood">
      Not understood: {left.map((word) => `“${word}”`).join(', ')}. {shownLeft === text.trim()
        ? 'Enter once more begins the tally without it.'
        : 'Enter goes to these words.'}
    </p>{/if}
  {#if trouble}<p role="alert">Values and tallies were not looked for: {trouble}</p>
  {:else if found.length === 0}<p>
      Nothing is called “{text}”. Try the name of a column, a group or an act.
    </p>{/if}
</Dialog>

<style>
  input {
    width: 100%;
    font-size: 16px;
    padding: 7px 10px;
  }
  ul {
    /* Within a dialog the list is taken for what lies under it, and set to take no clicks. */
    pointer-events: auto !important;
    list-style: none;
    padding: 0;
    margin: 8px 0 0;
    max-height: 46vh;
    overflow: auto;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 5px 10px;
    border-radius: 5px;
    cursor: pointer;
  }
  li[aria-selected='true'] {
    background: var(--tide-wash);
  }
  small {
    color: var(--ink-soft);
    white-space: nowrap;
  }
  p {
    margin: 10px;
    color: var(--ink-soft);
  }
  .try {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin: 8px 2px 6px;
    color: var(--ink-soft);
  }
  .read {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    max-height: none;
  }
  .read li {
    display: block;
    padding: 3px 4px 0;
    border-top: 2px solid var(--tide);
    border-radius: 0;
    cursor: default;
  }
  .read li.left {
    border-top: 2px dashed var(--plum);
  }
  .read b,
  .read small {
    display: block;
    font-size: 13px;
  }
  .read small {
    font-size: 12px;
    font-weight: 400;
  }
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    margin-top: 4px;
    font-size: 13px;
    color: var(--ink-soft);
  }
  .figures b {
    color: var(--ink);
    font-variant-numeric: tabular-nums;
  }
  .taken,
  b.left {
    margin-right: 0.35em;
  }
  .left {
    color: var(--plum);
    font-weight: 600;
  }
</style>
