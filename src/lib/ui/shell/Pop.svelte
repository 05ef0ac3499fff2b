<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** What stands on the button. */
    label: Snippet;
    /** The menu; `close` shuts it and gives the focus back. */
    children: Snippet<[close: () => void]>;
    class?: string;
    title?: string;
    /** Name for screen readers, where the label is not enough. */
    name?: string;
    width?: number;
    onopen?: () => void;
  }
  let { label, children, class: look = 'act', title, name, width = 260, onopen }: Props = $props();

  const id = $props.id();
  let button: HTMLButtonElement;
  let panel: HTMLDivElement;
  let open = $state(false);

  const MARGIN = 8;

  function place(): void {
    const at = button.getBoundingClientRect();
    const size = panel.getBoundingClientRect();
    const left = Math.max(MARGIN, Math.min(at.left, innerWidth - size.width - MARGIN));
    const below = at.bottom + 4;
    const fits = below + size.height < innerHeight - MARGIN;
    const top = fits
      ? below
      : Math.max(MARGIN, Math.min(below, innerHeight - size.height - MARGIN));
    panel.style.left = `${left}px`;
    panel.style.top = `${top}px`;
  }

  function toggled(event: ToggleEvent): void {
    open = event.newState === 'open';
    if (!open) return;
    onopen?.();
    requestAnimationFrame(() => {
      place();
      panel.querySelector<HTMLElement>('[data-first], input, select, button')?.focus();
    });
  }

  export function close(): void {
    panel.hidePopover();
    button.focus();
  }
</script>

<!-- A flex box, so that no space stands between the button and what follows it in a sentence. -->
<span class="anchor">
  <button
    bind:this={button}
    type="button"
    class={look}
    {title}
    aria-label={name}
    aria-haspopup="dialog"
    aria-expanded={open}
    popovertarget={id}
  >
    {@render label()}
  </button>
  <div
    bind:this={panel}
    {id}
    popover
    class="pop"
    role="dialog"
    aria-label={name ?? title ?? 'Menu'}
    style:width="{width}px"
    ontoggle={toggled}
  >
    {#if open}{@render children(close)}{/if}
  </div>
</span>

<style>
  .anchor {
    display: inline-flex;
    align-items: baseline;
    max-width: 100%;
  }
  .pop {
    position: fixed;
    margin: 0;
    inset: auto;
    padding: 10px;
    max-height: min(70vh, 520px);
    overflow: auto;
    color: var(--ink);
    background: var(--raised);
    border: 1px solid var(--rule);
    border-radius: 8px;
    box-shadow: var(--shadow);
    font-family: var(--font-sans);
    font-size: 14px;
    line-height: 1.4;
    text-align: left;
  }
</style>
