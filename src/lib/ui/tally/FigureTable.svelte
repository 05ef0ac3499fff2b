<script lang="ts">
  import type { FigurePlace } from '../../core/tally/answer/result';
  import { groupKeyText } from '../../core/tally/kinds/ledger/lines';
  import type { Row } from '../../engine/protocol';
  import { WHOLE_ROWS, type RowsAtHand, type EyeSort } from '../bench/tallyFigures.svelte';
  import { knownAt, type KnownMarks } from '../behind/knownMarks';
  import KnownSign from '../behind/KnownSign.svelte';
  import { samePlace } from '../chart/marks';
  import { placeAfter, type Place } from '../components/placeAfter';
  import { cellText, levelLabel, marksOf, markWords, rowMark } from './cells';
  import { headSpans, shownColumns, type ShownColumn } from './columns';
  import { MOST_COLUMNS } from '../../core/tally/answer/columnsInView';
  import ColumnsInView from './ColumnsInView.svelte';
  import FigureHead from './FigureHead.svelte';
  import StripOf from './StripOf.svelte';
  import type { Strip } from './view';

  /** Any table of figures: ruled like the ledger, with levels that fold and a cursor on every figure. */
  interface Props {
    at: RowsAtHand;
    sort: EyeSort;
    chosen: FigurePlace | null;
    /** How strongly a cell is shaded and to which side, from −1 to 1. */
    shade?: ((row: Row, column: number) => number) | null;
    /** The column whose changes are drawn beside them. */
    strip?: Strip | null;
    /** Known totals of its figures. */
    known?: KnownMarks | null;
    onopen: (place: FigurePlace) => void;
    onsort: (sort: EyeSort) => void;
    onfold: (key: string) => void;
    onlook: (first: number, count: number) => void;
    /** Other columns of a wide table are looked at, from one on. */
    onacross: (from: number) => Promise<void>;
  }
  let {
    at,
    sort,
    chosen,
    shade = null,
    strip = null,
    known = null,
    onopen,
    onsort,
    onfold,
    onlook,
    onacross,
  }: Props = $props();
  const id = $props.id();

  const LINE = 28;
  let scroller = $state<HTMLDivElement>();
  let scrollTop = $state(0);
  let viewHeight = $state(420);
  let focused = $state(false);
  let active = $state.raw<Place>({ line: 0, column: 0 });

  const { head } = $derived(at);
  const shown = $derived(shownColumns(head));
  const columns = $derived([...shown.labels, ...shown.figures]);
  const firstFigure = $derived(shown.labels.length);
  const wide = $derived({
    ...head.across,
    to: head.across.from + head.columns.length - head.labels,
  });
  const spans = $derived(headSpans(shown.figures));
  const heads = $derived(spans.length ? 2 : 1);
  const long = $derived(at.length > WHOLE_ROWS || at.rows.length < at.length);
  const first = $derived(long ? Math.max(0, Math.floor(scrollTop / LINE) - 4) : 0);
  const count = $derived(long ? Math.ceil(viewHeight / LINE) + 10 : at.length);
  const rows = $derived(
    at.rows.slice(Math.max(0, first - at.from), Math.max(0, first - at.from) + count),
  );
  const drawnFrom = $derived(Math.max(first, at.from));
  $effect(() => {
    if (long) onlook(first, count);
  });

  const placeOf = (row: Row, column: ShownColumn): FigurePlace => ({
    table: head.name,
    row: row.keys.length > 0 || row.kind === 'total' ? row.keys : row.place,
    column: column.key,
  });
  /** The largest change that is at hand: the others are drawn against it. */
  const mostStrip = $derived.by(() => {
    const column = head.columns.findIndex((c) => c.key === strip?.in);
    return column < 0
      ? 0
      : at.rows.reduce(
          (most, { figures }) => Math.max(most, Math.abs(Number(figures[column]) || 0)),
          0,
        );
  });
  const activeRow = $derived(at.rows[active.line - at.from]);
  function turned(column: ShownColumn): void {
    if (sort?.column !== column.key) onsort({ column: column.key, descending: column.right });
    else if (sort.descending === column.right)
      onsort({ column: column.key, descending: !sort.descending });
    else onsort(undefined);
  }

  function open(row: Row | undefined, column: ShownColumn | undefined): void {
    if (!row || !column) return;
    if (row.open !== null && column.at < head.labels) onfold(groupKeyText(row.keys));
    else if (column.opens && row.cells[column.at] !== '') onopen(placeOf(row, column));
  }

  function keyed(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const page = Math.max(1, Math.floor(viewHeight / LINE) - 2);
    const bounds = { lines: at.length, columns: columns.length, first: 0, page };
    const to = placeAfter(event.key, active, bounds);
    if (to) {
      if (to.column === active.column && event.key === 'ArrowRight' && wide.to < wide.of)
        void acrossTo(wide.to, () => firstFigure);
      else if (to.column === active.column && event.key === 'ArrowLeft' && wide.from > 0)
        void acrossTo(wide.from - MOST_COLUMNS, () => columns.length - 1);
      active = to;
      bringIntoView();
    } else if (event.key === 'Enter') open(activeRow, columns[active.column]);
    else if (event.key === ' ' && activeRow && activeRow.open !== null)
      onfold(groupKeyText(activeRow.keys));
    else if (event.key === 's' && columns[active.column]) turned(columns[active.column]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Looks at other columns, and goes to one of them. */
  async function acrossTo(from: number, column: () => number): Promise<void> {
    await onacross(Math.max(0, from));
    active = { line: active.line, column: column() };
    bringIntoView();
  }

  function bringIntoView(): void {
    if (long && scroller) {
      const top = active.line * LINE;
      if (top < scrollTop) scroller.scrollTop = top;
      else if (top > scrollTop + viewHeight - 3 * LINE)
        scroller.scrollTop = top - viewHeight + 3 * LINE;
    }
    requestAnimationFrame(() =>
      document.getElementById(cellId(active.line, active.column))?.scrollIntoView({
        block: 'nearest',
        inline: 'nearest',
      }),
    );
  }
  const cellId = (row: number, column: number): string => `${id}-${row}-${column}`;
  const isActive = (row: number, column: number): boolean =>
    focused && active.line === row && active.column === column;
  const wash = (strength: number): string | undefined => {
    if (!(Math.abs(strength) > 0.04)) return undefined;
    const share = Math.round(Math.min(1, Math.abs(strength)) * 70);
    return `color-mix(in srgb, var(${strength > 0 ? '--brass-wash' : '--tide-wash'}) ${share + 30}%, var(--paper))`;
  };
</script>

{#if head.across.of > head.columns.length - head.labels}
  <ColumnsInView across={head.across} onacross={(from) => void acrossTo(from, () => firstFigure)} />
{/if}
<div
  class="scroller"
  class:long
  bind:this={scroller}
  bind:clientHeight={viewHeight}
  onscroll={() => (scrollTop = scroller?.scrollTop ?? 0)}
>
  <!-- svelte-ignore a11y_no_noninteractive_element_to_interactive_role -->
  <table
    role="grid"
    tabindex="0"
    aria-label={head.caption}
    aria-rowcount={at.length + heads}
    aria-activedescendant={focused ? cellId(active.line, active.column) : undefined}
    onkeydown={keyed}
    onfocus={() => (focused = true)}
    onblur={() => (focused = false)}
    data-test="figures-{head.name}"
  >
    <FigureHead {shown} {sort} onturn={turned} />
    <tbody>
      {#if long && drawnFrom > 0}<tr style:height="{drawnFrom * LINE}px" aria-hidden="true"
        ></tr>{/if}
      {#each rows as row, k (row.place)}
        {@const n = drawnFrom + k}
        {@const told = rowMark(row)}
        <tr
          class={row.kind}
          class:whole={row.open !== null}
          class:grand={row.kind === 'total' && row.level === 0}
          aria-rowindex={n + 1 + heads}
        >
          {#each columns as column, c (column.key)}
            {@const marks = marksOf(row, column.at)}
            {@const place = c >= firstFigure && column.opens ? placeOf(row, column) : null}
            <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
            <td
              id={cellId(n, c)}
              role="gridcell"
              class:right={column.right && c >= firstFigure}
              class:lead={c === 0}
              class:none={cellText(head, row, column.at) === 'none'}
              class:few={marks.some(({ kind }) => kind === 'few') || told?.kind === 'few'}
              class:opens={place !== null}
              class:active={isActive(n, c) || samePlace(place, chosen)}
              style:background={shade && c >= firstFigure ? wash(shade(row, column.at)) : undefined}
              title={marks.length
                ? marks.map(({ words }) => words).join(' ')
                : c === 0 && told
                  ? told.words
                  : undefined}
              onclick={() => {
                active = { line: n, column: c };
                open(row, column);
              }}
            >
              {#if c === 0 && shown.tree}
                <span class="label" style:padding-left="{Math.max(0, row.level - 1) * 18}px">
                  {#if row.open !== null}<span class="turn" aria-hidden="true"
                      >{row.open ? '▾' : '▸'}</span
                    >{/if}{levelLabel(head, row)}
                </span>
              {:else if column.type === 'share' && /umulative/.test(column.title) && row.kind === 'group'}
                <span class="bar"
                  >{row.cells[column.at]}<i
                    style:--share={typeof row.figures[column.at] === 'number'
                      ? row.figures[column.at]
                      : 0}
                  ></i></span
                >
              {:else}{#if strip?.in === column.key}<StripOf
                    change={row.figures[column.at]}
                    most={mostStrip}
                  />{/if}{cellText(head, row, column.at)}{/if}
              {#each marks as mark (mark.kind)}{#if mark.kind === 'few'}<span
                    class="visually-hidden">, on few: {mark.words}</span
                  >{:else}<small class="note">{markWords(mark)}</small>{/if}{/each}
              {#if known && place}<KnownSign stands={knownAt(known, place)} />{/if}
              {#if c === 0 && told}<small class="note">{markWords(told)}</small>{/if}
            </td>
          {/each}
        </tr>
      {/each}
      {#if long && drawnFrom + rows.length < at.length}<tr
          style:height="{(at.length - drawnFrom - rows.length) * LINE}px"
          aria-hidden="true"
        ></tr>{/if}
    </tbody>
  </table>
</div>
{#if sort}
  <p class="sorted" role="status">
    Sorted for the eye; the tally itself is as its sentence says.
    <button type="button" class="act" onclick={() => onsort(undefined)}>Its own order</button>
  </p>
{/if}

<style>
  /* What only a reader of the screen is told stands within it, and does not widen the page. */
  .scroller {
    position: relative;
    overflow-x: auto;
  }
  .long {
    overflow: auto;
    max-height: 60vh;
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
    min-width: 100%;
    font-size: 14px;
  }
  table:focus-visible {
    outline: 2px solid var(--tide);
    outline-offset: 2px;
  }
  td.lead {
    position: sticky;
    left: 0;
    background: var(--paper);
    max-width: 320px;
  }
  td {
    padding: 0 10px;
    height: 27px;
    line-height: 27px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
  }
  .lead .label,
  td.lead {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .right {
    text-align: right;
  }
  .opens {
    cursor: pointer;
  }
  .opens:hover {
    text-decoration: underline;
    text-decoration-color: var(--tide);
  }
  .whole td,
  .total td {
    font-weight: 600;
  }
  .whole td {
    background: var(--band);
    cursor: pointer;
  }
  .others td,
  .outside td,
  .none {
    color: var(--ink-soft);
  }
  .grand td {
    border-top: 1px solid var(--rule-strong);
    border-bottom: 4px double var(--rule-strong);
  }
  .few {
    color: var(--plum);
    font-style: italic;
  }
  td.active {
    outline: 2px solid var(--tide);
    outline-offset: -2px;
    background: var(--tide-wash);
  }
  .turn {
    display: inline-block;
    width: 15px;
    color: var(--ink-soft);
  }
  .note {
    color: var(--plum);
    font-weight: 400;
    font-size: 12px;
    margin-left: 6px;
  }
  .bar {
    display: inline-flex;
    gap: 8px;
    align-items: center;
  }
  .bar i {
    width: 92px;
    height: 7px;
    background: linear-gradient(var(--tide-bar) 0 0) 0 0 / calc(var(--share) * 100%) 100% no-repeat
      var(--band);
  }
  .sorted {
    margin: 4px 0 0;
    color: var(--ink-soft);
    font-size: 12px;
  }
</style>
