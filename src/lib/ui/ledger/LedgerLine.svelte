<script lang="ts">
  import { showCount } from '../../core/table/format';
  import { knownAt, type KnownMarks } from '../behind/knownMarks';
  import KnownSign from '../behind/KnownSign.svelte';
  import GapsSign from './GapsSign.svelte';
  import { stateAt } from '../../engine/cellStates';
  import type { Head, Line } from '../../engine/protocol';

  interface Props {
    line: Line;
    /** Its place in the ledger, from 0. */
    at: number;
    heads: readonly Head[];
    /** Columns whose texts may be wider than they are. */
    clipped: readonly boolean[];
    lefts: readonly (number | null)[];
    /** Cell the keys act on: −1 is the group's, null none on this line. */
    active: number | null;
    selected: boolean;
    /** Id of the ledger, for the active cell's. */
    ledger: string;
    totalsBelow: boolean;
    known: KnownMarks | null;
    onturn: () => void;
    onpick: (column: number, extend: boolean) => void;
    onopen: (column: number) => void;
  }
  let {
    line,
    at,
    heads,
    clipped,
    lefts,
    active,
    selected,
    ledger,
    totalsBelow,
    known: marks,
    onturn,
    onpick,
    onopen,
  }: Props = $props();

  /** What does not change from line to line is put together once. */
  const fixed = $derived(
    heads.map(
      (head, c) =>
        `cell${head.right ? ' right' : ''}${head.fixed ? ' fixed' : ''}${clipped[c] ? ' clipped' : ''}`,
    ),
  );
  const figures = $derived(line.kind !== 'record' && line.totals);
  const ruled = $derived(line.kind === 'total' && totalsBelow);

  function clicked(event: MouseEvent, column: number): void {
    onpick(column, event.shiftKey);
    if (!event.shiftKey && (column >= 0 || line.kind === 'record')) onopen(column);
  }
</script>

<!-- The ledger's own key handler serves every line. -->
<!-- svelte-ignore a11y_click_events_have_key_events -->
<!-- svelte-ignore a11y_interactive_supports_focus -->
<div
  class="row {line.kind} level{Math.min(line.level, 3)}"
  class:aside={line.kind === 'record' && line.aside > 0}
  class:selected
  class:ruled
  role="row"
  aria-rowindex={at + 2}
  aria-selected={selected}
  data-line={at}
>
  <div
    class="lead"
    class:active={active === -1}
    role="rowheader"
    id={active === -1 ? `${ledger}-active` : undefined}
    style:padding-left="{12 + line.level * 20}px"
    onclick={(e) => clicked(e, -1)}
  >
    {#if line.kind === 'group'}
      <button
        type="button"
        class="turn"
        tabindex="-1"
        aria-expanded={line.open}
        aria-label="{line.open ? 'Fold' : 'Unfold'} {line.label}"
        onclick={onturn}
      >
        <span aria-hidden="true">{line.open ? '▾' : '▸'}</span>
      </button>
      <span class="label">{line.label}</span>
      <small>{showCount(line.count)}{line.aside ? ` + ${showCount(line.aside)} aside` : ''}</small>
    {:else if line.kind === 'total'}
      <span class="label total">{line.label}{line.level === 0 ? ' total' : ''}</span>
      <small>{showCount(line.count)}</small>
    {:else}
      <span class="label">{line.aside ? '✕ ' : ''}{line.label}</span>
      {#if line.aside}<span class="visually-hidden">set aside</span>{/if}
    {/if}
  </div>
  {#each heads as head, c (c)}
    {@const text = line.cells[c] ?? ''}
    {@const known = stateAt(line.states, c)}
    {@const state = known === 'read' ? '' : known}
    <div
      class="{fixed[c]} {state}{figures && head.figure !== null ? ' figure' : ''}{active === c
        ? ' active'
        : ''}"
      role="gridcell"
      tabindex="-1"
      id={active === c ? `${ledger}-active` : undefined}
      style:left={lefts[c] === null ? undefined : `${lefts[c]}px`}
      onclick={(e) => clicked(e, c)}
    >
      <span>{text}</span>{#if state === 'unread'}<span class="visually-hidden">
          (unread)</span
        >{:else if state === 'corrected'}<sup aria-label="corrected">✎</sup
        >{:else if state === 'rests'}<sup
          class="one"
          role="img"
          title="One record carries this figure: open it to see which"
          aria-label="carried by one record"
        ></sup>{/if}<GapsSign
        gaps={line.gaps[c]}
        figure={text}
        width={head.width}
      />{#if marks && figures && head.figure !== null}<KnownSign
          stands={knownAt(marks, { table: 'main', row: line.keys, column: head.figure })}
        />{/if}
    </div>
  {/each}
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: var(--columns);
    grid-template-rows: 25px;
    /* Definite, so that no cell is measured before it is laid out. */
    grid-template-rows: 25px;
    height: 26px;
    border-bottom: 1px solid var(--rule);
    background: var(--paper);
    width: var(--wide);
  }
  /* A line's size never follows from its contents: new texts are laid out within it. */
  .row {
    contain: strict;
  }
  .row > div {
    padding: 0 10px;
    min-width: 0;
    white-space: nowrap;
  }
  .cell {
    line-height: 25px;
  }
  /* Only where it is needed: every clip is one more piece for the browser to put together. */
  .clipped {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .lead {
    overflow: hidden;
    display: flex;
    align-items: center;
    gap: 6px;
  }
  /* Only where there is something to scroll past: a fixed cell is painted apart from its line. */
  :global(.sideways) .lead {
    position: sticky;
    left: 0;
    z-index: 1;
    background: inherit;
  }
  :global(.sideways) .fixed {
    position: sticky;
    z-index: 1;
    background: inherit;
  }
  .right {
    text-align: right;
  }
  .label {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .group,
  .total {
    font-weight: 600;
  }
  .group.level0,
  .total.level0 {
    background: var(--band);
  }
  .ruled .figure {
    box-shadow: inset 0 1px 0 var(--rule-strong);
  }
  small {
    flex: none;
    font-weight: 400;
    font-size: 12px;
    color: var(--ink-soft);
  }
  .turn {
    border: 0;
    background: none;
    color: var(--ink-soft);
    padding: 0;
    width: 14px;
    flex: none;
    cursor: pointer;
    font: inherit;
  }
  .figure {
    cursor: pointer;
  }
  .figure:hover {
    text-decoration: underline;
    text-decoration-color: var(--tide);
  }
  .blank,
  .none {
    color: var(--ink-faint);
    font-weight: 400;
  }
  .blank span {
    font-style: italic;
  }
  .unread span:first-child {
    color: var(--plum);
    border-bottom: 1px dashed var(--plum);
  }
  .corrected {
    color: var(--plum);
  }
  /* No text of the cell: what is copied or read aloud is the figure and the words. */
  .one::after {
    content: '1';
  }
  .one {
    color: var(--plum);
    font-weight: 600;
  }
  sup {
    font-size: 10px;
  }
  .aside .cell span:first-child,
  .aside .label {
    color: var(--brass);
    text-decoration: line-through;
  }
  .selected {
    background: var(--tide-wash);
  }
  .row > .active {
    outline: 2px solid var(--tide);
    outline-offset: -2px;
    background: var(--tide-wash);
  }
</style>
