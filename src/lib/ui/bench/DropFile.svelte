<script lang="ts">
  import { goto } from '$app/navigation';
  import { asOneFile } from '../components/asOneFile';
  import { pending } from '../intake/pending';

  interface Props {
    listId: number;
    /** The bench to come back to. */
    bench: number;
    listName: string;
    /** Why the list takes no file; '' where it does. */
    refused: string;
  }
  let { listId, bench, listName, refused }: Props = $props();

  /** How deep within the page a file is being dragged; 0: none is. */
  let depth = $state(0);
  const isFile = (event: DragEvent): boolean =>
    event.dataTransfer?.types.includes('Files') ?? false;

  async function dropped(event: DragEvent): Promise<void> {
    if (!isFile(event)) return;
    event.preventDefault();
    depth = 0;
    const file = await asOneFile([...(event.dataTransfer?.files ?? [])]);
    if (!file || refused) return;
    pending.file = file;
    void goto(`/intake?list=${listId}&bench=${bench}`);
  }
</script>

<svelte:window
  ondragenter={(event) => {
    if (isFile(event)) depth++;
  }}
  ondragleave={(event) => {
    if (isFile(event)) depth = Math.max(0, depth - 1);
  }}
  ondragover={(event) => {
    if (isFile(event)) event.preventDefault();
  }}
  ondrop={dropped}
/>

{#if depth > 0}
  <div class="over" aria-hidden="true" data-test="drop-file">
    <p class="serif">{refused || `Drop it here: a new reading of ${listName}, by its recipe.`}</p>
  </div>
{/if}

<style>
  .over {
    position: fixed;
    inset: 12px;
    z-index: 60;
    display: grid;
    place-items: center;
    border: 2px dashed var(--tide);
    border-radius: 12px;
    background: color-mix(in srgb, var(--paper) 88%, transparent);
    pointer-events: none;
  }
  p {
    font-size: 24px;
  }
</style>
