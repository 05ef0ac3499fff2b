<script lang="ts">
  import { bringScope, dropScope, keepScope, putAllBack, setLead } from '../../core/bench/edits';
  import type { Condition } from '../../core/selection/condition';
  import { showCount, counted, showShare } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import type Choices from '../components/Choices.svelte';
  import { choices } from '../components/choices';
  import Pop from '../components/Pop.svelte';
  import Corrections from './Corrections.svelte';
  import { NEW_STEP } from '../bench/step.svelte';
  import { UNREACHED } from '../components/unreached';
  import { rungEditor } from './rungEditor';
  import SetAsideList from './SetAsideList.svelte';
  import RungCard from './RungCard.svelte';

  interface Props {
    bench: BenchState;
  }
  let { bench }: Props = $props();
  const step = $derived(bench.step.now);
  const overview = $derived(bench.counts);
  const total = $derived(overview?.all.records ?? 0);
  const share = (n: number): number => (total ? n / total : 0);
  const leads = $derived([
    { value: '', label: 'No total' },
    ...bench.columns
      .filter((c) => c.type === 'number')
      .map((c) => ({ value: c.id, label: c.name, note: c.unit })),
  ]);
  let scopeName = $state('');
  let List = $state.raw<typeof Choices>();
  async function fetchList(): Promise<void> {
    List ??= (await choices()).default;
  }

  function keep(close: () => void): void {
    const name = scopeName.trim();
    if (!name) return;
    bench.change(`Keep the scope “${name}”`, (doc) => keepScope(doc, name));
    scopeName = '';
    close();
  }
</script>

