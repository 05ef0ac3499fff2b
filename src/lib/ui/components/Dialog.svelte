<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Dialog } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    open: boolean;
    /** Its name for screen readers; a heading of its own may say the same. */
    name: string;
    children: Snippet<[close: () => void]>;
    width?: number;
    /** Something that must be answered, and not a place to look something up. */
    alert?: boolean;
    /** Takes the focus at first; the first field or button where nothing says so. */
    first?: () => HTMLElement | null;
  }
  let { open = $bindable(), name, children, width = 440, alert = false, first }: Props = $props();
  const close = (): void => {
    open = false;
  };
</script>

<Dialog
  {open}
  onOpenChange={(now) => (open = now.open)}
  role={alert ? 'alertdialog' : 'dialog'}
  initialFocusEl={first}
>
  {#if open}
    <Dialog.Backdrop>
      {#snippet element(attributes)}<div {...attributes} class="backdrop"></div>{/snippet}
    </Dialog.Backdrop>
    <Dialog.Positioner>
      {#snippet element(attributes)}
        <div {...attributes} class="positioner" class:alert>
          <Dialog.Content>
            {#snippet element(attributes)}
              <div
                {...attributes}
                class="box"
                aria-label={name}
                aria-labelledby={undefined}
                style:width="min({width}px, 92vw)"
              >
                {@render children(close)}
              </div>
            {/snippet}
          </Dialog.Content>
        </div>
      {/snippet}
    </Dialog.Positioner>
  {/if}
</Dialog>

<style>
  .backdrop {
    position: fixed;
    inset: 0;
    z-index: 50;
    background: rgb(20 24 32 / 42%);
  }
  .positioner {
    position: fixed;
    inset: 0;
    z-index: 51;
    display: flex;
    justify-content: center;
    align-items: flex-start;
    padding-top: 12vh;
  }
  .alert {
    padding-top: 26vh;
  }
  .box {
    box-sizing: border-box;
    padding: 12px;
    color: var(--ink);
    background: var(--raised);
    border: 1px solid var(--rule);
    border-radius: 10px;
    box-shadow: var(--shadow);
  }
  .alert .box {
    padding: 18px 20px;
  }
</style>
