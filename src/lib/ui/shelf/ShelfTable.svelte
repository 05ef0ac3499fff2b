<script lang="ts">
  import { goto } from '$app/navigation';
  import Link2 from '@lucide/svelte/icons/link-2';
  import Snowflake from '@lucide/svelte/icons/snowflake';
  import { originWords } from '../../core/bench/origin';
  import { showCount, showMoment } from '../../core/table/format';
  import { pending } from '../intake/pending';
  import { asOneFile } from '../components/asOneFile';
  import { freshness } from './freshness';
  import { onShelf, type ShelfList, type ShelfOrder } from './shelfList';

  interface Props {
    lists: readonly ShelfList[];
    now: string;
    ondelete: (list: ShelfList) => void;
  }
  let { lists, now, ondelete }: Props = $props();
  let text = $state('');
  let order = $state<ShelfOrder>('readAt');
  let descending = $state(true);
  const shown = $derived(onShelf(lists, text, order, descending));

  /** The list that a file is held over. */
  let over = $state<number | null>(null);

  /** A file dropped on a list is a new reading of it. */
  async function dropped(event: DragEvent, list: ShelfList): Promise<void> {
    if (list.origin) return;
    event.preventDefault();
    over = null;
    const file = await asOneFile([...(event.dataTransfer?.files ?? [])]);
    if (!file) return;
    pending.file = file;
    void goto(`/intake?list=${list.id}`);
  }

  function sortBy(next: ShelfOrder): void {
    descending = next === order ? !descending : next !== 'name';
    order = next;
  }
</script>

{#snippet head(by: ShelfOrder, words: string)}
  <th
    scope="col"
    class:right={by === 'records'}
    aria-sort={order === by ? (descending ? 'descending' : 'ascending') : 'none'}
  >
    <button type="button" onclick={() => sortBy(by)} data-test="shelf-sort-{by}"
      >{words}<span aria-hidden="true">{order === by ? (descending ? ' ↓' : ' ↑') : ''}</span
      ></button
    >
  </th>
{/snippet}

{#if lists.length > 1}
  <input
    class="field find"
    type="search"
    bind:value={text}
    placeholder="Find a list…"
    aria-label="Find a list"
    data-test="find-list"
  />
{/if}
<table>
  <caption class="visually-hidden">Lists</caption>
  <thead
    ><tr
      >{@render head('name', 'List')}{@render head('records', 'Records')}{@render head(
        'readAt',
        'Read',
      )}<th scope="col">From</th><th scope="col">Benches</th><th scope="col"
        ><span class="visually-hidden">Acts</span></th
      ></tr
    ></thead
  >
  <tbody>
    {#each shown as list (list.id)}
      <tr
        data-test="list"
        class:over={over === list.id}
        ondragover={(e) => {
          if (list.origin || !e.dataTransfer?.types.includes('Files')) return;
          e.preventDefault();
          over = list.id;
        }}
        ondragleave={() => (over = null)}
        ondrop={(e) => void dropped(e, list)}
      >
        <th scope="row">
          <a href="/benches/{list.benches[0]?.id ?? ''}">{list.name}</a>
          {#if list.feeds.length}<small>feeds {list.feeds.join(', ')}</small>{/if}
        </th>
        <td class="right">{showCount(list.records)}</td>
        <td title={showMoment(list.readAt)}>{freshness(list.readAt, now)}</td>
        <td class="from">
          {#if list.origin}
            <span class="made" data-test="origin"
              >{#if list.origin.frozen}<Snowflake size={13} aria-hidden="true" />{:else}<Link2
                  size={13}
                  aria-hidden="true"
                />{/if}
              {originWords(list.origin)}</span
            >
            {#if list.origin.fault}<small class="bad">{list.origin.fault}</small>{/if}
          {/if}
          <span class="cut" title={list.fileName}>{list.fileName}</span>
        </td>
        <td
          >{#each list.benches as bench, k (bench.id)}{k ? ', ' : ''}<a href="/benches/{bench.id}"
              >{bench.name}</a
            >{/each}</td
        >
        <td class="acts">
          {#if !list.origin}<a href="/intake?list={list.id}">Refresh</a>{/if}
          <a href="/lists/{list.id}"
            >{list.readings === 1 ? 'Details' : `${list.readings} readings`}</a
          >
          <button
            type="button"
            class="act"
            aria-label="Delete {list.name}"
            onclick={() => ondelete(list)}>Delete</button
          >
        </td>
      </tr>
    {:else}
      <tr><td colspan="6">No list is called “{text}”.</td></tr>
    {/each}
  </tbody>
</table>

<style>
  .over {
    background: var(--tide-wash);
    outline: 2px dashed var(--tide);
    outline-offset: -2px;
  }
  .find {
    display: block;
    width: 260px;
    margin: 0 0 8px auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  thead th {
    text-align: left;
    border-bottom: 1.5px solid var(--rule-strong);
    padding: 6px 10px;
    font-weight: 600;
  }
  thead button {
    all: unset;
    cursor: pointer;
    white-space: nowrap;
  }
  thead button:focus-visible {
    outline: 2px solid var(--tide);
    outline-offset: 2px;
  }
  tbody th,
  td {
    text-align: left;
    padding: 9px 10px;
    border-bottom: 1px solid var(--rule);
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  tbody th a {
    font: 600 17px var(--font-serif);
  }
  small {
    display: block;
    color: var(--ink-soft);
  }
  .bad {
    color: var(--plum);
  }
  a {
    color: var(--tide);
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
  .right {
    text-align: right !important;
    white-space: nowrap;
  }
  .from {
    color: var(--ink-soft);
    max-width: 220px;
  }
  .made :global(svg) {
    flex: none;
    align-self: center;
  }
  .made {
    display: flex;
    gap: 5px;
    align-items: baseline;
    color: var(--ink);
  }
  .cut {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .acts {
    white-space: nowrap;
    text-align: right;
  }
  .acts > * {
    margin-left: 10px;
  }
</style>
