<script lang="ts">
  import type { Attachment } from 'svelte/attachments';
  import { createToaster, Toast } from '@skeletonlabs/skeleton-svelte';

  /** What was just done, for a while, at the foot of the rail; the page's own status says it aloud. */
  let { notice }: { notice: string } = $props();
  const toaster = createToaster({
    placement: 'bottom-start',
    overlap: false,
    offsets: '0px',
    gap: 0,
    duration: 8000,
    removeDelay: 0,
    // None: an empty list would be met by every key.
    hotkey: ['none'],
  });
  let last: string | null = null;

  /** Strips that are there; while there are, the rail ends above them: nothing of it lies under one. */
  const strips = new Set<HTMLElement>();
  const makeRoom: Attachment<HTMLElement> = (strip) => {
    strips.add(strip);
    giveRoom();
    return () => {
      strips.delete(strip);
      giveRoom();
    };
  };
  function giveRoom(): void {
    const heights = [...strips].map(({ offsetHeight }) => offsetHeight);
    document.documentElement.style.setProperty('--notice-room', `${Math.max(0, ...heights)}px`);
  }

  $effect(() => {
    const description = notice;
    // The group listens from the next turn on: what is made before is shown by nobody.
    const soon = setTimeout(() => {
      if (last !== null) toaster.remove(last);
      last = description ? toaster.create({ description }) : null;
    });
    return () => clearTimeout(soon);
  });
</script>

<Toast.Group {toaster} aria-hidden="true">
  {#snippet children(toast)}
    <Toast {toast} tabindex={-1}>
      {#snippet element(attributes)}
        <div {...attributes} class="toast" {@attach makeRoom}>
          <Toast.Description>
            {#snippet element(described)}<p {...described}>{toast.description}</p>{/snippet}
          </Toast.Description>
          <Toast.CloseTrigger>
            {#snippet element(closing)}
              <button {...closing} class="act" tabindex={-1} title="Put this away">✕</button>
            {/snippet}
          </Toast.CloseTrigger>
        </div>
      {/snippet}
    </Toast>
  {/snippet}
</Toast.Group>

<style>
  /* A strip at the foot of the rail: it cuts no line of it in half. */
  .toast {
    box-sizing: border-box;
    width: 271px;
    display: flex;
    gap: 6px;
    align-items: baseline;
    justify-content: space-between;
    padding: 7px 8px 8px 14px;
    font-size: 12px;
    color: var(--ink-soft);
    background: var(--panel);
    border-top: 1px solid var(--rule);
  }
  p {
    margin: 0;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  button {
    flex: none;
  }
</style>
