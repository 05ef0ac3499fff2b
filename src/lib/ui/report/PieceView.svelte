<script lang="ts">
  import type { Component, Snippet } from 'svelte';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import type { Report } from '../../engine/report';
  import type { ViewProps } from '../tally/view';
  import After from './After.svelte';
  import TalliesMoved from '../tally/comparison/TalliesMoved.svelte';
  import KnownTable from './KnownTable.svelte';
  import { sourceOfSection, type Piece } from './pieces';
  import ReportTable from './ReportTable.svelte';
  import TitlePiece from './TitlePiece.svelte';

  /** One piece of the report: the same on the screen, in print and in a file. */
  interface Props {
    report: Report;
    piece: Piece;
    /** Room for text, in CSS pixels. */
    width: number;
    views: ReadonlyMap<string, Component<ViewProps>>;
    /** What changes it where it stands; none in print and files. */
    ontitle?: (change: { title?: string; intro?: string }) => void;
    onnote?: (section: number, note: string) => void;
    onopen?: (section: number, place: FigurePlace) => void;
    beside?: Snippet<[number]>;
  }
  let { report, piece, width, views, ontitle, onnote, onopen, beside }: Props = $props();
</script>

{#if piece.kind === 'title'}
  <TitlePiece {report} onedit={ontitle} />
{:else if piece.kind === 'scope'}
  <p class="scope" data-test="report-scope"><b>What counts.</b> {report.scope}</p>
{:else if piece.kind === 'caption'}
  {@const section = report.sections[piece.section]}
  <div class="caption">
    {#if beside}<div class="beside">{@render beside(piece.section)}</div>{/if}
    <h2>{piece.section + 1}. {section.name || section.answered.sentence}</h2>
    {#if section.name}<p class="sentence">{section.answered.sentence}</p>{/if}
  </div>
{:else if piece.kind === 'chart'}
  {@const section = report.sections[piece.section]}
  {@const Drawing = views.get(section.item.tally.kind)}
  {#if Drawing}
    <figure aria-label={section.answered.sentence}>
      <Drawing
        tally={section.item.tally}
        source={sourceOfSection(section)}
        {width}
        drawn={section.item.view.drawn}
        chosen={null}
      />
    </figure>
  {/if}
{:else if piece.kind === 'table'}
  <ReportTable
    section={report.sections[piece.section]}
    {piece}
    {width}
    onopen={onopen && ((place) => onopen(piece.section, place))}
  />
{:else if piece.kind === 'after'}
  <After
    section={report.sections[piece.section]}
    cited={report.cited}
    onnote={onnote && ((note) => onnote(piece.section, note))}
  />
{:else if piece.kind === 'known'}
  <KnownTable known={report.known} />
{:else if report.moved}
  <h2>What moved since {report.moved.against}</h2>
  <TalliesMoved moved={report.moved} />
{/if}

<style>
  .scope {
    background: var(--tide-wash);
    padding: 6px 9px;
    margin: 0 0 16px;
    font-size: 11px;
    overflow-wrap: anywhere;
  }
  .caption {
    position: relative;
  }
  .beside {
    position: absolute;
    top: 7px;
    left: -32px;
  }
  @media print {
    .beside {
      display: none;
    }
  }
  h2 {
    font: 600 13.5px/1.3 var(--font-serif);
    margin: 0 0 4px;
    padding-top: 8px;
    overflow-wrap: anywhere;
  }
  .sentence {
    font: italic 12px/1.35 var(--font-serif);
    color: var(--ink-soft);
    margin: 0 0 6px;
    overflow-wrap: anywhere;
  }
  figure {
    margin: 0 0 8px;
  }
</style>
