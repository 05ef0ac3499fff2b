<script lang="ts" generics="T extends string">
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
  let list: HTMLUListElement;
  const shown = $derived(
    choices.filter((c) => `${c.label} ${c.group ?? ''}`.toLowerCase().includes(text.toLowerCase())),
  );

  function step(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    const buttons = [...list.querySelectorAll('button')];
    const at = buttons.indexOf(document.activeElement as HTMLButtonElement);
    const to = event.key === 'ArrowDown' ? Math.min(buttons.length - 1, at + 1) : at - 1;
    if (to < 0) list.parentElement?.querySelector('input')?.focus();
    else buttons[to]?.focus();
  }

  function first(event: KeyboardEvent): void {
    if (event.key === 'Enter' && shown[0]) onchoose(shown[0].value);
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div onkeydown={step}>
  {#if search}
    <input
      class="field search"
      type="text"
      placeholder="Find…"
      aria-label="Find in {name}"
      bind:value={text}
      onkeydown={first}
    />
  {/if}
  <ul bind:this={list} aria-label={name}>
    {#each shown as choice, k (choice.value)}
      {#if choice.group && choice.group !== shown[k - 1]?.group}<li class="caps">
          {choice.group}
        </li>{/if}
      <li>
        <button
          type="button"
          class:chosen={choice.value === chosen}
          aria-pressed={choice.value === chosen}
          onclick={() => onchoose(choice.value)}
        >
          <span>{choice.label}</span>
          {#if choice.note}<small>{choice.note}</small>{/if}
        </button>
      </li>
    {:else}
      <li class="none">Nothing matches “{text}”.</li>
    {/each}
  </ul>
</div>

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
  button {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    width: 100%;
    text-align: left;
    padding: 4px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
  button:hover,
  button:focus-visible {
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
    padding: 4px 8px;
    color: var(--ink-soft);
  }
</style>
