<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLButtonAttributes } from 'svelte/elements';
  import { Popover } from '@skeletonlabs/skeleton-svelte';

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
    /** What must be there before it opens; it opens without it where that cannot be fetched. */
    needs?: () => Promise<unknown>;
    /** What else the button does: it is dragged, or dropped on. */
    more?: HTMLButtonAttributes;
  }
  let {
    label,
    children,
    class: look = 'act',
    title,
    name,
    width = 260,
    onopen,
    needs,
    more = {},
  }: Props = $props();

  const FIELDS = 'input, select, textarea, button';

  let open = $state(false);
  let panel = $state<HTMLDivElement>();

  /** Where the focus goes at first. */
  const firstOf = (within: HTMLElement): HTMLElement | null =>
    within.querySelector<HTMLElement>('[data-first]') ??
    within.querySelector<HTMLElement>(FIELDS) ??
    null;

  // What is fetched within the menu may come after the focus went to the menu itself.
  $effect(() => {
    const within = panel;
    if (!within) return;
    const watcher = new MutationObserver(() => {
      if (document.activeElement === within) firstOf(within)?.focus();
    });
    watcher.observe(within, { childList: true, subtree: true });
    const settled = (event: FocusEvent): void => {
      if (event.target !== within) watcher.disconnect();
    };
    within.addEventListener('focusin', settled);
    return () => {
      watcher.disconnect();
      within.removeEventListener('focusin', settled);
    };
  });

  /** Turns with each press: what is fetched meanwhile opens nothing that was shut again. */
  let turn = 0;

  async function show(): Promise<void> {
    const mine = ++turn;
    await needs?.().catch(() => undefined);
    if (mine !== turn) return;
    open = true;
    onopen?.();
  }

  export function close(): void {
    turn++;
    open = false;
  }
</script>

<!-- A flex box, so that no space stands between the button and what follows it in a sentence. -->
<span class="anchor">
  <Popover
    {open}
    onOpenChange={(now) => {
      if (now.open) void show();
      else close();
    }}
    portalled={false}
    onFocusOutside={(event) => event.preventDefault()}
    positioning={{ placement: 'bottom-start', strategy: 'fixed', gutter: 4, overflowPadding: 8 }}
    initialFocusEl={() => (panel ? firstOf(panel) : null)}
  >
    <Popover.Trigger>
      {#snippet element(attributes)}
        <button {...attributes} {...more} type="button" class={look} {title} aria-label={name}
          >{@render label()}</button
        >
      {/snippet}
    </Popover.Trigger>
    {#if open}
      <Popover.Positioner>
        {#snippet element(attributes)}
          <div {...attributes} class="positioner">
            <Popover.Content>
              {#snippet element(attributes)}
                <div
                  {...attributes}
                  bind:this={panel}
                  class="pop"
                  aria-label={name ?? title ?? 'Menu'}
                  aria-labelledby={undefined}
                  style:width="{width}px"
                >
                  {@render children(close)}
                </div>
              {/snippet}
            </Popover.Content>
          </div>
        {/snippet}
      </Popover.Positioner>
    {/if}
  </Popover>
</span>

<style>
  .anchor {
    display: inline-flex;
    align-items: baseline;
    max-width: 100%;
  }
  .pop {
    /* Its positioner takes this over: above fixed heads of tables. */
    z-index: 40;
    box-sizing: border-box;
    padding: 10px;
    max-width: calc(100vw - 16px);
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
