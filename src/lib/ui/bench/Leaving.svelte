<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import type { BenchState } from './bench.svelte';
  import { PARTS } from './parts';

  interface Props {
    bench: BenchState;
  }
  let { bench }: Props = $props();
  const { saver } = $derived(bench);
  let to = $state<URL | null>(null);
  let asking = $state(false);
  let letGo = false;

  beforeNavigate(({ cancel, to: target, willUnload }) => {
    if (letGo || willUnload || !saver.unsaved || !target) return;
    cancel();
    to = target.url;
    void saveAndGo();
  });

  /** Saves first; asks where that cannot be done. */
  async function saveAndGo(): Promise<void> {
    await saver.settle();
    if (!saver.unsaved) return go();
    try {
      await PARTS.leaving();
      asking = true;
    } catch {
      // The server may be why nothing is saved, and the dialog be one of its files.
      if (confirm(why)) await go();
    }
  }

  async function go(): Promise<void> {
    letGo = true;
    asking = false;
    if (to) await goto(to);
    letGo = false;
  }

  const WHY = {
    conflict:
      'This bench was changed elsewhere, and what you did here is not saved. Stay to choose which of the two goes on. If you leave, yours is kept in this browser and offered when you open the bench again.',
    failed:
      'The server does not take it now. If you leave, what you changed is kept in this browser and saved when the server answers again.',
    apart:
      'What you changed in this earlier state is on this page only. Stay to make it the newest state of the bench, or leave without it.',
  } as const;
  const why = $derived(
    saver.state === 'conflict' || saver.state === 'apart' ? WHY[saver.state] : WHY.failed,
  );
</script>

<svelte:window
  onbeforeunload={(event) => {
    if (!saver.unsaved) return;
    void saver.flush();
    event.preventDefault();
  }}
  onpagehide={() => saver.leave()}
/>

{#if asking}
  {#await PARTS.leaving() then { default: LeavingDialog }}
    <LeavingDialog {why} onstay={() => (asking = false)} onleave={() => void go()} />
  {/await}
{/if}
