<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { counted } from '../../core/table/format';
  import { pending } from '../intake/pending';
  import Dialog from '../components/Dialog.svelte';
  import FileDrop from '../components/FileDrop.svelte';
  import TopBar from '../components/TopBar.svelte';
  import type { ShelfList } from './shelfList';
  import ShelfTable from './ShelfTable.svelte';

  interface Props {
    lists: readonly ShelfList[];
    now: string;
    /** The databases that the server keeps under names, and what is wrong with their file. */
    databases: readonly { name: string }[];
    databaseFault: string;
  }
  let { lists, now, databases, databaseFault }: Props = $props();

  let text = $state('');
  let deleting = $state<ShelfList | null>(null);
  let confirming = $state(false);
  let keep = $state<HTMLButtonElement>();
  let fault = $state('');

  function take(file: File): void {
    pending.file = file;
    void goto('/intake');
  }

  function takeText(): void {
    if (text.trim()) take(new File([text], 'pasted text.txt', { type: 'text/plain' }));
  }

  /** Pasting anywhere on the shelf brings text in, but not into a field. */
  function pasted(event: ClipboardEvent): void {
    if (event.target instanceof HTMLTextAreaElement || event.target instanceof HTMLInputElement)
      return;
    const data = event.clipboardData?.getData('text/plain') ?? '';
    if (data.includes('\n')) take(new File([data], 'pasted text.txt', { type: 'text/plain' }));
  }

  async function remove(): Promise<void> {
    if (!deleting) return;
    const response = await fetch(`/api/lists/${deleting.id}`, { method: 'DELETE' });
    confirming = false;
    fault = response.ok ? '' : 'The list could not be deleted.';
    await invalidateAll();
  }
</script>

<svelte:head><title>Shelf · Tally Loft</title></svelte:head>
<svelte:window onpaste={pasted} />

<div class="page">
  <TopBar>
    {#snippet trail()}Shelf{/snippet}
    {#snippet acts()}<a class="bar-button" href="/keys">Keys</a>{/snippet}
  </TopBar>
  <main>
    <h1 class="serif">{lists.length ? 'Your lists' : 'Bring in a first list'}</h1>
    {#if fault}<p role="alert" class="fault">{fault}</p>{/if}
    <section class="bring" aria-label="Bring in a list">
      <FileDrop name="Drop a file" label="Choose a file" many onfile={take} test="choose-file">
        <p class="lead serif">Drop a file here, or paste a table.</p>
        <p class="soft">
          Delimited text, a workbook, JSON, Arrow or Parquet. You see how it is read, and everything
          doubtful in it, before anything is kept.
          {#if lists.length}A file dropped on a list below is a new reading of it.{:else}For a
            start, drop any list of records here.{/if}
        </p>
      </FileDrop>
      <form
        onsubmit={(e) => {
          e.preventDefault();
          takeText();
        }}
      >
        <textarea
          class="field"
          rows="4"
          bind:value={text}
          aria-label="Paste a table here"
          placeholder="Paste here:&#10;route;boarded&#10;Nessness;120"
          data-test="paste"></textarea>
        <button type="submit" class="plain-button" disabled={!text.trim()} data-test="take-text"
          >Read the pasted text</button
        >
      </form>
    </section>

    {#if databaseFault}<p role="alert" class="fault">{databaseFault}</p>{/if}
    {#if databases.length}
      <p class="databases" data-test="databases">
        Or read from a database: {#each databases as { name }, k (name)}{k ? ', ' : ''}<a
            href="/intake?from={encodeURIComponent(name)}">{name}</a
          >{/each}
      </p>
    {/if}

    {#if lists.length}
      <ShelfTable
        {lists}
        {now}
        ondelete={(list) => {
          deleting = list;
          confirming = true;
        }}
      />
    {/if}
  </main>
</div>

<Dialog
  bind:open={confirming}
  name="Delete {deleting?.name ?? ''}?"
  alert
  first={() => keep ?? null}
>
  {#snippet children(close)}
    {#if deleting}
      <h2 class="serif">Delete “{deleting.name}”?</h2>
      <p>
        Its {counted(deleting.readings, 'reading')} and {counted(
          deleting.benches.length,
          'bench',
          'benches',
        )} go with it. This cannot be undone.
      </p>
      <div class="confirm">
        <button type="button" class="plain-button" bind:this={keep} onclick={close}>Keep it</button>
        <button type="button" class="main-button" onclick={remove} data-test="delete-list"
          >Delete</button
        >
      </div>
    {/if}
  {/snippet}
</Dialog>

<style>
  main {
    max-width: 1100px;
    margin: 0 auto;
    padding: 26px 24px 60px;
  }
  h1 {
    font-size: 28px;
    margin: 0 0 14px;
    font-weight: 600;
  }
  .bring {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 26px;
    margin-bottom: 26px;
  }
  .lead {
    font-size: 19px;
    margin: 0 0 6px;
  }
  .soft {
    color: var(--ink-soft);
    margin: 0 0 12px;
  }
  form {
    display: grid;
    gap: 8px;
    justify-items: end;
    align-content: start;
  }
  textarea {
    width: 100%;
    font-family: ui-monospace, monospace;
    font-size: 13px;
  }
  .databases {
    margin: -10px 0 26px;
  }
  .databases a {
    color: var(--tide);
    text-decoration: underline;
  }
  h2 {
    margin: 0 0 8px;
    font-size: 20px;
  }
  .confirm {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
  }
  .fault {
    color: var(--bad);
  }
</style>
