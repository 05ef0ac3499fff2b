<script lang="ts">
  import type { Attachment } from 'svelte/attachments';
  import { citeMark, notePartsOf } from '../../core/check/cited';
  import type { CitedNow } from '../../engine/replies/checks';

  /** Words of the report with the figures that stand in them; edited where they stand. */
  interface Props {
    words: string;
    cited: readonly CitedNow[];
    /** For those who do not see where it stands. */
    label: string;
    /** What stands there while there are no words. */
    placeholder: string;
    onedit?: ((words: string) => void) | undefined;
    test: string;
  }
  let { words, cited, label, placeholder, onedit, test }: Props = $props();
  const found = $derived(new Map(cited.map((c) => [c.id, c])));
  const parts = $derived(notePartsOf(words));
  /** Figures here that are not what they were when the words were read last. */
  const moved = $derived(
    parts.flatMap((part) => {
      const now = typeof part === 'string' ? undefined : found.get(part.cited);
      return now && now.stands !== 'same' ? [now] : [];
    }),
  );
  const nameOf = ({ title, where, stands, why }: CitedNow): string =>
    stands === 'lost' ? why : [title, where].filter(Boolean).join(', ');

  /** Fills what is edited by hand: whoever types in it changes it, and we do not meanwhile. */
  const fill: Attachment<HTMLElement> = (element) => {
    const nodes = parts.map((part) => {
      if (typeof part === 'string') return document.createTextNode(part);
      const now = found.get(part.cited);
      const chip = document.createElement('span');
      chip.contentEditable = 'false';
      chip.dataset.cited = part.cited;
      chip.className = `cited ${now?.stands ?? 'lost'}`;
      chip.title = now ? nameOf(now) : '';
      chip.textContent = now?.figure ?? '?';
      return chip;
    });
    if (element !== document.activeElement) element.replaceChildren(...nodes);
  };

  /** The words as they stand, each figure as its mark. */
  const wordsIn = (element: HTMLElement): string =>
    [...element.childNodes]
      .map((node) => {
        if (!(node instanceof HTMLElement)) return node.textContent ?? '';
        if (node.dataset.cited !== undefined) return citeMark(node.dataset.cited);
        return node.tagName === 'BR' ? '\n' : `\n${wordsIn(node)}`;
      })
      .join('')
      .trim();
</script>

{#if onedit}
  <!-- svelte-ignore a11y_no_noninteractive_element_to_interactive_role -->
  <p
    class="words"
    class:empty={!words}
    contenteditable="plaintext-only"
    role="textbox"
    aria-multiline="true"
    aria-label={label}
    tabindex="0"
    data-placeholder={placeholder}
    onblur={(e) => onedit(wordsIn(e.currentTarget))}
    data-test={test}
    {@attach fill}
  ></p>
{:else if words}
  <p class="words">
    {#each parts as part, k (k)}{#if typeof part === 'string'}{part}{:else}{@const now = found.get(
          part.cited,
        )}<span class="cited {now?.stands ?? 'lost'}">{now?.figure ?? '?'}</span>{/if}{/each}
  </p>
{/if}
{#each moved as now (now.id)}
  <p class="since" data-test="note-moved">
    {#if now.stands === 'lost'}{now.figure}: {now.why}{:else}{nameOf(now)} was {now.read} when these words
      were read last, and is {now.figure}.{/if}
  </p>
{/each}

<style>
  .words {
    margin: 0;
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  .words :global(.cited) {
    font-feature-settings: 'tnum' 0;
    border-bottom: 1px dotted var(--ink-faint);
  }
  .words :global(.cited.moved) {
    border-bottom: 1.5px solid var(--gold);
  }
  .words :global(.cited.lost) {
    color: var(--plum);
    border-bottom: 1.5px dotted var(--plum);
  }
  .since {
    margin: 3px 0 0;
    font: 10px/1.35 var(--font-sans);
    color: var(--brass);
  }
  /* Empty, it takes no room: the page prints as it stands. */
  .empty:not(:focus) {
    height: 0;
  }
  .empty:not(:focus)::before {
    content: attr(data-placeholder);
    font: 10px var(--font-sans);
    color: var(--ink-faint);
  }
  [contenteditable]:hover {
    background: var(--band);
  }
  @media print {
    .empty::before {
      display: none;
    }
  }
</style>
