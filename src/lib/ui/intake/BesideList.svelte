<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import Choices from '../components/Choices.svelte';
  import Pop from '../components/Pop.svelte';
  import Segments from '../components/Segments.svelte';
  import Switch from '../components/Switch.svelte';
  import type { IntakeState } from './intake.svelte';

  /** A file beside the list that it refreshes or is added to: what would be lost, what is there already. */
  let { intake }: { intake: IntakeState } = $props();

  /** So many columns are offered to tell records by. */
  const MOST_KEYS = 3;

  const before = $derived(intake.refreshed?.records ?? 0);
  const fewer = $derived(before - intake.records);
  const compared = $derived(intake.compared);
  const names = $derived(new Map(intake.recipe?.columns.map((c) => [c.id, c.name])));
  /** Keys by their columns, as one text. */
  const written = (key: readonly string[]): string => JSON.stringify(key);
  /** Those that tell a record, and the one that was put together by hand. */
  const keys = $derived.by(() => {
    const proposed = compared?.keys.slice(0, MOST_KEYS) ?? [];
    const all = [[], ...proposed, ...(compared ? [compared.key] : [])];
    const byText = new Map(all.map((key) => [written(key), key]));
    return [...byText.values()];
  });
  const keyName = (key: readonly string[]): string =>
    key.length ? key.map((id) => names.get(id) ?? id).join(' and ') : 'All columns';
  /** Columns that the key could have besides its own. */
  const more = $derived(
    (intake.recipe?.columns ?? [])
      .filter(({ id }) => !compared?.key.includes(id))
      .map(({ id, name }) => ({ value: id, label: name })),
  );
  const added = $derived(intake.records - intake.leftAway);
  const losses = $derived(
    [
      fewer > 0
        ? `${counted(fewer, 'record')} fewer than the ${showCount(before)} of the list.`
        : '',
      compared?.lost ? `${compared.lost}.` : '',
    ].filter(Boolean),
  );
</script>

<section class="beside" aria-label="Beside the list" data-test="beside">
  <Segments
    label="What becomes of the list"
    value={intake.adds ? 'add' : 'replace'}
    options={[
      { value: 'replace', label: 'In place of the list' },
      { value: 'add', label: 'Added to the list' },
    ]}
    onchange={(value) => intake.setAdds(value === 'add')}
    test="becomes"
  />
  {#if !intake.adds}
    <p>
      {#if losses.length}
        <b class="doubt" data-test="fewer">{losses.join(' ')}</b>
        The file takes the place of the whole list.
      {:else}
        The file takes the place of the whole list of {counted(before, 'record')}.
      {/if}
    </p>
  {:else if !compared}
    <p>Comparing with the {counted(before, 'record')} of the list…</p>
  {:else}
    <div class="added" data-test="overlap">
      <p>
        <b>{counted(added, 'record')} will be added to the {showCount(before)} of the list</b>,
        which stay as they are.
        {#if compared.already}
          {showCount(compared.already)} of the file
          {compared.already === 1 ? 'is' : 'are'} in the list already{#if compared.differing},
            {showCount(compared.differing)} of them with other values than there{/if}.
        {:else}
          None of the file is in the list yet.
        {/if}
      </p>
      {#if compared.already}
        <div class="line">
          <Switch
            on={intake.leaveOut}
            name="Leave out what is in the list already"
            onchange={(on) => (intake.leaveOut = on)}
          />
          <span>Leave out what is in the list already</span>
        </div>
      {/if}
      <div class="line">
        <span>A record is the same where {compared.key.length > 1 ? 'these are' : 'this is'}:</span>
        <Segments
          label="What a record is told by"
          value={written(compared.key)}
          options={keys.map((key) => ({ value: written(key), label: keyName(key) }))}
          onchange={(value) => {
            const key = keys.find((k) => written(k) === value);
            if (key) intake.compareBy(key);
          }}
          test="told-by"
        />
        {#if more.length}
          <Pop title="Another column of the key" class="act">
            {#snippet label()}{compared.key.length ? 'and another…' : 'by a column…'}{/snippet}
            {#snippet children(close)}
              <Choices
                name="columns of the key"
                choices={more}
                onchoose={(id) => {
                  close();
                  intake.compareBy([...compared.key, id]);
                }}
              />
            {/snippet}
          </Pop>
        {/if}
      </div>
      {#if compared.already}
        <details>
          <summary>The first of them</summary>
          <ul>
            {#each compared.first as { record, there, words } (record)}
              <li>
                record {showCount(record)} of the file, {showCount(there)} of the list: {words}
              </li>
            {/each}
          </ul>
        </details>
      {/if}
    </div>
  {/if}
</section>

<style>
  .beside {
    display: flex;
    gap: 14px;
    align-items: flex-start;
    padding: 8px 20px;
    border-bottom: 1px solid var(--rule);
    background: var(--panel);
    max-height: 34%;
    overflow: auto;
    flex: none;
  }
  p {
    margin: 4px 0;
  }
  .added {
    display: grid;
    gap: 4px;
  }
  .line {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .doubt {
    color: var(--plum);
  }
  ul {
    margin: 2px 0 0;
    padding-left: 18px;
    color: var(--ink-soft);
    overflow-wrap: anywhere;
  }
</style>
