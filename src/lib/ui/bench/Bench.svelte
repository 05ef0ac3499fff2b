<script lang="ts">
  import { goto, replaceState } from '$app/navigation';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { onMount, tick } from 'svelte';
  import { originWords } from '../../core/bench/origin';
  import { counted } from '../../core/table/format';
  import type { Place } from '../../engine/protocol';
  import { benchActs, type Act } from '../finder/acts';
  import type Finder from '../finder/Finder.svelte';
  import { copyText } from '../handover/clipboard';
  import HandOver from '../handover/HandOver.svelte';
  import Ladder from '../ladder/Ladder.svelte';
  import Ledger from '../ledger/Ledger.svelte';
  import LedgerBar from '../ledger/LedgerBar.svelte';
  import { isLedger } from '../../core/bench/tray';
  import LedgerSentence from '../sentence/LedgerSentence.svelte';
  import Tray from '../tray/Tray.svelte';
  import MadeRail from '../derived/MadeRail.svelte';
  import ProgressBar from '../components/ProgressBar.svelte';
  import Tip from '../components/Tip.svelte';
  import TopBar from '../components/TopBar.svelte';
  import { BenchState } from './bench.svelte';
  import type { BenchFacts } from './facts';
  import Conflict from './Conflict.svelte';
  import Earlier from './Earlier.svelte';
  import DropFile from './DropFile.svelte';
  import Faults from './Faults.svelte';
  import Leaving from './Leaving.svelte';
  import { toKnownField } from '../behind/knownField';
  import WorkingStrip from './WorkingStrip.svelte';
  import BandsAnew from './BandsAnew.svelte';
  import ReadAnew from './ReadAnew.svelte';
  import { UNREACHED } from '../components/unreached';
  import { keepCopy, keepState } from './keeping';
  import { pageActs } from './pageActs';
  import { toPane } from './panes';
  import { fetchInQuiet, PARTS } from './parts';
  import Sides from './Sides.svelte';

  let { facts }: { facts: BenchFacts } = $props();
  // A bench's page belongs to one bench: the route keys it.
  // svelte-ignore state_referenced_locally
  const bench = new BenchState(facts);

  let finder = $state<Finder>();
  /** The finder's part, once it was asked for. */
  let Finding = $state.raw<typeof Finder>();
  let handOver: HandOver;
  let ledger = $state<Ledger>();

  onMount(() => {
    // A link of the list's page opens what makes a list, or what a refresh moved.
    const asked = new URLSearchParams(location.search).get('make');
    void bench.open().then(async () => {
      if (asked === 'moved') await bench.sayMoved();
      // Once is enough: the page reloaded is the bench as it stands.
      if (asked !== null) replaceState(location.pathname, {});
    });
    if (asked === 'stack' || asked === 'unstack') bench.side = { kind: 'list', of: asked };
    void fetchInQuiet();
    return () => bench.stop();
  });

  async function find(): Promise<void> {
    try {
      Finding ??= (await PARTS.finder()).default;
    } catch {
      bench.notice = UNREACHED;
      return;
    }
    await tick();
    finder?.show();
  }

  const makeColumn = (): void => void (bench.side = { kind: 'made', of: 'computed', at: null });

  const acts = $derived<Act[]>([
    ...pageActs(bench, {
      makeColumn,
      sayKnown,
      copyLink: () => void copyLink(),
      handOver: () => handOver,
      turnAside: () => void ledger?.turnAside(),
    }),
    ...benchActs(bench, { narrow: (column) => bench.step.begin(column) }),
  ]);

  /** Fields that take no letters. */
  const TICKED: readonly string[] = ['checkbox', 'radio'];

  function sayKnown(): void {
    if (!toKnownField())
      bench.notice = 'Open a figure first: Enter on it. Then say what it should be.';
  }

  function keyed(event: KeyboardEvent): void {
    // A menu or a dialog took it, and may be gone by now.
    if (event.defaultPrevented) return;
    const ctrl = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    const typing =
      (event.target instanceof HTMLInputElement && !TICKED.includes(event.target.type)) ||
      event.target instanceof HTMLTextAreaElement ||
      event.target instanceof HTMLSelectElement ||
      (event.target instanceof HTMLElement && event.target.isContentEditable);
    if (event.key === 'F6') toPane(event.shiftKey);
    else if (ctrl && key === 'k') void find();
    else if (ctrl && key === 'z' && !typing) {
      if (event.shiftKey) bench.redo();
      else bench.undo();
    } else if (ctrl && key === 'c' && !typing && (getSelection()?.isCollapsed ?? true))
      // Nothing is chosen on the page: the whole of what is shown is meant.
      void handOver.copyShown();
    else if (
      event.key === 'Escape' &&
      bench.side &&
      !document.querySelector('[role=dialog][data-state=open]')
    )
      bench.side = null;
    else if (typing || ctrl || document.querySelector('[role=dialog][data-state=open]')) return;
    else if (event.key === 'n') bench.step.begin();
    else if (event.key === 't') bench.choose();
    else if (event.key === 'c') makeColumn();
    else if (event.key === 'k') sayKnown();
    else if (event.key === '?') void goto('/keys');
    else return;
    event.preventDefault();
  }

  /** Shows a figure's group in the ledger, or the first of its records where it is of another tally. */
  async function toFigure(place: Place): Promise<void> {
    if (place.tally !== bench.ledgerItem?.id) {
      const [first] = await bench.ask('behindRecords', { place, from: 0, count: 1 });
      if (first) await toRecord(first.record);
      return;
    }
    const { line } = await bench.ask('locate', { tally: place.tally, keys: place.row });
    const column = bench.ledger?.heads.findIndex((h) => h.figure === place.column) ?? -1;
    if (line < 0) bench.notice = 'That group is folded away: show down to its level first.';
    else ledger?.goTo(line, column);
  }

  /** Opens the ledger at a record. */
  async function toRecord(record: number): Promise<void> {
    const item = bench.ledgerItem;
    if (!item) {
      bench.notice = 'This bench has no ledger: begin one under “What does each group come to?”.';
      return;
    }
    await bench.visitNow(item.id);
    await tick();
    const { line } = await bench.ask('locateRecord', { tally: item.id, record });
    if (line < 0)
      bench.notice = 'That record is folded away or narrowed out: show down to the records.';
    else ledger?.goTo(line);
  }

  async function copyLink(): Promise<void> {
    await bench.saver.flush();
    const revision = await keepState(facts.id);
    if (revision === null) {
      bench.fault = 'The link could not be made. Try again when the bench is saved.';
      return;
    }
    await copyText(`${location.origin}/benches/${facts.id}?state=${revision}`);
    bench.notice = `A link to this state (revision ${revision}) was copied.`;
  }

  async function keepAsNew(): Promise<void> {
    const id = await keepCopy(facts, $state.snapshot(bench.doc) as BenchFacts['doc']);
    if (id === null) {
      bench.fault = 'The copy could not be saved.';
      return;
    }
    bench.saver.takeTheirs();
    await goto(`/benches/${id}`);
  }

  const SAVED = {
    saved: 'saved',
    saving: 'saving…',
    waiting: 'saving…',
    failed: 'not saved',
    conflict: 'not saved',
    apart: 'not saved',
  } as const;
