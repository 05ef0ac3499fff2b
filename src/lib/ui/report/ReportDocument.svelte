<script lang="ts">
  import type { Component } from 'svelte';
  import type { Report } from '../../engine/report';
  import type { ViewProps } from '../tally/view';
  import { piecesOf } from './pieces';
  import PieceView from './PieceView.svelte';

  /** The report as one web page: no script, nothing from outside; printed, it breaks where it may. */
  interface Props {
    report: Report;
    /** Room for text on its paper, in CSS pixels. */
    width: number;
    views: ReadonlyMap<string, Component<ViewProps>>;
  }
  let { report, width, views }: Props = $props();
  const pieces = $derived(piecesOf(report, width));
</script>

<main style:max-width="{width}px">
  {#each pieces as piece, k (k)}
    <div
      class="piece {piece.kind}"
      class:fresh={piece.kind === 'caption' && report.sections[piece.section].item.newPage}
    >
      <PieceView {report} {piece} {width} {views} />
    </div>
  {/each}
</main>

<style>
  main {
    margin: 0 auto;
    padding: 24px 16px 40px;
    font-size: 11px;
    line-height: 1.4;
  }
  .piece {
    display: flow-root;
  }
  .caption {
    break-after: avoid;
    break-inside: avoid;
  }
  .chart,
  .title,
  .scope {
    break-inside: avoid;
  }
  @media print {
    main {
      padding: 0;
      max-width: none !important;
    }
    .fresh {
      break-before: page;
    }
  }
</style>
