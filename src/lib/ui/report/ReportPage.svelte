<script lang="ts">
  import { z } from 'zod';
  import { benchFile } from '../../core/bench/benchFile';
  import type { Bench } from '../../core/bench/document';
  import { Recipe } from '../../core/read/recipe';
  import { tick, untrack, type Component } from 'svelte';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import { readCited, setWords, wordsAt, type WordsPlace } from '../../core/bench/citedEdits';
  import { setReport } from '../../core/bench/reportEdits';
  import { counted, showDay } from '../../core/table/format';
  import { gatherReport, troublesOf, type Report } from '../../engine/report';
  import { Refused } from '../../worker/engineClient';
  import type { BenchState } from '../bench/bench.svelte';
  import { Stopped } from '../bench/errand.svelte';
  import { saveBlob, fileNameFor } from '../handover/clipboard';
  import NothingCounted from '../ladder/NothingCounted.svelte';
  import Segments from '../components/Segments.svelte';
  import type { ViewProps } from '../tally/view';
  import { VIEWS } from '../tally/views';
  import { MARGIN, paginate, PX, sheetOf, textRoom, type Measured, type Sheet } from './layout';
  import { piecesOf, type Piece } from './pieces';
  import PieceView from './PieceView.svelte';
  import SectionMenu from './SectionMenu.svelte';

  /** The report of a bench on its pages: as it is printed, edited where it stands. */
  let { bench }: { bench: BenchState } = $props();

  let gathered = $state.raw<Report | null>(null);
  let views = $state.raw<ReadonlyMap<string, Component<ViewProps>>>(new Map());
  let fault = $state('');
  /** The pages with the report and the sheet that they were laid out for: nothing newer is mixed in. */
  let laid = $state.raw<{
    readonly report: Report;
    readonly pages: readonly (readonly Piece[])[];
    readonly sheet: Sheet;
    readonly width: number;
  } | null>(null);
  let measure = $state<HTMLElement>();
  let room = $state(900);

  const settings = $derived(bench.doc.report);
  const sheet = $derived(sheetOf(settings.paper, settings.lying));
  const text = $derived(textRoom(sheet));
  /** What the figures rest on: anything else changes only how they stand on the pages. */
  const asked = $derived(
    JSON.stringify([
      bench.counts?.token,
      bench.doc.tray.map(({ id, tally, view, apart }) => [id, tally, view, apart ?? false]),
      bench.doc.known,
      bench.doc.cited,
    ]),
  );

  /** It was stopped by the analyst, until it is made again. */
  let stopped = $state(false);
  let times = $state(0);
  $effect(() => {
    void asked;
    void times;
    // Of all of the bench, only what is asked makes the figures anew, once they are there or were stopped.
    const { doc, shown } = untrack(() => ({ doc: bench.doc, shown: bench.counts }));
    if (bench.working.busy || (!shown && !bench.working.stopped)) return;
    let stale = false;
    stopped = false;
    const made = showDay(new Date());
    const facts = { list: bench.facts.listName, read: bench.facts.readAt, made };
    void (async () => {
      try {
        const kinds = new Set(doc.tray.map(({ tally }) => tally.kind));
        const loaded = await Promise.all(
          [...kinds].map(async (kind) => [kind, (await VIEWS[kind].load()).default] as const),
        );
        const counts = await bench.countsNow();
        const { token } = counts;
        const report = await bench.errand.run('Making the report', (signal, told) =>
          gatherReport(
            (kind, args) => {
              // One that is stale asks no more: it would take the place of a newer one's questions.
              if (stale) throw new Error('A newer report took its place.');
              signal.throwIfAborted();
              return bench.engine.ask(kind, args, { token, lane: `report ${kind}` });
            },
            counts,
            doc,
            facts,
            (done, all) => told(done / all, `Making the report, ${done} of ${all} tallies`),
          ),
        );
        if (stale) return;
        views = new Map(loaded);
        gathered = report;
        fault = '';
        stopped = false;
      } catch (error) {
        if (error instanceof Stopped) stopped = !stale;
        else if (
          stale ||
          (error instanceof Refused && ['superseded', 'stale'].includes(error.code))
        )
          return;
        else fault = error instanceof Error ? error.message : String(error);
      }
    })();
    return () => (stale = true);
  });

  /** The figures gathered, with titles, notes and the order as they stand now. */
  const report = $derived.by((): Report | null => {
    if (!gathered) return null;
    const sections = bench.doc.tray.flatMap((item) => {
      const section = gathered?.sections.find(({ id }) => id === item.id);
      return section && !item.apart ? [{ ...section, item, name: item.name ?? '' }] : [];
    });
    return {
      ...gathered,
      title: settings.title || gathered.list,
      intro: settings.intro,
      sections,
    };
  });
  const pieces = $derived(report ? piecesOf(report, text.width) : []);
  const troubles = $derived(report ? troublesOf(report) : []);

  // Pieces are measured where nobody sees them, and then laid out.
  $effect(() => {
    const [all, of, on] = [pieces, report, sheet];
    const { width, height } = text;
    void (async () => {
      await tick();
      await document.fonts.ready;
      if (!measure || all !== pieces || !of) return;
      const pages = paginate(
        all.map((piece, k) => measured(piece, k, of)),
        height,
      );
      laid = { report: of, pages, sheet: on, width };
    })();
  });

  function measured(piece: Piece, k: number, of: Report): Measured {
    const element = measure?.querySelector(`[data-piece="${k}"]`);
    const heightOf = (part: Element | null | undefined): number =>
      part?.getBoundingClientRect().height ?? 0;
    const fresh = piece.kind === 'caption' && of.sections[piece.section].item.newPage === true;
    if (piece.kind !== 'table') return { piece, height: heightOf(element), fresh };
    return {
      piece,
      height: heightOf(element),
      head: heightOf(element?.querySelector('thead')),
      rows: [...(element?.querySelectorAll('tbody tr') ?? [])].map(heightOf),
    };
  }

  const GAP = 28;
  /** Two pages side by side where there is room for them to be read. */
  const scale = $derived.by(() => {
    const width = (laid?.sheet ?? sheet).width * PX;
    const two = (room - 3 * GAP) / (2 * width);
    return two >= 0.58 ? Math.min(1, two) : Math.min(1, (room - 2 * GAP) / width);
  });
  const PAPERS = [
    { value: 'a4', label: 'A4 upright' },
    { value: 'a4 lying', label: 'A4 lying' },
    { value: 'letter', label: 'Letter upright' },
    { value: 'letter lying', label: 'Letter lying' },
  ] as const;
  const paper = $derived(`${settings.paper}${settings.lying ? ' lying' : ''}`);

  function choosePaper(value: string): void {
    bench.arrange('Choose the paper', (doc) =>
      setReport(doc, {
        paper: value.startsWith('letter') ? 'letter' : 'a4',
        lying: value.endsWith('lying'),
      }),
    );
  }

  function retitle({ title: written, intro }: { title?: string; intro?: string }): void {
    if (intro !== undefined) return write({ at: 'intro' }, intro);
    const title = written === report?.list ? '' : (written ?? '').slice(0, 300);
    if (title !== settings.title)
      bench.arrange('Write in the report', (doc) => setReport(doc, { title }));
  }

  const open = (section: number, place: FigurePlace): void => {
    const item = report?.sections[section].item;
    if (item) void bench.openFigure({ tally: item.id, ...place });
  };

  function note(section: number, words: string): void {
    const item = laid?.report.sections[section].item;
    if (item) write({ at: 'note', tally: item.id }, words);
  }

  function write(place: WordsPlace, words: string): void {
    if (wordsAt(bench.doc, place) !== words)
      bench.arrange('Write in the report', (doc) => setWords(doc, place, words));
  }

  const movedInWords = $derived((report?.cited ?? []).filter(({ stands }) => stands === 'moved'));
  const haveRead = (): void =>
    bench.change('Read the words of the report', (doc) =>
      readCited(doc, new Map(movedInWords.map(({ id, figure }) => [id, figure]))),
    );

  async function saveWebPage(): Promise<void> {
    await bench.saver.flush();
    const response = await fetch(`/api/benches/${bench.facts.id}/report`).catch(() => null);
    if (response?.ok)
      saveBlob(
        fileNameFor(bench.facts.listName, 'report').replace(/\.\w+$/, '.html'),
        await response.blob(),
      );
    else bench.fault = 'The report could not be saved: the server did not make it. Try again.';
  }

  const WithRecipe = z.object({ recipe: Recipe });
  async function recipeOf(reading: number): Promise<Recipe | null> {
    const answer = await fetch(`/api/readings/${reading}`).catch(() => null);
    return answer?.ok ? WithRecipe.parse(await answer.json()).recipe : null;
  }

  /** The bench with how its lists were read, so that the same file is the same list elsewhere. */
  async function saveBench(): Promise<void> {
    const doc = $state.snapshot(bench.doc) as Bench;
    const recipe = await recipeOf(doc.reading);
    if (!recipe) {
      bench.fault = 'The bench could not be saved: the server did not answer. Try again.';
      return;
    }
    const recipes: Record<string, Recipe> = {};
    for (const [name, { list, reading }] of Object.entries(doc.lists)) {
      const at = reading ?? bench.facts.lists.find(({ id }) => id === list)?.reading;
      const own = at === undefined ? null : await recipeOf(at);
      if (own) recipes[name] = own;
    }
    const file = new Blob([benchFile(doc, recipe, recipes)], { type: 'application/json' });
    saveBlob(fileNameFor(bench.facts.listName, 'bench').replace(/\.\w+$/, '.json'), file);
    bench.notice =
      'The bench was saved as a file. The command line makes its report: tally report.';
  }
