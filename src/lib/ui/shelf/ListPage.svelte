<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { z } from 'zod';
  import type { Bench } from '../../core/bench/document';
  import { originWords, type ListOrigin } from '../../core/bench/origin';
  import { isBenchFile } from '../../core/bench/benchFile';
  import type { Doubt } from '../../core/read/doubts';
  import { counted, showMoment } from '../../core/table/format';
  import type { ComponentProps } from 'svelte';
  import TopBar from '../components/TopBar.svelte';
  import ColumnsOfList from './ColumnsOfList.svelte';

  interface Props {
    list: { id: number; name: string; current: number | null };
    /** Where the list comes from, if from another. */
    origin: ListOrigin | null;
    readings: readonly {
      id: number;
      number: number;
      fileName: string;
      readAt: string;
      records: number;
      /** Its files, where it is put together of several; empty where it is one. */
      parts: readonly { fileName: string; records: number }[];
    }[];
    benches: readonly { id: number; name: string; savedAt: string; doc: Bench }[];
    doubts: readonly Doubt[];
    columns: ComponentProps<typeof ColumnsOfList>['columns'];
    /** Just come from a refresh. */
    refreshed: boolean;
  }
  let { list, origin, readings, benches, doubts, columns, refreshed }: Props = $props();
  let words = $state('');
  let fault = $state('');

  async function send(url: string, method: string, body: unknown): Promise<unknown> {
    fault = '';
    const response = await fetch(url, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (response.ok) return response.status === 204 ? null : response.json();
    const problem = Problem.safeParse(await response.json().catch(() => null));
    fault = `${problem.success ? problem.data.detail : 'That could not be done.'} Nothing was changed.`;
    return null;
  }

  const Problem = z.object({ detail: z.string() });
  const Moved = z.object({ lost: z.int() });

  /** Tells a column otherwise, in a reading of the same cells. */
  async function tell(change: { id: string }): Promise<void> {
    const told = await send(`/api/lists/${list.id}/columns`, 'PATCH', {
      reading: list.current,
      columns: [change],
    });
    if (told === null) return;
    words = 'The column is told so in a new reading of the same cells, and the benches work on it.';
    await invalidateAll();
  }

  async function bringBack(reading: (typeof readings)[number]): Promise<void> {
    const reply = Moved.safeParse(
      await send(`/api/lists/${list.id}/readings`, 'PUT', { reading: reading.id }),
    );
    if (!reply.success) return;
    words =
      `Reading ${reading.number} is the current one, and the benches work on it.` +
      (reply.data.lost
        ? ` ${counted(reply.data.lost, 'record')} set aside or corrected ${reply.data.lost === 1 ? 'is' : 'are'} not in it.`
        : '');
    await invalidateAll();
  }

  /** Makes a reading without one of the files; the one before can be brought back. */
  async function takeOut(reading: number, part: number, name: string): Promise<void> {
    const reply = Moved.safeParse(
      await send(`/api/lists/${list.id}/readings`, 'POST', { reading, without: part }),
    );
    if (!reply.success) return;
    words =
      `${name} was taken out; the reading with it can be brought back.` +
      (reply.data.lost
        ? ` ${counted(reply.data.lost, 'record')} set aside or corrected ${reply.data.lost === 1 ? 'was' : 'were'} of it.`
        : '');
    await invalidateAll();
  }

  async function rename(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const name = String(
      new FormData(event.currentTarget as HTMLFormElement).get('name') ?? '',
    ).trim();
    if (name && (await send(`/api/lists/${list.id}`, 'PATCH', { name }))) {
      words = 'The list was renamed.';
      await invalidateAll();
    }
  }

  const Made = z.object({ id: z.int() });

  async function addBench(): Promise<void> {
    const doc = benches[0]?.doc;
    if (!doc) return;
    const reply = Made.safeParse(
      await send(`/api/lists/${list.id}/benches`, 'POST', {
        name: `Bench ${benches.length + 1}`,
        doc,
      }),
    );
    if (reply.success) await goto(`/benches/${reply.data.id}`);
  }

  /** A bench saved as a file, or one that asks what a saved question file asks. What is wrong with the file is said; nothing is lost. */
  async function addFromFile(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    if (!file) return;
    let ask: unknown;
    try {
      ask = JSON.parse(await file.text());
    } catch {
      fault = `“${file.name}” is no bench and no question file: it is not JSON.`;
      input.value = '';
      return;
    }
    const name = file.name.replace(/(\.ask)?\.json$/, '').slice(0, 120) || 'From a file';
    const response = await fetch(`/api/lists/${list.id}/benches`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(isBenchFile(ask) ? { name, doc: ask } : { name, ask }),
    });
    input.value = '';
    const reply: unknown = await response.json();
    const made = Made.safeParse(reply);
    if (made.success) await goto(`/benches/${made.data.id}`);
    else {
      const problem = Problem.safeParse(reply);
      fault = `“${file.name}” cannot be used. ${problem.success ? problem.data.detail : ''}`;
    }
  }

  async function removeBench(id: number): Promise<void> {
    await send(`/api/benches/${id}`, 'DELETE', {});
    await invalidateAll();
  }
</script>

