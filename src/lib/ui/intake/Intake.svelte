<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount } from 'svelte';
  import { counted, showCount } from '../../core/table/format';
  import { differenceKey, differenceWords } from '../../core/read/refresh';
  import { typeName } from '../../core/read/infer';
  import TopBar from '../shell/TopBar.svelte';
  import ColumnFields from './ColumnFields.svelte';
  import { IntakeState, type Refreshed } from './intake.svelte';
  import LayoutFields from './LayoutFields.svelte';
  import { pending } from './pending';

  interface Props {
    refreshed: Refreshed | null;
    /** Bytes that a file may have. */
    limit: number;
  }
  let { refreshed, limit }: Props = $props();
  // The page is made anew for each list.
  // svelte-ignore state_referenced_locally
  const intake = new IntakeState(refreshed, limit);
  let chosen = $state<string | null>(null);
  let benchLink = $state('');

  onMount(() => {
    const { file } = pending;
    pending.file = null;
    if (file) intake.begin(file);
    return () => intake.leave();
  });

  $effect(() => {
    const { stored } = intake;
    if (!stored) return;
    if (stored.bench !== null) void goto(`/benches/${stored.bench}`);
    else if (stored.lost === 0) void goto(`/lists/${stored.listId}?refreshed=1`);
    else benchLink = `/lists/${stored.listId}`;
  });

  function keyed(event: KeyboardEvent): void {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      intake.accept();
    }
  }

  const recipe = $derived(intake.recipe);
  const column = $derived(recipe?.columns.find((c) => c.id === chosen) ?? null);
  const waits = $derived(
    [
      intake.undecided ? `${counted(intake.undecided, 'difference')} to decide` : '',
      intake.asking ? `${counted(intake.asking, 'doubt')} to answer` : '',
    ].filter(Boolean),
  );
</script>

<svelte:window onkeydown={keyed} />
<svelte:head
  ><title>{refreshed ? `Refresh ${refreshed.name}` : 'Bring in a list'} · Tally Loft</title
  ></svelte:head
>

