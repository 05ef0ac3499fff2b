<script lang="ts">
  import { ALL_LEVELS } from '../../core/bench/trayEdits';
  import type { FigurePlace } from '../../core/tally/answer/result';
  import { sentenceOf } from '../../core/tally/sentence/sentences';
  import type { Tally } from '../../core/tally/spec/specs';
  import type { BenchState } from '../bench/bench.svelte';
  import { copyPicture, saveBlob, fileNameFor } from '../handover/clipboard';
  import { pngOf, svgText } from '../chart/save';
  import { knownMarks } from '../behind/knownMarks';
  import NothingCounted from '../ladder/NothingCounted.svelte';
  import SentenceBox from '../sentence/SentenceBox.svelte';
  import Sentence from '../sentence/Sentence.svelte';
  import Segments from '../components/Segments.svelte';
  import FigureTable from './FigureTable.svelte';
  import { sourceOf } from './source';
  import { VIEWS } from './views';

  /** A tally that is no ledger: its sentence, its chart, its tables, what should be known of it. */
  let { bench }: { bench: BenchState } = $props();
  const item = $derived(bench.shown);
  const page = $derived(bench.figures.page?.id === item.id ? bench.figures.page : null);
  const inner = $derived(page?.answered.innerColumns ?? null);
  const names = $derived(
    new Map([...bench.names, ...(inner ?? []).map((c): [string, string] => [c.id, c.name])]),
  );
  const parts = $derived(sentenceOf(item.tally, names, bench.facts.listName));
  const source = $derived(page ? sourceOf(page) : null);
  const view = $derived(VIEWS[item.tally.kind]);
  const drawn = $derived(item.view.drawn ?? view.ways?.[0].value);
  const charted = $derived(item.view.chart ?? true);
  const main = $derived(page?.answered.tables[0]);
  const levels = $derived(main?.levels ?? 0);
  const levelNames = $derived(view.levels?.(item.tally, names) ?? []);
  const chosen = $derived.by((): FigurePlace | null => {
    const { side } = bench;
    if (side?.kind !== 'behind' || side.place.tally !== item.id) return null;
    const { table, row, column } = side.place;
    return { table, row, column };
  });

  const known = $derived(knownMarks(bench.doc, bench.known, item.id));

  let width = $state(900);
  let drawing = $state<HTMLElement>();

  const open = (place: FigurePlace): void => {
    bench.side = { kind: 'behind', place: { tally: item.id, ...place } };
  };
  const drag = (label: string, tally: Tally): void => bench.drag(label, item.id, tally);

  function fold(key: string): void {
    const { turned } = item.view;
    bench.lookAt('Fold or unfold', item.id, {
      turned: turned.includes(key) ? turned.filter((k) => k !== key) : [...turned, key],
    });
  }

  const svg = (): SVGSVGElement | null | undefined =>
    drawing?.querySelector<SVGSVGElement>('svg.chart');
  async function picture(how: 'copy' | 'svg' | 'png'): Promise<void> {
    const element = svg();
    if (!element) return;
    const name = (kind: string): string =>
      fileNameFor(bench.facts.listName, item.name ?? item.tally.kind).replace(/\.\w+$/, `.${kind}`);
    try {
      if (how === 'svg')
        saveBlob(name('svg'), new Blob([svgText(element)], { type: 'image/svg+xml' }));
      else if (how === 'png') saveBlob(name('png'), await pngOf(element));
      else await copyPicture(await pngOf(element));
      bench.notice = how === 'copy' ? 'The chart was copied.' : 'The chart was saved.';
    } catch (error) {
      bench.fault = error instanceof Error ? error.message : String(error);
    }
  }
  const FACTS = [
    'stands-on',
    'chosen',
    'intervals',
    'rows-add',
    'reads-as',
    'gave-most',
    'sum-of-forecasts',
    'like-with-like',
    'explained',
    'moved',
  ];
</script>

<svelte:window onpointerdown={() => bench.endDrag()} onpointerup={() => bench.endDrag()} />
<SentenceBox>
  <p>
    <Sentence
      {bench}
      {parts}
      {inner}
      faults={page?.answered.faults ?? []}
      onset={(label, next) => bench.retell(label, item.id, next)}
    />
  </p>
