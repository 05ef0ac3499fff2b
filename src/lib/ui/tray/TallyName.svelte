<script lang="ts">
  import { onMount } from 'svelte';

  /** A tally's name in the making: Enter or going on keeps it, Escape does not. */
  interface Props {
    /** Its own name; empty where its sentence is its name. */
    name: string;
    /** What it is called without one. */
    usual: string;
    /** @param name null where it stays as it was */
    ondone: (name: string | null) => void;
  }
  let { name, usual, ondone }: Props = $props();
  let field: HTMLInputElement;
  let done = false;

  onMount(() => {
    field.focus();
    field.select();
  });

  function end(next: string | null): void {
    if (done) return;
    done = true;
    ondone(next);
  }

  function keyed(event: KeyboardEvent): void {
    if (event.key === 'Enter') end(field.value);
    else if (event.key === 'Escape') end(null);
    else return;
    event.preventDefault();
  }
</script>

<input
  class="field"
  value={name}
  bind:this={field}
  maxlength="200"
  placeholder="its sentence"
  aria-label="Name of {usual}"
  onkeydown={keyed}
  onblur={() => end(field.value)}
/>

<style>
  .field {
    flex: 1;
    min-width: 0;
    margin: 2px 4px;
  }
</style>
