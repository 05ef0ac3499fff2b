<script lang="ts">
  import { onMount } from 'svelte';
  import { idOfBrought } from '../../core/prepare/specs';
  import type { BenchState } from '../bench/bench.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import { JoinDraft } from './joinDraft.svelte';
  import FirstRecords from './FirstRecords.svelte';
  import Meeting from './Meeting.svelte';
  import UsedBy from './UsedBy.svelte';

  interface Props {
    bench: BenchState;
    /** Place of the join being changed; null: a new one. */
    at: number | null;
  }
  let { bench, at }: Props = $props();
  // The panel is made anew for each join.
  // svelte-ignore state_referenced_locally
  const draft = new JoinDraft(bench, at);
  let uses = $state.raw<readonly string[]>([]);
  onMount(() => () => draft.leave());

  $effect(() => {
    void draft.spec;
    void draft.other;
    void bench.runs;
    void draft.look();
  });

  const lists = $derived([
    ['', 'Choose a list…'] as const,
    ...bench.lists.names.map((name) => [name, name] as const),
  ]);
  const followers = $derived(bench.facts.lists.filter((l) => l.follows).map((l) => `“${l.name}”`));
  const own = $derived(
    new Set(at === null ? [] : (bench.doc.joins[at]?.bring.map(idOfBrought) ?? [])),
  );
  const here = $derived(
    bench.columns.filter((c) => !own.has(c.id)).map((c) => [c.id, c.name] as const),
  );
  const there = $derived(draft.other?.columns.map((c) => [c.id, c.name] as const) ?? []);
  const keysThere = $derived(new Set(draft.on.map((o) => o.with ?? o.column)));
  const brought = $derived(new Map(draft.bring.map((b) => [b.column, b])));
  const doubled = $derived((draft.reply?.meets?.repeatedKeys ?? 0) > 0);
  const reply = $derived(draft.reply);

  const OF_TEXT = [
    ['', 'choose…'],
    ['first', 'the first'],
    ['last', 'the last'],
    ['values', 'how many'],
  ] as const;
  const OF_NUMBERS = [
    ...OF_TEXT,
    ['sum', 'the total'],
    ['mean', 'the mean'],
    ['min', 'the lowest'],
    ['max', 'the highest'],
  ] as const;

  function setKey(k: number, change: { column?: string; with?: string }): void {
    draft.on = draft.on.map((o, n) => (n === k ? { ...o, ...change } : o));
  }
  function addKey(): void {
    const taken = new Set(draft.on.map((o) => o.column));
    const next =
      draft.other?.keys.find((key) => !taken.has(key.column)) ??
      ({ column: here[0]?.[0] ?? '', with: there[0]?.[0] ?? '' } as const);
    draft.on = [...draft.on, { column: next.column, with: next.with }];
  }

  /** Columns used elsewhere say where before they go. */
  async function takeOut(): Promise<void> {
    if (uses.length === 0) {
      const found = await Promise.all(
        [...own].map((column) => bench.ask('uses', { column }, `uses ${column}`)),
      );
      uses = [...new Set(found.flat())];
      if (uses.length) return;
    }
    draft.takeOut();
  }
</script>

<form
  class="fields"
  data-test="join-panel"
  onsubmit={(e) => {
    e.preventDefault();
    draft.keep();
  }}