</SentenceBox>
<div class="bar">
  <div class="controls">
    <Segments
      label="What is shown"
      value={charted ? 'both' : 'table'}
      options={[
        { value: 'both', label: 'chart and table' },
        { value: 'table', label: 'table' },
      ]}
      onchange={(value) =>
        bench.lookAt(value === 'both' ? 'Show the chart' : 'Hide the chart', item.id, {
          chart: value === 'both',
        })}
    />
    {#if charted && view.ways && (!view.waysNeed || page?.shape.kind === view.waysNeed)}
      <Segments
        label="How the chart is drawn"
        value={drawn ?? ''}
        options={view.ways}
        onchange={(value) => bench.lookAt('Draw the chart otherwise', item.id, { drawn: value })}
      />
    {/if}
    {#if levels > 1}
      <Segments
        label="Show down to"
        value={String(Math.min(item.view.showDown, levels))}
        options={Array.from({ length: levels }, (_, k) => ({
          value: String(k + 1),
          label: levelNames[k] ?? `level ${k + 1}`,
        }))}
        onchange={(value) =>
          bench.lookAt(`Show down to level ${value}`, item.id, {
            showDown: Number(value) === levels ? ALL_LEVELS : Number(value),
            turned: [],
          })}
      />
    {/if}
    {#if view.beside}
      {#await view.beside() then { default: Beside }}<Beside {bench} {page} />{/await}
    {/if}
  </div>
  {#if page && bench.footing && bench.footing.compared > 0}
    <p
      class="footing"
      class:bad={!bench.footing.foots}
      title={bench.footing.words}
      data-test="footing"
    >
      <span aria-hidden="true">{bench.footing.foots ? '✓' : '✗'}</span>
      {bench.footing.words}
    </p>
  {/if}
</div>
<div
  class="body"
  class:dimmed={(bench.working.busy || bench.working.stopped) && page}
  data-test="tally"
>
  <div class="inner" bind:clientWidth={width}>
    {#if page && source}
      <NothingCounted {bench} />
      {#if page.answered.refused}
        <p class="refused" role="alert" data-test="refused">{page.answered.refused}</p>
      {:else if page.answered.tables.length === 0}
        <p class="refused" role="alert" data-test="refused">
          These figures cannot be computed until the marked words of the sentence fit the list.
        </p>
      {/if}
      {#if charted && page.answered.tables.length}
        <figure bind:this={drawing} aria-label={page.answered.sentence}>
          {#await view.load() then { default: Drawing }}
            <Drawing
              tally={item.tally}
              {source}
              width={Math.max(320, width)}
              {drawn}
              {chosen}
              onopen={open}
              onrecord={(record) => (bench.side = { kind: 'record', record, column: null })}
              onchange={drag}
            />
          {/await}
          <div class="pictures">
            <button type="button" class="act" onclick={() => picture('copy')}>Copy chart</button>
            <button type="button" class="act" onclick={() => picture('svg')}>SVG</button>
            <button type="button" class="act" onclick={() => picture('png')}>PNG</button>
          </div>
        </figure>
      {/if}
      {#each page.answered.tables as head, k (head.name)}
        {@const rows = page.tables.get(head.name)}
        {@const at = source.table(head.name)}
        {#if rows && at && (k === 0 || head.length > 0)}
          <section aria-label={head.caption}>
            {#if k > 0}<h2 class="caps">{head.caption}</h2>{/if}
            <FigureTable
              at={rows}
              sort={bench.figures.sorts.get(`${item.id} ${head.name}`)}
              {chosen}
              {known}
              shade={view.shade?.(at) ?? null}
              strip={view.strip ?? null}
              onopen={open}
              onsort={(sort) => {
                bench.figures.sort(`${item.id} ${head.name}`, sort);
                bench.notice = sort
                  ? 'Sorted for the eye. The tally itself is as it was.'
                  : 'In its own order again.';
              }}
              onfold={fold}
              onlook={(first, count) => void bench.figures.look(head.name, first, count)}
              onacross={(from) => bench.figures.lookAcross(head.name, from)}
            />
          </section>
        {/if}
      {/each}
      {#if view.below}
        {#await view.below() then { default: Below }}
          <Below {bench} tally={item.tally} />
        {/await}
      {/if}
      {#if item.note}<p class="said" data-test="note">{item.note}</p>{/if}
      {#if page.answered.warnings.length}
        <ul class="warnings" data-test="warnings">
          {#each page.answered.warnings as { code, words } (code + words)}
            <li class:fact={FACTS.includes(code)}>{words}</li>
          {/each}
        </ul>
      {/if}
    {:else if !bench.fault && !bench.working.stopped && !bench.working.long}
      <p class="waiting" role="status">Computing…</p>
    {/if}
  </div>
</div>

<style>
  .bar {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 16px;
    padding: 7px 20px;
    border-bottom: 1px solid var(--rule);
    color: var(--ink-soft);
  }
  .controls {
    display: flex;
    gap: 12px;
    align-items: center;
    flex-wrap: wrap;
  }
  .footing {
    margin: 0;
    color: var(--good);
    text-align: right;
    line-height: 1.25;
  }
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
  .body {
    position: relative;
    flex: 1;
    min-height: 0;
    overflow: auto;
    padding: 14px 20px 24px;
    transition: opacity 0.15s;
  }
  .dimmed {
    opacity: 0.55;
  }
  figure {
    margin: 0 0 14px;
  }
  /* A drawing of no figure has nothing to copy. */
  figure:not(:has(:global(svg.chart))) .pictures {
    display: none;
  }
  .pictures {
    display: flex;
    gap: 12px;
    justify-content: flex-end;
    font-size: 12px;
  }
  section {
    margin-bottom: 18px;
  }
  h2 {
    margin: 0 0 6px;
  }
  .said {
    font-family: var(--font-serif);
    font-size: 15px;
    max-width: 80ch;
    margin: 0 0 10px;
  }
  .warnings {
    margin: 0;
    padding: 0;
    list-style: none;
    display: grid;
    gap: 5px;
  }
  .warnings li {
    background: var(--plum-wash);
    color: var(--plum);
    padding: 5px 9px;
    border-radius: 5px;
    max-width: 90ch;
  }
  .warnings li.fact {
    background: none;
    color: var(--ink-soft);
    padding: 0 9px;
  }
  .refused {
    margin: 0 0 14px;
    color: var(--plum);
    background: var(--plum-wash);
    padding: 10px 14px;
    border-radius: 6px;
    max-width: 80ch;
  }
  .waiting {
    color: var(--ink-soft);
  }
</style>
