<script lang="ts">
  import { untrack } from 'svelte';
  import { recordNumber } from '../../core/table/recordNumber';
  import { putBack, setAsideRecords, setGroupWidth, turnGroup } from '../../core/bench/edits';
  import { counted } from '../../core/table/format';
  import { groupKeyText } from '../../core/tally/kinds/ledger/lines';
  import type { Head as HeadFacts, Line } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import NothingCounted from '../ladder/NothingCounted.svelte';
  import { Cursor } from './cursor.svelte';
  import { knownMarks } from '../behind/knownMarks';
  import Footing from './Footing.svelte';
  import { clippedColumns, LINE, scrollFor, scrollHeight, sidewaysFor, windowAt } from './geometry';
  import Grip from './Grip.svelte';
  import Head from './Head.svelte';
  import LedgerLine from './LedgerLine.svelte';

  let { bench }: { bench: BenchState } = $props();
  const id = $props.id();

  /** Width of what makes another column, behind the last head. */
  const MORE = 34;

  let scroller: HTMLDivElement;
  let scrollTop = $state(0);
  let viewHeight = $state(600);
  let viewWidth = $state(900);
  const cursor = new Cursor();
  const active = $derived(cursor.active);
  const range = $derived(cursor.range);
  let dragged = $state<{ column: string; width: number } | null>(null);

  const overview = $derived(bench.ledger);
  const lines = $derived(overview?.lines ?? 0);
  const marks = $derived(knownMarks(bench.doc, bench.known, bench.item.id));
  let known: readonly HeadFacts[] = [];
  /** The same array while nothing about the columns changes, so that no line is touched for it. */
  const heads = $derived.by(() => {
    const next = (overview?.heads ?? []).map((h) =>
      dragged && h.column === dragged.column ? { ...h, width: dragged.width } : h,
    );
    if (JSON.stringify(next) !== JSON.stringify(known)) known = next;
    return known;
  });
  const order = $derived([
    ...new Set([
      ...(overview?.naming ? [overview.naming.column] : []),
      ...(overview?.heads ?? []).flatMap((h) => (h.column ? [h.column] : [])),
    ]),
  ]);
  let groupDrag = $state<number | null>(null);
  const groupWidth = $derived(groupDrag ?? overview?.groupWidth ?? 230);
  const wide = $derived(groupWidth + heads.reduce((sum, h) => sum + h.width, 0) + MORE);
  const template = $derived(
    `${groupWidth}px ${heads.map((h) => `${h.width}px`).join(' ')} minmax(${MORE}px, 1fr)`,
  );
  const lefts = $derived.by(() => {
    let at = groupWidth;
    return heads.map((h) => {
      const left = h.fixed ? at : null;
      at += h.width;
      return left;
    });
  });
  const HEAD = 62;
  const FOOT = 87;
  const bodyHeight = $derived(Math.max(LINE, viewHeight - HEAD - FOOT));
  const shownCount = $derived(Math.ceil(bodyHeight / LINE) + 2);
  const window = $derived(windowAt(lines, scrollTop, bodyHeight));
  /**
   * The lines drawn and where. Until those of a new place have come, the old ones stay where they
   * were and scroll away: nothing is taken down only to be built again.
   */
  let drawn: { top: number; visible: { line: Line; at: number }[] } = { top: 0, visible: [] };
  const shown = $derived.by(() => {
    const { from, lines: have } = bench.lines;
    const skipped = window.first - from;
    if (lines === 0) drawn = { top: 0, visible: [] };
    else if (skipped >= 0 && from + have.length >= Math.min(lines, window.first + shownCount))
      drawn = {
        top: window.top,
        visible: have
          .slice(skipped, skipped + shownCount)
          .map((line, k) => ({ line, at: window.first + k })),
      };
    return drawn;
  });
  let cut: { heads: unknown; columns: readonly boolean[] } = { heads: null, columns: [] };
  const clipped = $derived.by(() => {
    const before = cut.heads === heads ? cut.columns : [];
    const columns = clippedColumns(
      heads,
      shown.visible.map(({ line }) => line),
      before,
    );
    if (before.length === 0 || columns.some((is, c) => is !== before[c])) cut = { heads, columns };
    return cut.columns;
  });
  $effect(() => {
    if (lines > 0) void bench.lines.look(window.first, shownCount);
  });

  // Keeps the active column in view, where a panel opens beside the ledger too.
  $effect(() => {
    const { column } = active;
    const width = viewWidth;
    untrack(() => {
      if (column < 0 || lefts[column] !== null || !heads[column]) return;
      const sum = (of: readonly HeadFacts[]): number =>
        of.reduce((n, h) => n + h.width, groupWidth);
      const place = { left: sum(heads.slice(0, column)), width: heads[column].width };
      const fixed = sum(heads.filter((h) => h.fixed));
      scroller.scrollLeft = sidewaysFor(scroller.scrollLeft, width, fixed, place);
    });
  });

  const lineAt = (n: number): Line | undefined => bench.lines.at(n);

  function show(line: number): void {
    const top = windowAt(lines, scroller.scrollTop, bodyHeight).first;
    if (line < top + 1) scroller.scrollTop = scrollFor(lines, line, bodyHeight, LINE);
    else if (line > top + Math.floor(bodyHeight / LINE) - 2)
      scroller.scrollTop = scrollFor(lines, line, bodyHeight, bodyHeight - 2 * LINE);
  }

  /** Brings a line to the middle and makes it the active one. */
  export function goTo(line: number, column = -1): void {
    if (line < 0) return;
    cursor.put({ line, column });
    scroller.scrollTop = scrollFor(lines, line, bodyHeight, bodyHeight / 2);
    scroller.focus();
  }

  function turn(line: Line): void {
    bench.change(`${line.open ? 'Fold' : 'Unfold'} ${line.label}`, (doc) =>
      turnGroup(doc, groupKeyText(line.keys)),
    );
  }

  function open(at: number, column: number): void {
    const line = lineAt(at);
    if (!line) return;
    const figure = column >= 0 ? heads[column].figure : null;
    if (line.kind === 'record')
      bench.side = {
        kind: 'record',
        record: line.record,
        column: column >= 0 ? heads[column].column : null,
      };
    else if (figure !== null && line.totals)
      bench.side = {
        kind: 'behind',
        place: { tally: bench.item.id, table: 'main', row: line.keys, column: figure },
      };
    else if (column === -1 && line.kind === 'group') turn(line);
    // In a narrow window the panel takes its room from the ledger's height, a frame later.
    requestAnimationFrame(() => requestAnimationFrame(() => active.line === at && show(at)));
  }

  /** Sets the chosen records aside, or puts them back when they all are. */
  export async function turnAside(): Promise<void> {
    const { from, to } = range ?? { from: active.line, to: active.line };
    const { records } = await bench.ask('recordsOn', { tally: bench.item.id, from, to });
    if (records.length === 0) {
      bench.notice = 'Choose one or more records first: set aside works on records.';
      return;
    }
    const first = lineAt(from);
    const numbers = records.map(recordNumber);
    const back = first?.kind === 'record' && first.aside > 0;
    cursor.letGo();
    if (back)
      bench.change(`Put back ${counted(records.length, 'record')}`, (doc) => putBack(doc, numbers));
    else
      bench.change(`Set aside ${counted(records.length, 'record')}`, (doc) =>
        setAsideRecords(doc, numbers),
      );
  }

  function keyed(event: KeyboardEvent): void {
    if (event.target !== scroller || event.ctrlKey || event.metaKey || event.altKey) return;
    const page = Math.max(1, Math.floor(bodyHeight / LINE) - 1);
    const to = cursor.after(event.key, lines, heads.length, page);
    if (to) {
      event.preventDefault();
      cursor.put(to, event.shiftKey);
      show(to.line);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      open(active.line, active.column);
    } else if (event.key === 'a') void turnAside();
    else if (event.key === ' ') {
      event.preventDefault();
      const here = lineAt(active.line);
      if (here?.kind === 'group') turn(here);
    } else if (event.key === 'Escape') cursor.letGo();
  }

  /** A text that is cut off shows whole in a hint, looked at only when the pointer comes to it. */
  function hint({ target }: PointerEvent): void {
    const holder =
      target instanceof Element
        ? target.closest<HTMLElement>('.label, .cell, .lead-head > span')
        : null;
    if (!holder) return;
    if (holder.scrollWidth > holder.clientWidth) holder.title = holder.textContent.trim();
    else holder.removeAttribute('title');
  }
