<script lang="ts">
  import type { Component, ComponentProps, Snippet } from 'svelte';
  import type ActMenu from './ActMenu.svelte';
  import { actMenu, type MenuAct } from './menuAct';

  /** A button that opens a menu of acts. Until it is first pressed it is a button alone. */
  interface Props {
    label: Snippet;
    acts: readonly MenuAct[];
    class?: string;
    name: string;
    /** Told where the menu could not be fetched. */
    onfault: () => void;
  }
  let { label, acts, class: look = 'act', name, onfault }: Props = $props();
  let Open = $state.raw<Component<ComponentProps<typeof ActMenu>>>();

  async function open(): Promise<void> {
    try {
      Open = (await actMenu()).default;
    } catch {
      onfault();
    }
  }

  function keyed(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown') return;
    event.preventDefault();
    void open();
  }
</script>

{#if Open}<Open {label} {acts} class={look} {name} />{:else}<button
    type="button"
    class={look}
    aria-label={name}
    aria-haspopup="menu"
    aria-expanded="false"
    onclick={() => void open()}
    onkeydown={keyed}>{@render label()}</button
  >{/if}
