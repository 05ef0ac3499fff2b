<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount } from 'svelte';
  import { counted, showCount, showDecimals } from '../../core/table/format';
  import type { DatabaseForm } from '../../core/read/decode/source';
  import { typeName } from '../../core/table/column';
  import FileDrop from '../components/FileDrop.svelte';
  import ProgressBar from '../components/ProgressBar.svelte';
  import TopBar from '../components/TopBar.svelte';
  import BesideList from './BesideList.svelte';
  import ColumnFields from './ColumnFields.svelte';
  import CutLines from './CutLines.svelte';
  import Differences from './Differences.svelte';
  import Doubts from './Doubts.svelte';
  import FromDatabase from './FromDatabase.svelte';
  import HeadsOfFiles from './HeadsOfFiles.svelte';
  import { clearDesk, leaveOnDesk, lookOnDesk } from './desk';
  import { IntakeState, type Refreshed } from './intake.svelte';
  import LayoutFields from './LayoutFields.svelte';
  import { pending } from './pending';
  import Preview from './Preview.svelte';

  interface Props {
    refreshed: Refreshed | null;
    /** Bytes that a file may have. */
    limit: number;
    /** The databases that the server keeps under names, and what is wrong with their file. */
    databases: readonly { name: string; kind: DatabaseForm }[];
    databaseFault: string;
    /** The database that was asked for on the way here. */
    from: string | null;
    /** The bench from which a list is refreshed: what moved opens there. */
    bench: number | null;
    /** Whether the file was asked for to be added to the list. */
    adds: boolean;
  }
  let { refreshed, limit, databases, databaseFault, from, bench, adds }: Props = $props();
  // The page is made anew for each list.
  // svelte-ignore state_referenced_locally
  const intake = new IntakeState(refreshed, limit, adds);
  let chosen = $state<string | null>(null);
  let benchLink = $state('');
  let goneOn = $state(false);
  /** The analyst has said so: nothing is asked. */
  let leaving = false;
  // svelte-ignore state_referenced_locally
  const list = refreshed?.id ?? null;
  const act = $derived(intake.adds ? 'Add to' : 'Refresh');

  onMount(() => {
    const { file } = pending;
    pending.file = null;
    if (file) intake.begin(file);
    else void goOn();
    return () => intake.leave();
  });

  /** Takes up what a reloaded page left. */
  async function goOn(): Promise<void> {
    const left = await lookOnDesk(list);
    if (!left || intake.stage !== 'empty') return;
    intake.begin(left.file, left.decided);
    goneOn = true;
  }

  $effect(() => {
    const { left } = intake;
    if (left) void leaveOnDesk(list, left);
    else if (intake.stage === 'done') void clearDesk(list);
  });

  const open = $derived(
    intake.stage === 'reading' ||
      intake.stage === 'heads' ||
      intake.stage === 'read' ||
      intake.stage === 'stopped' ||
      intake.stage === 'sending',
  );

  async function another(): Promise<void> {
    leaving = true;
    await clearDesk(list);
    location.reload();
  }

  $effect(() => {
    const { stored } = intake;
    if (!stored) return;
    if (stored.bench !== null) void goto(`/benches/${stored.bench}`);
    else if (stored.lost > 0)
      benchLink = bench === null ? `/lists/${stored.listId}` : `/benches/${bench}?make=moved`;
    else if (bench === null) void goto(`/lists/${stored.listId}?refreshed=1`);
    else void goto(`/benches/${bench}?make=moved`);
  });

  function keyed(event: KeyboardEvent): void {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      intake.accept();
    }
  }

  /** A list that came from a database is read from there again first. */
  const again = $derived(
    databases.some(({ name }) => name === refreshed?.recipe.source?.connection),
  );
  const recipe = $derived(intake.recipe);
  const column = $derived(recipe?.columns.find((c) => c.id === chosen) ?? null);
  const waits = $derived(
    [
      intake.undecided ? `${counted(intake.undecided, 'difference')} to decide` : '',
      intake.asking ? `${counted(intake.asking, 'doubt')} to answer` : '',
    ].filter(Boolean),
  );
</script>

<svelte:window
  onkeydown={keyed}
  onbeforeunload={(event) => {
    if (open && !leaving) event.preventDefault();
  }}
/>
<svelte:head
  ><title>{refreshed ? `${act} ${refreshed.name}` : 'Bring in a list'} · Tally Loft</title
  ></svelte:head
>