<svelte:head><title>{list.name} · Tally Loft</title></svelte:head>
<TopBar>
  {#snippet trail()}{list.name}{/snippet}
  {#snippet acts()}<a class="bar-button" href="/">Shelf</a>{#if !origin}<a
        class="bar-button"
        href="/intake?list={list.id}&add"
        data-test="add-records">Add records</a
      ><a class="bar-button strong" href="/intake?list={list.id}">Refresh data</a>{/if}{/snippet}
</TopBar>
<main>
  <h1 class="serif">{list.name}</h1>
  {#if refreshed && !words}<p role="status" class="good" data-test="accepted">
      The new reading was accepted, and the benches work on it. The one before can be brought back
      below.
      {#if benches[0]}<a href="/benches/{benches[0].id}?make=moved" data-test="see-moved"
          >See what moved</a
        >{/if}
    </p>{/if}
  {#if origin}
    <p data-test="origin">
      It {originWords(origin)}.
      {#if origin.bench}<a href="/benches/{origin.bench.id}">Open that bench</a>{/if}
    </p>
    {#if origin.fault}<p role="alert" class="bad">{origin.fault}</p>{/if}
  {/if}
  {#if benches[0]}
    <p>
      <a href="/benches/{benches[0].id}?make=stack">Stack columns as records…</a> ·
      <a href="/benches/{benches[0].id}?make=unstack">Unstack…</a>
    </p>
  {/if}
  {#if words}<p role="status" class="good" data-test="accepted">{words}</p>{/if}
  {#if fault}<p role="alert" class="bad">{fault}</p>{/if}

  <section>
    <h2 class="caps">Benches</h2>
    <ul class="plain">
      {#each benches as bench (bench.id)}
        <li>
          <a href="/benches/{bench.id}">{bench.name}</a>
          <small>saved {showMoment(bench.savedAt)}</small>
          {#if benches.length > 1}<button
              type="button"
              class="act"
              onclick={() => removeBench(bench.id)}
              aria-label="Delete {bench.name}">Delete</button
            >{/if}
        </li>
      {/each}
    </ul>
    <button type="button" class="plain-button" onclick={addBench}>Add a bench like the first</button
    >
    <label class="plain-button file"
      >Add a bench from a file
      <input
        type="file"
        accept=".json,application/json"
        class="visually-hidden"
        onchange={(e) => void addFromFile(e.currentTarget)}
        data-test="question-file"
      /></label
    >
  </section>

  <section>
    <h2 class="caps">Readings</h2>
    <table>
      <thead
        ><tr
          ><th scope="col">Reading</th><th scope="col">File</th><th scope="col">Read</th><th
            scope="col"
            class="right">Records</th
          ><th scope="col"><span class="visually-hidden">Acts</span></th></tr
        ></thead
      >
      <tbody>
        {#each readings as reading (reading.id)}
          <tr data-test="reading">
            <th scope="row">{reading.number}</th>
            <td>
              {#if reading.parts.length}
                <ul class="plain">
                  {#each reading.parts as part, k (k)}
                    <li data-test="part">
                      {part.fileName} <small>{counted(part.records, 'record')}</small>
                      {#if reading.id === list.current && reading.parts.length > 1}<button
                          type="button"
                          class="act"
                          aria-label="Take {part.fileName} out"
                          onclick={() => void takeOut(reading.id, k, part.fileName)}
                          data-test="take-out">Take out</button
                        >{/if}
                    </li>
                  {/each}
                </ul>
              {:else}{reading.fileName}{/if}
            </td>
            <td>{showMoment(reading.readAt)}</td>
            <td class="right">{counted(reading.records, 'record')}</td>
            <td class="right">
              {#if reading.id === list.current}<b>current</b>{:else}<button
                  type="button"
                  class="plain-button"
                  onclick={() => bringBack(reading)}
                  data-test="bring-back">Bring back</button
                >{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </section>

  <section class="two">
    <div>
      <h2 class="caps">Doubts at the current reading</h2>
      <ul>
        {#each doubts as d, k (k)}<li>{d.words}</li>{:else}<li>None.</li>{/each}
      </ul>
    </div>
    <div>
      <h2 class="caps">Columns</h2>
      <ColumnsOfList {columns} fixed={origin !== null} ontell={(change) => void tell(change)} />
    </div>
  </section>

  <form onsubmit={rename}>
    <label
      >Rename the list <input
        class="field"
        name="name"
        value={list.name}
        maxlength="200"
        required
      /></label
    >
    <button type="submit" class="plain-button">Rename</button>
  </form>
</main>

<style>
  main {
    max-width: 980px;
    margin: 0 auto;
    padding: 22px 24px 60px;
  }
  .file {
    display: inline-block;
    margin-left: 8px;
  }
  .file:focus-within {
    outline: 2px solid var(--tide);
  }
  h1 {
    font-size: 27px;
    margin: 0 0 12px;
    overflow-wrap: anywhere;
  }
  section {
    margin-bottom: 24px;
  }
  .plain {
    list-style: none;
    padding: 0;
  }
  .plain a {
    color: var(--tide);
    font-weight: 600;
  }
  small {
    color: var(--ink-soft);
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin-top: 6px;
  }
  th,
  td {
    text-align: left;
    padding: 6px 8px;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  thead th {
    border-bottom: 1.5px solid var(--rule-strong);
  }
  .right {
    text-align: right;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 30px;
  }
  .two ul {
    padding-left: 18px;
    overflow-wrap: anywhere;
  }
  .good {
    color: var(--good);
  }
  .bad {
    color: var(--bad);
  }
  form {
    display: flex;
    gap: 8px;
    align-items: end;
  }
</style>