>
  <label
    >From the list
    <OneOf
      value={draft.list}
      options={lists}
      test="join-list"
      onchange={(list) => void draft.choose(list)}
    /></label
  >
  {#if followers.length}
    <p class="soft" data-test="join-followers">
      {followers.join(', ')}
      {followers.length === 1 ? 'follows' : 'follow'} this bench and cannot feed it: it would follow itself.
    </p>
  {/if}
  {#if draft.list && draft.other}
    {@const followed = bench.lists.followed(draft.list)}
    {#if followed}<p class="soft" data-test="join-read">
        As it was read on {followed.readAt}. When it is read anew, its columns here follow.
      </p>{/if}
    {#each draft.on as on, k (k)}
      <div class="row">
        <span>{k === 0 ? 'where' : 'and'}</span>
        <OneOf
          label="Column of this list"
          value={on.column}
          options={here}
          test="join-here"
          onchange={(column) => setKey(k, { column })}
        />
        <span>is</span>
        <OneOf
          label="Column of {draft.list}"
          value={on.with ?? on.column}
          options={there}
          test="join-there"
          onchange={(ref) => setKey(k, { with: ref })}
        />
        {#if draft.on.length > 1}<button
            type="button"
            class="act"
            aria-label="Take this key out"
            onclick={() => (draft.on = draft.on.filter((_, n) => n !== k))}>✕</button
          >{/if}
      </div>
    {:else}
      <p class="doubt">
        No column here shares its values with {draft.list}. Add a key if two columns say the same.
      </p>
    {/each}
    <div class="row">
      <button type="button" class="act" onclick={addKey}
        >{draft.on.length ? '+ another key' : '+ a key'}</button
      >
      <label class="check"
        ><input type="checkbox" bind:checked={draft.loose} /> case and outer spaces do not matter</label
      >
    </div>
    {#if reply?.meets}<Meeting meets={reply.meets} list={draft.list} />{/if}
    {#if draft.on.length}
      <h3 class="caps">Columns to bring</h3>
      <div class="columns" role="group" aria-label="Columns to bring">
        {#each draft.other.columns.filter((c) => !keysThere.has(c.id)) as column (column.id)}
          {@const taken = brought.get(column.id)}
          <div class="row">
            <label class="check"
              ><input
                type="checkbox"
                checked={taken !== undefined}
                onchange={(e) => draft.turn(column.id, e.currentTarget.checked)}
                data-test="bring-{column.id}"
              />
              {column.name}<small>{column.unit}</small></label
            >
            {#if taken}
              <input
                class="field"
                aria-label="Name of {column.name} here"
                value={taken.as ?? column.name}
                oninput={(e) => draft.change(column.id, { as: e.currentTarget.value || undefined })}
              />
              {#if doubled}
                <OneOf
                  label="Which {column.name} where a key stands more than once"
                  value={taken.repeated ?? ''}
                  options={column.type === 'text' ? OF_TEXT : OF_NUMBERS}
                  test="repeated-{column.id}"
                  onchange={(how) =>
                    draft.change(column.id, { repeated: how === '' ? undefined : how })}
                />
              {/if}
            {/if}
          </div>
        {/each}
      </div>
    {/if}
    <div aria-live="polite">
      {#if reply?.fault && draft.bring.length}<p class="fault" data-test="join-fault">
          {reply.fault.message}
          {reply.fault.remedy}
        </p>{/if}
    </div>
    {#if reply?.shown && draft.bring.length}
      <FirstRecords heads={reply.shown.heads} rows={reply.shown.rows} own={draft.on.length} />
    {/if}
  {/if}
  {#if uses.length}<UsedBy {uses} />{/if}
  <div class="acts">
    {#if at !== null}<button
        type="button"
        class="plain-button"
        onclick={() => void takeOut()}
        data-test="join-out">{uses.length ? 'Take them out all the same' : 'Take them out'}</button
      >{/if}
    <button type="submit" class="main-button" disabled={!draft.canKeep} data-test="join-keep"
      >Keep</button
    >
  </div>
</form>

<style>
  .fields {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
  .fields > label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
  }
  .row {
    display: flex;
    gap: 6px;
    align-items: center;
    min-width: 0;
  }
  .row :global(.one-of),
  .row .field {
    min-width: 0;
    flex: 1;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
    flex: 1;
    min-width: 0;
  }
  .columns {
    display: grid;
    gap: 3px;
    max-height: 220px;
    overflow: auto;
  }
  small {
    color: var(--ink-soft);
  }
  .doubt {
    color: var(--plum);
  }
  .fault {
    margin: 0;
    padding: 7px 10px;
    border-radius: 6px;
    background: var(--plum-wash);
    color: var(--plum);
  }
  .acts {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
  }
</style>