</script>

<svelte:head>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers of ours: a size of paper has no other place -->
  {@html `<style>@page { size: ${(laid?.sheet ?? sheet).width}mm ${(laid?.sheet ?? sheet).height}mm; margin: 0 }</style>`}
</svelte:head>

<div class="bar">
  <h2 class="serif">The report</h2>
  <Segments label="Paper" value={paper} options={PAPERS} onchange={choosePaper} test="paper" />
  <span data-test="pages">{counted(laid?.pages.length ?? 0, 'page')}</span>
  <span class="acts">
    <button type="button" class="plain-button" onclick={() => window.print()} data-test="print"
      >Print</button
    >
    <button type="button" class="plain-button" onclick={saveWebPage} data-test="save-report"
      >Save as a web page</button
    >
    <button type="button" class="plain-button" onclick={saveBench} data-test="save-bench"
      >Save the bench as a file</button
    >
  </span>
</div>
<div class="desk" bind:clientWidth={room} data-test="report">
  <NothingCounted {bench} />
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  {#if troubles.length}
    <ul class="troubles" data-test="troubles">
      {#each troubles as trouble (trouble)}<li>{trouble}</li>{/each}
    </ul>
  {/if}
  {#if movedInWords.length}
    <p class="moved" data-test="words-moved">
      {counted(movedInWords.length, 'figure')} in the words of the report {movedInWords.length === 1
        ? 'has'
        : 'have'} moved since they were read.
      <button type="button" class="act" onclick={haveRead}>I have read them</button>
    </p>
  {/if}
  {#if stopped}
    <p class="moved" role="status" data-test="report-stopped">
      {report
        ? 'Stopped. The report below is older than the figures.'
        : 'Stopped before it was made.'}
      <button type="button" class="act" onclick={() => times++}>Make the report</button>
    </p>
  {:else if !report && !fault}<p class="waiting" role="status">Making the report…</p>{/if}
  {#if laid}
    {@const { report: of, pages, sheet: on, width } = laid}
    <div class="sheets" style:zoom={scale}>
      {#each pages as page, n (n)}
        <article
          class="sheet on-paper"
          aria-label="Page {n + 1} of {pages.length}"
          style:width="{on.width}mm"
          style:height="calc({on.height}mm - 1px)"
          style:padding="{MARGIN.top}mm {MARGIN.side}mm"
          data-test="page"
        >
          {#each page as piece, k (k)}
            <PieceView
              report={of}
              {piece}
              {views}
              {width}
              ontitle={retitle}
              onnote={note}
              onopen={open}
            >
              {#snippet beside(section: number)}
                {@const at = of.sections[section]}
                <SectionMenu {bench} item={at.item} name={at.name || at.answered.sentence} />
              {/snippet}
            </PieceView>
          {/each}
          <footer style:left="{MARGIN.side}mm" style:right="{MARGIN.side}mm">
            <span>{of.list}, read {of.read} · {of.scope}</span><span>{n + 1}</span>
          </footer>
        </article>
      {/each}
    </div>
  {/if}
  {#if report}
    <div
      class="measure on-paper"
      style:width="{text.width}px"
      bind:this={measure}
      aria-hidden="true"
      inert
    >
      {#each pieces as piece, k (k)}
        <div class="piece" data-piece={k}>
          <PieceView {report} {piece} {views} width={text.width} />
        </div>
      {/each}
    </div>
  {/if}
</div>

<style>
  .bar {
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 8px 20px;
    border-bottom: 1px solid var(--rule);
    flex-wrap: wrap;
  }
  h2 {
    margin: 0;
    font-size: 19px;
  }
  .acts {
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
  .desk {
    flex: 1;
    min-height: 0;
    overflow: auto;
    position: relative;
    background: light-dark(#ece5d6, #10141a);
    padding: 20px 0 40px;
  }
  .sheets {
    display: flex;
    flex-wrap: wrap;
    justify-content: center;
    gap: 36px;
  }
  .sheet,
  .measure {
    color: var(--ink);
    background: #fff;
    font-size: 11px;
    line-height: 1.4;
  }
  .sheet {
    position: relative;
    box-sizing: border-box;
    overflow: hidden;
    box-shadow: 0 2px 10px rgb(28 35 51 / 14%);
    break-after: page;
  }
  footer {
    position: absolute;
    bottom: 9mm;
    display: flex;
    justify-content: space-between;
    gap: 20px;
    border-top: 0.6px solid var(--rule);
    padding-top: 3px;
    font-size: 9px;
    color: var(--ink-soft);
  }
  footer span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .measure {
    position: absolute;
    top: 0;
    left: 0;
    visibility: hidden;
    height: 0;
    overflow: hidden;
  }
  .piece {
    display: flow-root;
  }
  .fault,
  .troubles {
    max-width: 90ch;
    margin: 0 20px 14px;
    padding: 8px 14px 8px 30px;
    border-radius: 6px;
    background: var(--plum-wash);
    color: var(--plum);
  }
  .moved {
    margin: 0 20px 14px;
    color: var(--brass);
  }
  .waiting {
    padding: 0 20px;
    color: var(--ink-soft);
  }
  @media print {
    .bar,
    .measure,
    .troubles,
    .moved,
    .fault {
      display: none;
    }
    .desk {
      overflow: visible;
      padding: 0;
      background: none;
    }
    .sheets {
      zoom: 1 !important;
      display: block;
    }
    .sheet {
      box-shadow: none;
    }
    .sheet:last-child {
      break-after: auto;
    }
    /* Of the whole page the report alone is printed. */
    :global(body:has(.sheets) :is(.left, header, [data-scope='toast'], .older, .side)) {
      display: none !important;
    }
    :global(body:has(.sheets)),
    :global(body:has(.sheets) *:has(.sheets)) {
      display: block !important;
      height: auto !important;
      overflow: visible !important;
      background: none !important;
    }
  }
</style>