</script>

<div class="frame">
  <div
    bind:this={scroller}
    bind:clientHeight={viewHeight}
    bind:clientWidth={viewWidth}
    class="ledger"
    class:sideways={wide > viewWidth}
    role="grid"
    aria-label="Ledger"
    aria-rowcount={lines + 4}
    aria-colcount={heads.length + 1}
    aria-activedescendant="{id}-active"
    aria-multiselectable="true"
    tabindex="0"
    class:dimmed={bench.working.stopped}
    data-test="ledger"
    style:--columns={template}
    style:--wide="max({wide}px, 100%)"
    onscroll={() => (scrollTop = scroller.scrollTop)}
    onkeydown={keyed}
  >
    {#if overview}
      <div class="heads" role="rowgroup">
        <div class="row" role="row">
          <div class="lead-head" role="columnheader">
            <span
              >{bench.item.tally.groups.length ? 'Group' : 'Record'}{overview.naming &&
              overview.showsRecords
                ? ` and ${overview.naming.name}`
                : ''}</span
            >
            <Grip
              label="Width of the column of groups"
              width={groupWidth}
              least={120}
              stop
              ondrag={(width) => (groupDrag = width)}
              onwidth={(width) =>
                bench.change('Resize the column of groups', (doc) => setGroupWidth(doc, width))}
            />
          </div>
          {#each heads as head, c (c)}
            <Head
              {bench}
              {head}
              {order}
              distribution={bench.heads[c]}
              left={lefts[c]}
              onwidth={(width) =>
                (dragged = width === null || !head.column ? null : { column: head.column, width })}
            />
          {/each}
          <div class="more" role="columnheader">
            <button
              type="button"
              title="Make a column (c)"
              aria-label="Make a column"
              aria-pressed={bench.side?.kind === 'made' && bench.side.at === null}
              onclick={() => (bench.side = { kind: 'made', of: 'computed', at: null })}
              data-test="more-columns">+</button
            >
          </div>
        </div>
      </div>
      <div class="body" role="rowgroup" style:height="{scrollHeight(lines)}px" onpointerover={hint}>
        <div style:transform="translateY({shown.top}px)" class="lines">
          <!-- Keyed by place on the page, so that scrolling writes other texts and moves no element. -->
          {#each shown.visible as { line, at }, k (k)}
            <LedgerLine
              {line}
              {at}
              {heads}
              {clipped}
              {lefts}
              ledger={id}
              active={active.line === at ? active.column : null}
              selected={range !== null && at >= range.from && at <= range.to}
              totalsBelow={bench.item.view.totals === 'below'}
              known={marks}
              onturn={() => turn(line)}
              onpick={(column, extend) => {
                cursor.put({ line: at, column }, extend);
                scroller.focus({ preventScroll: true });
              }}
              onopen={(column) => column >= 0 && open(at, column)}
            />
          {/each}
        </div>
      </div>
      {#if lines === 0}
        <div class="none" style:width="{viewWidth}px"><NothingCounted {bench} /></div>
      {/if}
      <div class="foot" role="rowgroup"><Footing {bench} {overview} {lefts} /></div>
    {/if}
  </div>
</div>
{#if range && range.to > range.from}
  <div class="chosen" role="status">
    {counted(range.to - range.from + 1, 'line')} chosen
    <button type="button" class="act" onclick={() => turnAside()}>Set aside or put back (a)</button>
    <button type="button" class="act" onclick={() => cursor.letGo()}>Let go (Esc)</button>
  </div>
{/if}

<style>
  .dimmed {
    opacity: 0.55;
  }
  .frame {
    position: relative;
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
  }
  .ledger {
    position: relative;
    overflow: auto;
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
    overflow-anchor: none;
  }
  /* Over the lines, which would hide an outline of the ledger itself. */
  .ledger:focus-visible {
    outline: none;
  }
  .frame:has(> .ledger:focus-visible)::after {
    content: '';
    position: absolute;
    inset: 0;
    z-index: 6;
    border: 2px solid var(--tide);
    pointer-events: none;
  }
  .heads {
    position: sticky;
    top: 0;
    z-index: 4;
    flex: none;
  }
  .row {
    display: grid;
    grid-template-columns: var(--columns);
    width: var(--wide);
    background: var(--paper);
  }
  .lead-head {
    position: sticky;
    left: 0;
    z-index: 5;
    background: var(--paper);
    border-bottom: 1.5px solid var(--rule-strong);
    display: flex;
    align-items: flex-end;
    padding: 0 12px 20px;
    font-weight: 600;
  }
  .more {
    border-bottom: 1.5px solid var(--rule-strong);
    display: flex;
    align-items: flex-start;
    padding: 6px 4px 0;
  }
  .more button {
    width: 26px;
    height: 26px;
    padding: 0;
    border: 1px solid transparent;
    border-radius: 6px;
    background: none;
    color: var(--tide);
    font: inherit;
    font-size: 17px;
    line-height: 1;
    cursor: pointer;
  }
  .more button:hover,
  .more button[aria-pressed='true'] {
    border-color: var(--tide);
    background: var(--tide-wash);
  }
  .lead-head > span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .body {
    position: relative;
    flex: none;
    width: var(--wide);
  }
  .lines {
    position: absolute;
    top: 0;
    left: 0;
    width: 100%;
  }
  .foot {
    position: sticky;
    bottom: 0;
    z-index: 4;
    margin-top: auto;
    flex: none;
  }
  .none {
    position: sticky;
    left: 0;
    margin: 30px 0;
    padding: 0 20px;
    text-align: center;
  }
  .chosen {
    display: flex;
    gap: 12px;
    padding: 6px 20px;
    border-top: 1px solid var(--rule);
    background: var(--tide-wash);
  }
</style>
