<script lang="ts">
  import { onMount } from 'svelte';
  import { drop, leftUnsent, type Unsent } from './outbox';
  import { isSavedAlready } from './saver.svelte';

  /** What was kept in this browser while the server did not answer: sent now, and said. */
  let sent = $state.raw<readonly Unsent[]>([]);
  let stuck = $state.raw<readonly Unsent[]>([]);

  async function send(entry: Unsent): Promise<void> {
    const response = await fetch(`/api/benches/${entry.bench}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ follows: entry.follows, doc: entry.doc }),
    });
    const isSaved =
      response.ok || (response.status === 409 && isSavedAlready(await response.json(), entry.doc));
    if (isSaved) {
      await drop(entry);
      sent = [...sent, entry];
    } else if (response.status === 404) await drop(entry);
    else stuck = [...stuck, entry];
  }

  /** Of several states of one bench the older is saved first: the newer then has to be settled. */
  const oldestFirst = async (): Promise<Unsent[]> => (await leftUnsent()).reverse();

  onMount(async () => {
    for (const entry of await oldestFirst())
      try {
        await send(entry);
      } catch {
        stuck = [...stuck, entry];
      }
  });
</script>

{#if sent.length || stuck.length}
  <div class="unsent" role="status" data-test="unsent">
    {#each sent as { bench, name, tab } (`${bench} ${tab}`)}
      <p>
        What you changed in <a href="/benches/{bench}">{name}</a> was kept in this browser while it could
        not be saved. It is saved now.
      </p>
    {/each}
    {#each stuck as { bench, name, tab } (`${bench} ${tab}`)}
      <p>
        What you changed in <a href="/benches/{bench}">{name}</a> is kept in this browser and not saved
        yet. Open it to settle that.
      </p>
    {/each}
  </div>
{/if}

<style>
  .unsent {
    padding: 8px 20px;
    background: var(--plum-wash);
    color: var(--plum);
    border-bottom: 1px solid var(--rule);
  }
  p {
    margin: 2px 0;
  }
  a {
    color: inherit;
  }
</style>
