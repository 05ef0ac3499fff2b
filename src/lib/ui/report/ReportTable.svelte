<script lang="ts">
  import type { Row } from '../../engine/protocol';
  import type { ReportSection } from '../../engine/report';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import { placeOf } from '../tally/source';
  import { cellText, levelLabel } from '../tally/cells';
  import { headSpans } from '../tally/columns';
  import { bandsOf, FootNotes, tablesShown, type TablePiece } from './pieces';

  /** Rows of a table of the report: ruled as bookkeepers rule, heads repeated on every page. */
  interface Props {
    section: ReportSection;
    piece: TablePiece;
    width: number;
    /** Opens a figure to its records; none in print and files. */
    onopen?: ((place: FigurePlace) => void) | undefined;
  }
  let { section, piece, width, onopen }: Props = $props();
  const table = $derived(section.tables[piece.table]);
  const bands = $derived(bandsOf(table, width));
  const band = $derived(bands[piece.band]);
  const spans = $derived(headSpans(band.figures));
  const notes = $derived(new FootNotes(section.tables.slice(0, tablesShown(section))));
  const rows = $derived(table.rows.slice(piece.from, piece.to));
  const { head } = $derived(table);

  const isGrand = (row: Row): boolean => row.kind === 'total' && row.level === 0;
</script>

{#if piece.table > 0 || bands.length > 1}
  <p class="part">
    {piece.table > 0 ? head.caption : ''}{bands.length > 1
      ? `${piece.table > 0 ? ', ' : ''}columns ${piece.band + 1} of ${bands.length}`
      : ''}{piece.from > 0 ? ', continued' : ''}
  </p>
{/if}
<table data-test="report-table">
  <thead>
    {#if spans.length}
      <tr>
        {#each band.labels as column (column.key)}<td class="over"></td>{/each}
        {#each spans as { words, columns }, k (k)}
          {#if words}<th class="over" scope="colgroup" colspan={columns}>{words}</th>
          {:else}<td class="over" colspan={columns}></td>{/if}
        {/each}
      </tr>
    {/if}
    <tr>
      {#each band.labels as column (column.key)}<th scope="col">{column.words}</th>{/each}
      {#each band.figures as column (column.key)}
        <th scope="col" class:right={column.right}
          >{column.words}{#if column.sub}<small>{column.sub}</small>{/if}</th
        >
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each rows as row (row.place)}
      <tr class={row.kind} class:grand={isGrand(row)} class:parent={row.open === true}>
        {#each band.labels as column, c (column.key)}
          {@const note = notes.of(head.name, row, column.at)}
          {@const text = band.tree ? levelLabel(head, row) : row.cells[column.at]}
          <svelte:element
            this={text ? 'th' : 'td'}
            class="label"
            scope={text ? 'row' : undefined}
            style:padding-left={band.tree && c === 0
              ? `${5 + 12 * Math.max(0, row.level - 1)}px`
              : undefined}
            >{text}{#if note}<sup>{note}</sup>{/if}</svelte:element
          >
        {/each}
        {#each band.figures as column (column.key)}
          {@const note = notes.of(head.name, row, column.at)}
          {@const text = cellText(head, row, column.at)}
          {@const place = column.opens && text ? placeOf(table, row, column.at) : null}
          <td class:right={column.right}
            >{#if onopen && place}<!-- By the keys the tally itself is opened: a page has hundreds of figures. --><button
                type="button"
                tabindex={-1}
                onclick={() => onopen(place)}>{text}</button
              >{:else}{text}{/if}{#if note}<sup>{note}</sup>{/if}</td
          >
        {/each}
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    width: 100%;
    border-collapse: separate;
    border-spacing: 0;
    font-size: 10.5px;
    line-height: 1.25;
    margin: 0 0 6px;
  }
  thead {
    display: table-header-group;
  }
  thead th {
    text-align: left;
    vertical-align: bottom;
    border-bottom: 1.5px solid var(--rule-strong);
    padding: 3px 5px;
    font-weight: 600;
  }
  small {
    display: block;
    font-size: 9px;
    font-weight: 400;
    color: var(--ink-soft);
  }
  .label {
    text-align: left;
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  .label,
  td {
    padding: 3px 5px;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
  }
  button {
    all: unset;
    cursor: pointer;
  }
  button:hover {
    text-decoration: underline;
    text-underline-offset: 2px;
  }
  tr {
    break-inside: avoid;
  }
  .right {
    text-align: right;
    white-space: nowrap;
    font-variant-numeric: tabular-nums lining-nums;
  }
  thead .over {
    border-bottom: 0;
    padding-bottom: 1px;
    text-align: center;
  }
  thead th.over {
    border-bottom: 0.75px solid var(--rule-strong);
  }
  thead .right {
    white-space: normal;
  }
  .parent :is(th, td),
  .total :is(th, td) {
    font-weight: 600;
  }
  .grand :is(th, td) {
    border-top: 1px solid var(--rule-strong);
    border-bottom: 3px double var(--rule-strong);
  }
  tr:has(+ .grand) :is(th, td) {
    border-bottom: 0;
  }
  .part {
    margin: 2px 0 3px;
    font-size: 10px;
    color: var(--ink-soft);
  }
  sup {
    color: var(--plum);
    font-size: 8px;
    margin-left: 1px;
  }
</style>