<div class="page">
  <TopBar>
    {#snippet trail()}{refreshed ? `Refresh ${refreshed.name}` : 'Bring in a list'}{intake.fileName
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

  {#if intake.stage === 'empty' || intake.stage === 'fault'}
    <main class="start">
      <h1 class="serif">{refreshed ? `A new file for ${refreshed.name}` : 'Choose a file'}</h1>
      <p>
        {refreshed
          ? 'It is read by the same recipe. The reading you have now stays and can be brought back.'
          : 'Comma, semicolon, tab or pipe between the cells. Nothing is kept before you accept it.'}
      </p>
      <input
        class="field"
        type="file"
        aria-label="File to read"
        onchange={(e) => {
          const file = e.currentTarget.files?.[0];
          if (file) intake.begin(file);
        }}
        data-test="file"
      />
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
        <p><a href={benchLink}>To the list</a></p>
      {/if}
    </main>
  {:else if recipe}
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
        <LayoutFields {recipe} onchange={(change) => intake.changeLayout(change)} />
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
            <progress value={intake.progress} aria-label="Read so far"></progress>
            <span
              >{showCount(intake.records)} records read, {Math.round(intake.progress * 100)} %</span
            >
            <button type="button" class="plain-button" onclick={() => intake.stop()}>Stop</button>
          {:else if intake.stage === 'sending'}
            <progress value={intake.progress} aria-label="Kept so far"></progress>
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

        {#if intake.differences.length}
          <section class="differences" aria-label="Differences from the list">
            <h2 class="caps">Different from the list</h2>
            {#each intake.differences as d (differenceKey(d))}
              {@const words = differenceWords(d)}
              {@const key = differenceKey(d)}
              <fieldset>
                <legend>{words.asks}</legend>
                <label
                  ><input
                    type="radio"
                    name={key}
                    checked={intake.decisions.get(key) === true}
                    onchange={() => intake.decideOn(d, true)}
                  />
                  {words.keep}</label
                >
                <label
                  ><input
                    type="radio"
                    name={key}
                    checked={intake.decisions.get(key) === false}
                    onchange={() => intake.decideOn(d, false)}
                  />
                  {words.follow}</label
                >
              </fieldset>
            {/each}
          </section>
        {/if}

        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div class="preview" tabindex="0" role="region" aria-label="First records">
          <table data-test="preview">
            <thead>
              <tr>
                <th scope="col" class="n">#</th>
                {#each recipe.columns as c (c.id)}
                  <th scope="col" class:right={c.type === 'number'} class:chosen={c.id === chosen}>
                    <button type="button" onclick={() => (chosen = c.id)}
                      >{c.name}<small>{typeName[c.type]}{c.unit ? `, ${c.unit}` : ''}</small
                      ></button
                    >
                  </th>
                {/each}
              </tr>
            </thead>
            <tbody>
              {#each intake.rows as row, k (k)}
                <tr>
                  <td class="n">{k + 1}</td>
                  {#each row as cell, c (c)}
                    <td class={cell.state} class:right={recipe.columns[c]?.type === 'number'}
                      >{cell.text}</td
                    >
                  {/each}
                </tr>
              {/each}
            </tbody>
          </table>
        </div>

        {#if intake.stage === 'read' || intake.stage === 'sending'}
          <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
          <section class="doubts" aria-labelledby="doubts" tabindex="0" data-test="doubts">
            <h2 class="caps" id="doubts">Doubts</h2>
            {#each intake.doubts as d, k (k)}
              <div class="doubt-line">
                <details class:asks={d.asks} open={d.asks || d.kind === 'totals'}>
                  <summary>{d.says}</summary>
                  {#if d.kind === 'totals'}
                    <label class="totals"
                      ><input type="checkbox" bind:checked={intake.setTotalsAside} /> Set {d.count ===
                      1
                        ? 'it'
                        : 'them'} aside, so that nothing counts twice</label
                    >
                  {/if}
                  {#if d.places.length}
                    <ul>
                      {#each d.places as place (place.record)}<li>
                          record {showCount(place.record + 1)}: {place.text || '–'}
                        </li>{/each}
                      {#if d.count > d.places.length}<li>
                          and {showCount(d.count - d.places.length)} more
                        </li>{/if}
                    </ul>
                  {/if}
                </details>
                {#if d.column}
                  <button type="button" class="act" onclick={() => (chosen = d.column ?? null)}
                    >Change how it is read</button
                  >
                {/if}
              </div>
            {:else}
              <p class="soft">
                Every cell was read, no record stands twice, none looks like a total.
              </p>
            {/each}
          </section>
        {/if}
      </main>
    </div>
  {/if}
</div>

<style>
  .page {
    height: 100vh;
    display: flex;
    flex-direction: column;
    min-width: 1024px;
  }
  .start {
    max-width: 640px;
    margin: 40px auto;
    padding: 0 24px;
  }
  .start h1 {
    font-size: 26px;
    margin: 0 0 8px;
  }
  .fault {
    margin: 0;
    padding: 8px 20px;
    color: var(--bad);
    background: var(--plum-wash);
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
  .preview {
    overflow: auto;
    flex: 1 1 50%;
    min-height: 160px;
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
  }
  th {
    position: sticky;
    top: 0;
    background: var(--paper);
    border-bottom: 1.5px solid var(--rule-strong);
    padding: 0;
    text-align: left;
    z-index: 1;
  }
  th button {
    display: grid;
    background: none;
    border: 0;
    padding: 5px 10px;
    color: inherit;
    font: inherit;
    font-weight: 600;
    text-align: inherit;
    cursor: pointer;
    white-space: nowrap;
    width: 100%;
  }
  th button:focus-visible {
    outline-offset: -2px;
  }
  th small {
    font-weight: 400;
  }
  .chosen {
    background: var(--tide-wash);
  }
  td {
    padding: 3px 10px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
    max-width: 320px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .n {
    color: var(--ink-soft);
    text-align: right;
    padding: 3px 10px;
    font-weight: 400;
  }
  .right {
    text-align: right;
  }
  .right button {
    text-align: right;
    justify-items: end;
  }
  td.blank {
    color: var(--ink-faint);
    font-style: italic;
  }
  td.unread {
    color: var(--plum);
    text-decoration: underline dashed;
    text-underline-offset: 3px;
  }
  .doubts {
    flex: 0 1 auto;
    max-height: 38%;
    overflow: auto;
    border-top: 1px solid var(--rule-strong);
    background: var(--panel);
    padding: 10px 20px 16px;
  }
  details {
    flex: 1;
    padding: 4px 0;
  }
  .asks summary {
    color: var(--plum);
    font-weight: 600;
  }
  summary {
    cursor: pointer;
  }
  .doubt-line {
    display: flex;
    gap: 16px;
    align-items: baseline;
    border-bottom: 1px solid var(--rule);
  }
  .doubt-line button {
    flex: none;
  }
  details ul {
    margin: 4px 0 6px;
    padding-left: 22px;
    color: var(--ink-soft);
    columns: 2;
    overflow-wrap: anywhere;
  }
  .totals {
    display: flex;
    gap: 6px;
    padding: 4px 0 0 18px;
  }
  .differences {
    padding: 10px 20px;
    background: var(--brass-wash);
    border-bottom: 1px solid var(--rule);
    max-height: 34%;
    overflow: auto;
  }
  fieldset {
    border: 0;
    padding: 5px 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
  }
  legend {
    font-weight: 600;
    padding: 0;
    float: left;
    margin-right: 14px;
  }
</style>
