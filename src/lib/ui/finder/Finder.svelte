<script lang="ts">
  import Dialog from '../shell/Dialog.svelte';
  import type { Act } from './acts';

  interface Props {
    acts: readonly Act[];
    /** Finds more by what was typed: values of columns. */
    search: (text: string) => Promise<readonly Act[]>;
  }
  let { acts, search }: Props = $props();
  let field = $state<HTMLInputElement>();
  let list = $state<HTMLUListElement>();
  let text = $state('');
  let at = $state(0);
  let open = $state(false);

  const words = $derived(text.toLowerCase().split(/\s+/).filter(Boolean));
  let more = $state.raw<readonly Act[]>([]);
  $effect(() => {
    const typed = text.trim();
    if (!open || typed.length < 2) {
      more = [];
      return;
    }
    search(typed).then(
      (values) => {
        if (typed === text.trim()) more = values;
      },
      () => {},
    );
  });
  const known = $derived(
    acts
      .filter((act) => words.every((w) => `${act.label} ${act.kind}`.toLowerCase().includes(w)))
      .slice(0, 60),
  );
  const found = $derived([...known, ...more]);
  const chosen = $derived(Math.min(at, found.length - 1));

  export function show(): void {
    text = '';
    at = 0;
    open = true;
  }

  function run(act: Act | undefined): void {
    if (!act) return;
    open = false;
    act.run();
  }

  function keyed(event: KeyboardEvent): void {
    if (event.key === 'ArrowDown') at = Math.min(found.length - 1, chosen + 1);
    else if (event.key === 'ArrowUp') at = Math.max(0, chosen - 1);
    else if (event.key === 'Enter') run(found[chosen]);
    else return;
    event.preventDefault();
    requestAnimationFrame(() =>
      list?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }),
    );
  }
</script>

<Dialog bind:open name="Find or do" width={600} first={() => field ?? null}>
  <input
    class="field"
    type="text"
    placeholder="Find a column or a value, or do something…"
    bind:this={field}
    role="combobox"
    aria-expanded="true"
    aria-controls="finder-list"
    aria-activedescendant={found.length ? `finder-${chosen}` : undefined}
    aria-label="Find or do"
    bind:value={text}
    oninput={() => (at = 0)}
    onkeydown={keyed}
    data-test="finder"
  />
  <ul bind:this={list} id="finder-list" role="listbox" aria-label="What was found">
    {#each found as act, k (k)}
      <!-- The keys are taken by the field above. -->
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li id="finder-{k}" role="option" aria-selected={k === chosen} onclick={() => run(act)}>
        <span>{act.label}</span><small>{act.keys ?? act.kind}</small>
      </li>
    {/each}
  </ul>
  {#if found.length === 0}<p>
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
</style>
