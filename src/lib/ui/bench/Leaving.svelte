<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import Dialog from '../shell/Dialog.svelte';
  import type { BenchState } from './bench.svelte';

  interface Props {
    bench: BenchState;
  }
  let { bench }: Props = $props();
  const { saver } = $derived(bench);
  let to = $state<URL | null>(null);
  let asking = $state(false);
  let letGo = false;
  let stay = $state<HTMLButtonElement>();

  beforeNavigate(({ cancel, to: target, willUnload }) => {
    if (letGo || willUnload || !saver.unsaved || !target) return;
    cancel();
    to = target.url;
    void saveAndGo();
  });

  /** Saves first; asks where that cannot be done. */
  async function saveAndGo(): Promise<void> {
    await saver.settle();
    if (saver.unsaved) asking = true;
    else await go();
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
/>

<Dialog bind:open={asking} name="Not saved yet" alert first={() => stay ?? null}>
  {#snippet children(close)}
    <h2 class="serif">Not saved yet</h2>
    <p>{why}</p>
    <div class="choose">
      <button type="button" class="plain-button" onclick={() => void go()} data-test="leave"
        >Leave</button
      >
      <button type="button" class="main-button" bind:this={stay} onclick={close} data-test="stay"
        >Stay</button
      >
    </div>
  {/snippet}
</Dialog>

<style>
  h2 {
    margin: 0 0 8px;
    font-size: 20px;
  }
  p {
    margin: 0 0 14px;
  }
  .choose {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
  }
</style>
