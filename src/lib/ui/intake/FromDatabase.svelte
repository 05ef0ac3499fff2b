<script lang="ts">
  import { z } from 'zod';
  import { askedBy, type AskedOf, type DatabaseForm } from '../../core/read/decode/source';
  import OneOf from '../fields/OneOf.svelte';
  import Segments from '../components/Segments.svelte';
  import type { OfDatabase, Refreshed } from './intake.svelte';

  interface Props {
    /** The databases that the server keeps under names. */
    databases: readonly { name: string; kind: DatabaseForm }[];
    refreshed: Refreshed | null;
    /** The one that was asked for on the way here. */
    from: string | null;
    onread: (of: OfDatabase) => void;
  }
  let { databases, refreshed, from, onread }: Props = $props();

  // The page is made anew for each list.
  // svelte-ignore state_referenced_locally
  const before = refreshed?.recipe.source;
  const beforeAsked = before ? askedBy(before) : null;
  // svelte-ignore state_referenced_locally
  let chosen = $state(
    [from, before?.connection].find((name) => databases.some((d) => d.name === name)) ??
      databases[0].name,
  );
  let by = $state<'table' | 'query'>(beforeAsked && 'query' in beforeAsked ? 'query' : 'table');
  let table = $state(beforeAsked && 'table' in beforeAsked ? beforeAsked.table : '');
  let query = $state(beforeAsked && 'query' in beforeAsked ? beforeAsked.query : '');
  let tables = $state.raw<readonly string[]>([]);
  let fault = $state('');
  let looking = $state(false);

  const Tables = z.object({ tables: z.array(z.string()) });
  const Problem = z.object({ detail: z.string() });

  $effect(() => {
    void look(chosen);
  });

  async function look(name: string): Promise<void> {
    looking = true;
    [tables, fault] = [[], ''];
    const response = await fetch(`/api/connections/${encodeURIComponent(name)}/tables`).catch(
      () => null,
    );
    const body: unknown = await response?.json().catch(() => null);
    if (name !== chosen) return;
    looking = false;
    const found = Tables.safeParse(body);
    if (found.success) {
      tables = found.data.tables;
      if (!tables.includes(table)) table = tables[0] ?? '';
    } else fault = Problem.safeParse(body).data?.detail ?? 'The server does not answer.';
  }

  const asked = $derived<AskedOf | null>(
    by === 'table' ? (table ? { table } : null) : query.trim() ? { query } : null,
  );

  function read(event: SubmitEvent): void {
    event.preventDefault();
    const form = databases.find(({ name }) => name === chosen)?.kind;
    if (form && asked) onread({ connection: chosen, form, asked });
  }
</script>

<form class="database" onsubmit={read} aria-label="From a database">
  <p class="soft">It is only read, never changed. Its columns say themselves what they are.</p>
  <label
    >Database
    <OneOf
      value={chosen}
      options={databases.map(({ name }) => [name, name] as const)}
      test="connection"
      onchange={(name) => (chosen = name)}
    /></label
  >
  <Segments
    label="What is read"
    value={by}
    options={[
      { value: 'table', label: 'A table' },
      { value: 'query', label: 'A query' },
    ]}
    onchange={(value) => (by = value === 'query' ? 'query' : 'table')}
    test="read-by"
  />
  {#if by === 'table'}
    <label
      >Table or view
      {#if tables.length}<OneOf
          value={table}
          options={tables.map((name) => [name, name] as const)}
          test="table"
          onchange={(name) => (table = name)}
        />{:else}<span class="soft"
          >{looking ? 'Looking…' : fault ? '' : 'There is none that may be read.'}</span
        >{/if}</label
    >
  {:else}
    <label
      >Query <textarea
        class="field"
        rows="5"
        bind:value={query}
        spellcheck="false"
        placeholder="SELECT route, sailed_on, fares FROM sailings"
        data-test="query"></textarea></label
    >
  {/if}
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  <button type="submit" class="main-button" disabled={!asked} data-test="read-database">Read</button
  >
</form>

<style>
  .database {
    display: grid;
    gap: 10px;
    justify-items: start;
  }
  p {
    margin: 0;
  }
  label {
    display: grid;
    gap: 3px;
    width: 100%;
    max-width: 420px;
  }
  textarea {
    font-family: ui-monospace, monospace;
    font-size: 13px;
    width: 100%;
  }
  .soft {
    color: var(--ink-soft);
  }
  .fault {
    color: var(--bad);
  }
</style>
