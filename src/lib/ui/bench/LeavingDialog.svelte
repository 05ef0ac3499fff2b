<script lang="ts">
  import Dialog from '../components/Dialog.svelte';

  interface Props {
    /** What is not saved, and what comes of it either way. */
    why: string;
    onstay: () => void;
    onleave: () => void;
  }
  let { why, onstay, onleave }: Props = $props();
  let stay = $state<HTMLButtonElement>();
</script>

<Dialog
  bind:open={() => true, (open) => !open && onstay()}
  name="Not saved yet"
  alert
  first={() => stay ?? null}
>
  {#snippet children(close)}
    <h2 class="serif">Not saved yet</h2>
    <p>{why}</p>
    <div class="choose">
      <button type="button" class="plain-button" onclick={onleave} data-test="leave">Leave</button>
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
