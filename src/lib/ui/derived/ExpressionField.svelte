<script lang="ts">
  import { autocompletion, closeBrackets } from '@codemirror/autocomplete';
  import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
  import { setDiagnostics } from '@codemirror/lint';
  import { EditorState } from '@codemirror/state';
  import { EditorView, keymap, placeholder } from '@codemirror/view';
  import { onMount } from 'svelte';
  import { completions, type Completing } from './completion';
  import { marking } from './marking';

  interface Fault {
    readonly start: number;
    readonly end: number;
    readonly message: string;
    readonly fix: string | null;
  }
  interface Props {
    value: string;
    fault: Fault | null;
    completing: Completing;
    /** An example for this list, shown while nothing is written. */
    hint: string;
    /** Id of the element that says what is wrong. */
    describedBy: string;
    onchange: (text: string) => void;
    onkeep: () => void;
  }
  let { value, fault, completing, hint, describedBy, onchange, onkeep }: Props = $props();
  let host: HTMLDivElement;
  let view: EditorView | null = null;

  /** Writes what mends the fault in its place. */
  export function mend(): boolean {
    if (!view || !fault || fault.fix === null) return false;
    const { start, end, fix } = fault;
    const last = view.state.doc.length;
    view.dispatch({
      changes: { from: Math.min(start, last), to: Math.min(end, last), insert: fix },
      selection: { anchor: Math.min(start, last) + fix.length },
    });
    view.focus();
    return true;
  }

  onMount(() => {
    view = new EditorView({
      parent: host,
      state: EditorState.create({
        doc: value,
        extensions: [
          history(),
          closeBrackets(),
          autocompletion({ override: [completions(() => completing)], icons: false }),
          marking,
          placeholder(hint),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({
            'aria-label': 'Expression',
            'aria-describedby': describedBy,
            'data-test': 'made-expression',
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) onchange(update.state.doc.toString());
          }),
          keymap.of([
            { key: 'Mod-Enter', run: () => (onkeep(), true) },
            { key: 'Alt-Enter', run: () => mend() },
            ...defaultKeymap,
            ...historyKeymap,
          ]),
        ],
      }),
    });
    view.focus();
    return () => view?.destroy();
  });

  $effect(() => {
    if (!view) return;
    // From outside: an example was taken, or another column is being changed.
    if (view.state.doc.toString() !== value)
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: value } });
  });

  $effect(() => {
    if (!view) return;
    const last = view.state.doc.length;
    const marks =
      fault && fault.start < last
        ? [
            {
              from: fault.start,
              to: Math.min(last, Math.max(fault.end, fault.start + 1)),
              severity: 'error' as const,
              message: fault.message,
            },
          ]
        : [];
    view.dispatch(setDiagnostics(view.state, marks));
  });
</script>

<div class="field editor" bind:this={host}></div>

<style>
  .editor {
    padding: 0;
    min-height: 44px;
    height: auto;
  }
  .editor :global(.cm-editor) {
    background: transparent;
    color: var(--ink);
  }
  .editor :global(.cm-editor.cm-focused) {
    outline: none;
  }
  .editor:focus-within {
    outline: 2px solid var(--tide);
    outline-offset: 1px;
  }
  .editor :global(.cm-content) {
    font-family: ui-monospace, 'DejaVu Sans Mono', monospace;
    font-size: 13px;
    padding: 8px 4px;
    caret-color: var(--ink);
  }
  .editor :global(.cm-placeholder) {
    color: var(--ink-soft);
  }
  .editor :global(.ex-name) {
    color: var(--tide);
  }
  .editor :global(.ex-word) {
    font-weight: 700;
  }
  .editor :global(.ex-text) {
    color: var(--brass);
  }
  .editor :global(.cm-lintRange-error) {
    background: none;
    text-decoration: underline 2px var(--plum);
    text-underline-offset: 3px;
  }
  .editor :global(.cm-tooltip) {
    background: var(--paper);
    border: 1px solid var(--rule-strong);
    color: var(--ink);
    border-radius: 6px;
    z-index: 30;
  }
  .editor :global(.cm-tooltip-autocomplete ul li) {
    padding: 3px 8px;
    font-family: inherit;
  }
  .editor :global(.cm-tooltip-autocomplete ul li[aria-selected]) {
    background: var(--tide);
    color: var(--on-tide);
  }
  .editor :global(.cm-completionDetail) {
    font-style: normal;
    opacity: 0.75;
  }
</style>