{#snippet database()}
  {#if databaseFault}<p class="bad" role="alert">{databaseFault}</p>{/if}
  {#if databases.length}
    <FromDatabase {databases} {refreshed} {from} onread={(of) => intake.ask(of)} />
  {/if}
{/snippet}

{#snippet file()}
  <p>
    {refreshed
      ? intake.adds
        ? 'It is read by the same recipe, and its records come behind those that are there. You see first which of them the list has already.'
        : 'It is read by the same recipe. The reading you have now stays and can be brought back.'
      : 'Delimited text, a workbook (.xlsx, .ods), JSON, Arrow or Parquet; packed (.gz, .zip) or not. Nothing is kept before you accept it.'}
  </p>
  <FileDrop
    name="File to read"
    label="Choose a file, or several"
    many
    onfile={(file) => intake.begin(file)}
    test="file"
  />
{/snippet}

<div class="page">
  <TopBar>
    {#snippet trail()}{refreshed ? `${act} ${refreshed.name}` : 'Bring in a list'}{intake.fileName
        ? ` / ${intake.fileName}`
        : ''}{/snippet}
    {#snippet acts()}
      <a class="bar-button" href="/">Leave</a>
      <button
        type="button"
        class="bar-button strong"
        disabled={!intake.canAccept}
        onclick={() => intake.accept()}
        data-test="accept">Accept <small>Ctrl Enter</small></button
      >
    {/snippet}
  </TopBar>
  {#if intake.fault}<p class="fault" role="alert" data-test="fault">{intake.fault}</p>{/if}

  {#if goneOn && open}
    <p class="gone-on" role="status" data-test="gone-on">
      Going on with {intake.fileName}, as you left it.
      <button type="button" class="act" onclick={() => void another()}>Choose another file</button>
    </p>
  {/if}
  {#if intake.stage === 'empty' || intake.stage === 'fault'}
    <main class="start">
      {#if again}
        <h1 class="serif">Read {refreshed?.name} again</h1>
        {@render database()}
        <h2 class="serif">Or a new file</h2>
        {@render file()}
      {:else}
        <h1 class="serif">
          {refreshed
            ? intake.adds
              ? `A file to add to ${refreshed.name}`
              : `A new file for ${refreshed.name}`
            : 'Choose a file'}
        </h1>
        {@render file()}
        {#if databases.length}<h2 class="serif">Or read from a database</h2>{/if}
        {@render database()}
      {/if}
    </main>
  {:else if intake.stage === 'done'}
    <main class="start" role="status">
      <h1 class="serif">Accepted</h1>
      {#if intake.stored && intake.stored.lost > 0}
        <p>
          {counted(intake.stored.lost, 'record')} set aside or corrected before {intake.stored
            .lost === 1
            ? 'is'
            : 'are'} not in the new reading, and no longer set aside or corrected.
        </p>
        <p>
          <a href={benchLink}>{bench === null ? 'To the list' : 'To the bench, and what moved'}</a>
        </p>
      {/if}
    </main>
  {:else if intake.stage === 'heads'}
    <main class="heads">
      <HeadsOfFiles
        heads={intake.heads}
        sheets={intake.choices.parts.includes(intake.files[0])}
        onsettle={(heads) => intake.choose({ all: true, heads })}
        onapart={() =>
          intake.choose(
            intake.choices.parts.includes(intake.files[0])
              ? { part: intake.files[0] }
              : { member: intake.files[0] },
          )}
      />
    </main>
  {:else if !recipe}
    <main class="start" aria-live="polite" data-test="state">
      {#if intake.stage === 'stopped'}
        <p>Stopped. Nothing was kept.</p>
        <button type="button" class="plain-button" onclick={() => intake.again()}
          >Read on from the start</button
        >
      {:else}
        <h1 class="serif">Reading {intake.fileName}</h1>
        <ProgressBar value={intake.progress || null} name="Read so far" />
        {#if intake.come.records}<p class="soft" data-test="coming">
            {counted(intake.come.records, 'record')} so far, {showDecimals(
              intake.come.bytes / 1e6,
              1,
            )} MB.
          </p>{/if}
        <button type="button" class="plain-button" onclick={() => intake.stop()}>Stop</button>
      {/if}
    </main>
  {:else}
    <div class="floor">
      <section class="recipe" aria-label="Recipe">
        <label class="name"
          >Name of the list <input
            class="field"
            bind:value={intake.name}
            maxlength="200"
            disabled={refreshed !== null}
            data-test="list-name"
          /></label
        >
        <LayoutFields
          {recipe}
          choices={intake.choices}
          onchange={(change) => intake.changeLayout(change)}
          onchoose={(wanted) => intake.choose(wanted)}
        />
        <h2 class="caps">Columns</h2>
        <p class="soft">Choose a column, here or in the preview, to change how it is read.</p>
        {#if column}
          <ColumnFields
            {column}
            onchange={(change) => intake.changeColumn(column.id, change)}
            onleave={() => intake.takeColumn(column, false)}
            onclose={() => (chosen = null)}
          />
        {:else}
          <ul>
            {#each recipe.columns as c (c.id)}
              <li>
                <button type="button" class="act" onclick={() => (chosen = c.id)}>{c.name}</button>
                <small>{typeName[c.type]}{c.unit ? `, ${c.unit}` : ''}</small>
              </li>
            {/each}
          </ul>
          {#if intake.leftOut.length}
            <p class="caps">Left out</p>
            <ul>
              {#each intake.leftOut as c (c.at)}
                <li>
                  {c.name}
                  <button type="button" class="act" onclick={() => intake.takeColumn(c, true)}
                    >Take in</button
                  >
                </li>
              {/each}
            </ul>
          {/if}
        {/if}
      </section>

      <main class="centre">
        <h1 class="visually-hidden">First records and doubts</h1>
        <div class="state" aria-live="polite" data-test="state">
          {#if intake.stage === 'reading'}
            <ProgressBar value={intake.progress} name="Read so far" />
            <span
              >{showCount(intake.records)} records read, {intake.progress < 1
                ? `${Math.round(intake.progress * 100)} %`
                : 'looking for doubts…'}</span
            >
            <button type="button" class="plain-button" onclick={() => intake.stop()}>Stop</button>
          {:else if intake.stage === 'sending'}
            <ProgressBar value={intake.progress} name="Kept so far" />
            <span>Keeping {showCount(intake.records)} records…</span>
          {:else if intake.stage === 'stopped'}
            <span>Stopped. Nothing was kept.</span>
            <button type="button" class="plain-button" onclick={() => intake.again()}
              >Read on from the start</button
            >
          {:else}
            <b>{counted(intake.records, 'record')}, {counted(recipe.columns.length, 'column')}.</b>
            <span
              >{intake.doubts.length
                ? `${counted(intake.doubts.length, 'doubt')} below.`
                : 'Nothing doubtful was found.'}</span
            >
            {#if waits.length}<span class="doubt"
                >{waits.join(', ')} before it can be accepted.</span
              >{/if}
          {/if}
        </div>

        {#if intake.choices.lines.length && recipe.source?.cuts}
          <CutLines
            lines={intake.choices.lines}
            cuts={recipe.source.cuts}
            onchange={(cuts) => intake.choose({ cuts })}
          />
        {/if}
        {#if refreshed && intake.stage === 'read'}<BesideList {intake} />{/if}
        {#if intake.differences.length}<Differences {intake} />{/if}
        <Preview {recipe} rows={intake.rows} {chosen} onchoose={(id) => (chosen = id)} />
        {#if intake.stage === 'read' || intake.stage === 'sending'}
          <Doubts {intake} onchoose={(id) => (chosen = id)} />
        {/if}
      </main>
    </div>
  {/if}
</div>

<style>
  .gone-on {
    margin: 0;
    padding: 6px 20px;
    background: var(--band);
    border-bottom: 1px solid var(--rule);
  }
  .page {
    height: 100vh;
    display: flex;
    flex-direction: column;
    min-width: 640px;
  }
  .heads {
    flex: 1;
    min-height: 0;
    overflow: auto;
  }
  .start {
    width: min(688px, 100%);
    margin: 40px auto;
    padding: 0 24px;
  }
  .start p {
    margin: 0 0 14px;
  }
  .start h1 {
    font-size: 26px;
    margin: 0 0 8px;
  }
  .start h2 {
    font-size: 20px;
    margin: 30px 0 6px;
    border-top: 1px solid var(--rule);
    padding-top: 18px;
  }
  .fault {
    margin: 0;
    padding: 8px 20px;
    color: var(--bad);
    background: var(--plum-wash);
  }
  .bad {
    color: var(--bad);
  }
  .floor {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .recipe {
    width: 300px;
    flex: none;
    overflow: auto;
    background: var(--panel);
    border-right: 1px solid var(--rule);
    padding: 14px;
  }
  @media (width < 1024px) {
    .recipe {
      width: 230px;
    }
  }
  .name {
    display: grid;
    gap: 3px;
    margin-bottom: 12px;
  }
  .recipe ul {
    list-style: none;
    padding: 0;
    margin: 0 0 10px;
  }
  .recipe li {
    padding: 1px 0;
    overflow-wrap: anywhere;
  }
  small {
    color: var(--ink-soft);
  }
  .page :global(.bar-button small) {
    color: inherit;
  }
  .soft {
    color: var(--ink-soft);
    margin: 3px 0 8px;
  }
  .centre {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .state {
    display: flex;
    gap: 12px;
    align-items: center;
    padding: 10px 20px;
    min-height: 34px;
    border-bottom: 1px solid var(--rule);
  }
  .doubt {
    color: var(--plum);
    font-weight: 600;
  }
</style>
