<script lang="ts" generics="T extends string">
  import { Listbox, useListCollection } from '@skeletonlabs/skeleton-svelte';

  interface Choice {
    value: T;
    label: string;
    note?: string;
    /** Heading of the choices that it stands with. */
    group?: string;
  }
  interface Props {
    choices: readonly Choice[];
    chosen?: T | null;
    onchoose: (value: T) => void;
    /** Offers a field to narrow the list. */
    search?: boolean;
    name: string;
  }
  let { choices, chosen = null, onchoose, search = choices.length > 8, name }: Props = $props();
  let text = $state('');
  const shown = $derived(
    choices.filter((c) => `${c.label} ${c.group ?? ''}`.toLowerCase().includes(text.toLowerCase())),
  );
  const collection = $derived(
    useListCollection({
      items: shown,
      itemToValue: (c) => c.value,
      itemToString: (c) => c.label,
    }),
  );

  function choose(value: string): void {
    const choice = choices.find((c) => c.value === value);
    if (choice) onchoose(choice.value);
  }
</script>

<!-- Nothing stays selected in it: what holds may be chosen again, which shuts the menu. -->
<Listbox {collection} value={[]} onSelect={(now) => choose(now.value)}>
  {#if search}
    <Listbox.Input>
      {#snippet element(attributes)}
        <input
          {...attributes}
          data-first
          class="field search"
          type="text"
          placeholder="Find…"
          aria-label="Find in {name}"
          bind:value={text}
          onkeydown={(event) => {
            if (event.key === 'Enter' && shown[0] && !attributes['aria-activedescendant'])
              choose(shown[0].value);
            else attributes.onkeydown?.(event);
          }}
        />
      {/snippet}
    </Listbox.Input>
  {/if}
  <Listbox.Content>
    {#snippet element(attributes)}
      <ul
        {...attributes}
        aria-labelledby={undefined}
        aria-label={name}
        data-first={search ? undefined : true}
      >
        {#each shown as choice, k (choice.value)}
          {#if choice.group && choice.group !== shown[k - 1]?.group}<li
              class="caps"
              role="presentation"
            >
              {choice.group}
            </li>{/if}
          <Listbox.Item item={choice} highlightOnHover>
            {#snippet element(attributes)}
              <li
                {...attributes}
                class="choice"
                class:chosen={choice.value === chosen}
                role="option"
                aria-selected={choice.value === chosen}
              >
                <span>{choice.label}</span>
                {#if choice.note}<small>{choice.note}</small>{/if}
              </li>
            {/snippet}
          </Listbox.Item>
        {/each}
      </ul>
    {/snippet}
  </Listbox.Content>
  {#if shown.length === 0}<p class="none">Nothing matches “{text}”.</p>{/if}
</Listbox>

<style>
  .search {
    width: 100%;
    margin-bottom: 6px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    max-height: 300px;
    overflow: auto;
  }
  .choice {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    padding: 4px 8px;
    border-radius: 4px;
    cursor: pointer;
  }
  .choice:hover,
  .choice[data-highlighted] {
    background: var(--tide-wash);
  }
  .chosen {
    font-weight: 600;
    color: var(--tide);
  }
  small {
    color: var(--ink-soft);
    white-space: nowrap;
  }
  li.caps {
    padding: 6px 8px 2px;
  }
  .none {
    margin: 0;
    padding: 4px 8px;
    color: var(--ink-soft);
  }
</style>