</script>

<svelte:window onkeydown={keyed} />
<DropFile
  listId={facts.listId}
  bench={facts.id}
  listName={facts.listName}
  refused={facts.origin ? 'This list is made of another: refresh that one.' : ''}
/>
<svelte:head><title>{facts.listName}, {facts.name} · Tally Loft</title></svelte:head>

<div class="page">
  <TopBar>
    {#snippet trail()}
      <a href="/lists/{facts.listId}" title={facts.listName}><b>{facts.listName}</b></a> / {facts.name}
      <span class="meta"
        >· {facts.origin ? `${originWords(facts.origin)}, made` : 'read'}
        {facts.readAt}, {bench.counts ? counted(bench.counts.all.records, 'record') : 'opening'} ·
        <span data-test="save-state"
          >{bench.saver.apart ? 'an earlier state' : SAVED[bench.saver.state]}</span
        ></span
      >
    {/snippet}
    {#snippet acts()}
      <button type="button" class="bar-button finder" onclick={() => void find()}
        ><span>Find or do…</span><small>Ctrl K</small></button
      >
      <Tip
        class="bar-button icon"
        aria-label="Undo{bench.canUndo ? `: ${bench.canUndo}` : ''}"
        tip={bench.canUndo ? `Undo: ${bench.canUndo}` : 'Nothing to undo'}
        disabled={!bench.canUndo}
        onclick={() => bench.undo()}
        data-test="undo"><Undo2 size={16} aria-hidden="true" /></Tip
      >
      <Tip
        class="bar-button icon"
        aria-label="Redo{bench.canRedo ? `: ${bench.canRedo}` : ''}"
        tip={bench.canRedo ? `Redo: ${bench.canRedo}` : 'Nothing to redo'}
        disabled={!bench.canRedo}
        onclick={() => bench.redo()}
        data-test="redo"><Redo2 size={16} aria-hidden="true" /></Tip
      >
      {#if !facts.origin}<a class="bar-button" href="/intake?list={facts.listId}&bench={facts.id}"
          >Refresh data</a
        >{/if}
      <HandOver bind:this={handOver} {bench} />
    {/snippet}
  </TopBar>

  {#if facts.origin?.fault}
    <div class="older" role="status" data-test="origin-fault">
      This list could not be made anew. {facts.origin.fault}
    </div>
  {/if}
  <Earlier {bench} />
  <Conflict {bench} oncopy={keepAsNew} />
  <Leaving {bench} />
  {#if facts.currentReading !== bench.doc.reading}
    <div class="older" role="status">
      This bench works on an earlier reading of the list. <a href="/lists/{facts.listId}"
        >Bring it up to date, or see all readings</a
      >.
    </div>
  {/if}
  {#if bench.fault}<div class="fault" role="alert" data-test="fault">{bench.fault}</div>{/if}

  <div class="floor">
    <nav class="left" aria-label="What counts and tallies">
      <Ladder {bench} />
      <Tray {bench} />
      <MadeRail {bench} />
    </nav>
    <main class="centre">
      <h1 class="visually-hidden">
        {facts.listName}: {bench.choosing
          ? 'a new tally'
          : bench.reporting
            ? 'the report'
            : bench.nameOf(bench.shown)}
      </h1>
      <ReadAnew {bench} />
      <BandsAnew {bench} />
      <WorkingStrip {bench} />
      {#if bench.columns.length}
        {#if bench.choosing}
          {#await PARTS.chooser() then { default: Chooser }}
            <Chooser {bench} />
          {:catch}
            <p class="opening">{UNREACHED}</p>
          {/await}
        {:else if bench.reporting}
          {#await PARTS.report() then { default: ReportPage }}
            <ReportPage {bench} />
          {:catch}
            <p class="opening">{UNREACHED}</p>
          {/await}
        {:else if isLedger(bench.shown)}
          <LedgerSentence {bench} />
          <Faults {bench} />
          {#if bench.refused}
            <p class="opening" role="alert" data-test="refused">{bench.refused}</p>
          {:else}
            <LedgerBar {bench} />
            <Ledger bind:this={ledger} {bench} />
          {/if}
        {:else}
          <Faults {bench} />
          {#await PARTS.tally() then { default: Tally }}
            {#key bench.shown.id}<Tally {bench} />{/key}
          {:catch}
            <p class="opening">{UNREACHED}</p>
          {/await}
        {/if}
      {:else if !bench.fault}
        <p class="opening" role="status">
          {bench.opening}
          <ProgressBar value={bench.progress} name="Opened so far" />
        </p>
      {/if}
      <p class="visually-hidden" role="status" aria-live="polite" data-test="notice">
        {bench.notice}
      </p>
    </main>
    <Sides {bench} {toFigure} {toRecord} />
  </div>
  {#if bench.notice}
    {#await PARTS.toasts() then { default: Toasts }}<Toasts notice={bench.notice} />{/await}
  {/if}
</div>
{#if Finding}
  <Finding
    examples={() => bench.offers('').then(({ examples }) => examples)}
    bind:this={finder}
    {acts}
    token={bench.counts?.token ?? 0}
    search={async (text) => (await PARTS.found()).foundActs(bench, text)}
  />
{/if}

<style>
  .page {
    height: 100vh;
    display: flex;
    flex-direction: column;
    min-width: 640px;
  }
  .page :global(.trail a) {
    color: var(--on-bar);
    text-decoration: none;
  }
  .page :global(.trail a:hover) {
    text-decoration: underline;
  }
  .finder {
    min-width: 180px;
    justify-content: space-between;
  }
  .floor {
    flex: 1;
    display: grid;
    grid-template: minmax(0, 1fr) / 272px minmax(0, 1fr) auto;
    min-height: 0;
  }
  /* In a narrow window the panel stands under the ledger. */
  @media (width < 1024px) {
    .floor {
      grid-template: minmax(0, 1fr) auto / 212px minmax(0, 1fr);
    }
    .left {
      grid-row: 1 / 3;
    }
    .finder {
      min-width: 0;
    }
    .finder small {
      display: none;
    }
  }
  .left {
    background: var(--panel);
    border-right: 1px solid var(--rule);
    /* What is hidden from the eye within it scrolls with it. */
    position: relative;
    overflow: auto;
    padding-bottom: 40px;
    /* A notice stands at its foot. */
    margin-bottom: var(--notice-room, 0px);
  }
  .centre {
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .opening {
    padding: 40px;
    color: var(--ink-soft);
  }
  .fault,
  .older {
    padding: 7px 20px;
    border-bottom: 1px solid var(--rule);
  }
  .fault {
    background: var(--plum-wash);
    color: var(--bad);
  }
  .older {
    background: var(--brass-wash);
    color: var(--brass);
  }
  .older a {
    color: inherit;
  }
</style>