{#snippet editor(condition: Condition, changing: boolean, place: number)}
  {#await rungEditor() then { default: RungEditor }}
    <RungEditor {bench} {condition} {changing} {place} />
  {:catch}
    <li class="card">{UNREACHED}</li>
  {/await}
{/snippet}

<section class="ladder" aria-labelledby="what-counts">
  <header>
    <h2 class="caps" id="what-counts">What counts</h2>
    <Pop title="The total that every step shows" width={220} needs={fetchList}>
      {#snippet label()}<span class="lead">{bench.column(bench.doc.lead)?.name ?? 'Total of…'}</span
        ><span class="turn" aria-hidden="true">▾</span>{/snippet}
      {#snippet children(close)}
        {#if List}
          <List
            name="columns to total"
            choices={leads}
            chosen={bench.doc.lead ?? ''}
            onchoose={(id) => {
              bench.change('Change the leading total', (doc) => setLead(doc, id || null));
              close();
            }}
          />
        {:else}
          <p>{UNREACHED}</p>
        {/if}
      {/snippet}
    </Pop>
  </header>

  {#if overview}
    <ol>
      <li class="card">
        <div class="line"><strong>All records</strong><b>{showCount(overview.all.records)}</b></div>
        <div class="line soft"><span>the whole list</span><span>{overview.all.lead}</span></div>
        {#if overview.corrections.length}
          <Pop title="Cells corrected by hand" width={320}>
            {#snippet label()}<span data-test="corrections"
                >{counted(overview.corrections.length, 'cell')} corrected</span
              ><span class="turn" aria-hidden="true">▾</span>{/snippet}
            {#snippet children(close)}
              <Corrections {bench} corrections={overview.corrections} {close} />
            {/snippet}
          </Pop>
        {/if}
        <i class="share" style:width="100%"></i>
      </li>
      {#each overview.rungs.filter((rung) => rung.id !== NEW_STEP) as rung, k (rung.id)}
        {#if step?.id === rung.id}{@render editor(step.condition, true, k)}{:else}<RungCard
            {bench}
            {rung}
            share={share(rung.records)}
            first={k === 0}
            last={k === bench.doc.ladder.rungs.length - 1}
            onedit={() => bench.step.edit(rung.id)}
          />{/if}
      {/each}
      {#if step && step.id === null}
        {@render editor(step.condition, false, bench.doc.ladder.rungs.length)}
      {/if}
      {#if overview.setAside.records > 0 || bench.doc.ladder.setAside.records.length > 0 || bench.doc.ladder.setAside.values.length > 0}
        <li class="card aside">
          <div class="line">
            <strong>✕ Set aside by hand</strong><b>{showCount(overview.counted.records)}</b>
          </div>
          <div class="line soft">
            <span>−{counted(overview.setAside.records, 'record')}</span>
            <span>{overview.setAside.lead}</span>
          </div>
          <Pop title="What was set aside by hand" width={320}>
            {#snippet label()}<span data-test="aside">{overview.aside.join('; ')}</span><span
                class="turn"
                aria-hidden="true">▾</span
              >{/snippet}
            {#snippet children(close)}<SetAsideList {bench} {close} />{/snippet}
          </Pop>
          <button
            type="button"
            class="act small"
            onclick={() => bench.change('Put all records back', putAllBack)}>Put all back</button
          >
          <i class="share" style:width="{share(overview.counted.records) * 100}%"></i>
        </li>
      {/if}
      <li class="card counted" data-test="counted">
        <div class="line"><strong>Counted</strong><b>{showCount(overview.counted.records)}</b></div>
        <div class="line soft">
          <span>{showShare(total ? overview.counted.records / total : 0)} of records</span>
          <span>{overview.counted.lead}</span>
        </div>
        <i class="share" style:width="{share(overview.counted.records) * 100}%"></i>
      </li>
    </ol>
  {/if}

  <div class="acts">
    <button type="button" class="act" onclick={() => bench.step.begin()} data-test="narrow"
      >+ Narrow by…</button
    >
    <Pop title="Keep or bring back a set of conditions" width={260}>
      {#snippet label()}Scopes <span aria-hidden="true">▾</span>{/snippet}
      {#snippet children(close)}
        {#if bench.doc.scopes.length}
          <ul class="scopes">
            {#each bench.doc.scopes as scope (scope.name)}
              <li>
                <button
                  type="button"
                  class="act"
                  onclick={() => {
                    bench.change(`Bring back the scope “${scope.name}”`, (doc) =>
                      bringScope(doc, scope.name),
                    );
                    close();
                  }}>{scope.name}</button
                >
                <button
                  type="button"
                  class="act small"
                  aria-label="Forget the scope {scope.name}"
                  onclick={() =>
                    bench.change(`Forget the scope “${scope.name}”`, (doc) =>
                      dropScope(doc, scope.name),
                    )}>Forget</button
                >
              </li>
            {/each}
          </ul>
        {/if}
        <form
          class="keep"
          onsubmit={(event) => {
            event.preventDefault();
            keep(close);
          }}
        >
          <label
            >Keep these conditions as <input
              class="field"
              bind:value={scopeName}
              placeholder="summer, no strikes"
              maxlength="120"
            /></label
          >
          <button class="plain-button" type="submit" disabled={!scopeName.trim()}>Keep</button>
        </form>
      {/snippet}
    </Pop>
  </div>
</section>

<style>
  .ladder {
    padding: 14px;
  }
  h2 {
    white-space: nowrap;
  }
  .lead {
    display: inline-block;
    max-width: 130px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    vertical-align: bottom;
  }
  .turn {
    margin-left: 4px;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    margin-bottom: 10px;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 6px;
  }
  .ladder :global(.card) {
    position: relative;
    overflow: hidden;
    background: var(--raised);
    border: 1px solid var(--rule);
    border-radius: 6px;
    padding: 6px 9px 8px;
  }
  .ladder :global(.line) {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: baseline;
  }
  .ladder :global(.line strong) {
    font-weight: 600;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .ladder :global(.soft) {
    color: var(--ink-soft);
    font-size: 12px;
  }
  .ladder :global(.share) {
    position: absolute;
    left: 0;
    bottom: 0;
    height: 3px;
    background: var(--tide);
  }
  .aside {
    background: var(--brass-wash) !important;
    border-color: light-dark(#e5c99c, #5c4526) !important;
  }
  .aside .share {
    background: var(--brass) !important;
  }
  .counted {
    background: var(--bar) !important;
    color: var(--on-bar);
    border-color: var(--rule-strong) !important;
  }
  .counted .soft {
    color: var(--on-bar-soft);
  }
  .counted .share {
    background: var(--gold) !important;
  }
  .acts {
    display: flex;
    gap: 12px;
    margin-top: 8px;
  }
  .small {
    font-size: 12px;
  }
  .scopes {
    list-style: none;
    padding: 0;
    margin: 0 0 8px;
    border-bottom: 1px solid var(--rule);
  }
  .scopes li {
    display: flex;
    justify-content: space-between;
    padding: 2px 0;
  }
  .keep {
    display: grid;
    gap: 6px;
  }
  .keep label {
    display: grid;
    gap: 3px;
  }
</style>
