<script lang="ts">
  import { setGroups, setMeasures, setSort } from '../../core/bench/edits';
  import type { GroupKey } from '../../core/arrange/groupKey';
  import type { SortKey } from '../../core/arrange/sortKey';
  import type { Measure } from '../../core/measure/measure';
  import { groupWords, measurePhrase, sortWords } from '../../core/tally/words';
  import { measureWords } from '../../core/measure/measure';
  import type { BenchState } from '../bench/bench.svelte';
  import Pop from '../shell/Pop.svelte';
  import GroupMenu from './GroupMenu.svelte';
  import MeasureMenu from './MeasureMenu.svelte';
  import SortMenu from './SortMenu.svelte';

  let { bench }: { bench: BenchState } = $props();
  const spec = $derived(bench.tally.spec);
  const names = $derived(new Map(bench.columns.map((c) => [c.id, c.name])));

  const at = <T,>(items: readonly T[], k: number, item: T | null): T[] =>
    item === null
      ? items.filter((_, i) => i !== k)
      : k < items.length
        ? items.map((old, i) => (i === k ? item : old))
        : [...items, item];

  const groupBy = (k: number, key: GroupKey | null): void =>
    bench.change(key ? `Group by ${groupWords(key, names)}` : 'Take a group out', (doc) =>
      setGroups(doc, at(spec.groups, k, key)),
    );
  const sortBy = (k: number, key: SortKey | null): void =>
    bench.change(key ? `Sort by ${sortWords(key, names)}` : 'Take a sort out', (doc) =>
      setSort(doc, at(spec.sort, k, key)),
    );
  const measureBy = (k: number, m: Measure | null): void =>
    bench.change(m ? `Reckon ${measurePhrase(m, names)}` : 'Take a measure out', (doc) =>
      setMeasures(doc, at(spec.measures, k, m)),
    );

  const loose = $derived(bench.overview?.loose ?? []);
</script>

<div class="sentence serif" data-test="sentence">
  <p>
    {bench.facts.listName}
    {#if spec.groups.length === 0}not grouped:{:else}grouped by{/if}
    {#each spec.groups as key, k (k)}
      <Pop class="word" width={300} name="Group {k + 1}: {groupWords(key, names)}">
        {#snippet label()}{groupWords(key, names)}{/snippet}
        {#snippet children(close)}<GroupMenu
            {bench}
            group={key}
            level={k}
            onchange={(next) => groupBy(k, next)}
            {close}
          />{/snippet}
      </Pop>{k < spec.groups.length - 1 ? ', then ' : ''}
    {/each}
    <Pop
      class="word empty"
      width={300}
      name="{spec.groups.length ? 'then…' : 'group by…'} add a group"
    >
      {#snippet label()}{spec.groups.length ? 'then…' : 'group by…'}{/snippet}
      {#snippet children(close)}<GroupMenu
          {bench}
          group={null}
          level={spec.groups.length}
          onchange={(next) => groupBy(spec.groups.length, next)}
          {close}
        />{/snippet}
    </Pop>, in
    {#if spec.sort.length === 0}<span>the order read</span>{:else}<span>order of</span>{/if}
    {#each spec.sort as key, k (k)}
      <Pop class="word" width={300} name="Order {k + 1}: {sortWords(key, names)}">
        {#snippet label()}{sortWords(key, names)}{/snippet}
        {#snippet children(close)}<SortMenu
            {bench}
            sort={key}
            onchange={(next) => sortBy(k, next)}
            {close}
          />{/snippet}
      </Pop>{k < spec.sort.length - 1 ? ', then ' : ''}
    {/each}
    <Pop
      class="word empty"
      width={300}
      name="{spec.sort.length ? 'then…' : 'sort by…'} add an order of records"
    >
      {#snippet label()}{spec.sort.length ? 'then…' : 'sort by…'}{/snippet}
      {#snippet children(close)}<SortMenu
          {bench}
          sort={null}
          onchange={(next) => sortBy(spec.sort.length, next)}
          {close}
        />{/snippet}
    </Pop>. {spec.groups.length ? 'Under each group:' : 'At the foot:'}
    {#each spec.measures as measure, k (k)}
      <Pop class="word" width={320} name="Measure {k + 1}: {measurePhrase(measure, names)}">
        {#snippet label()}{measureWords(measure)}{#if measure.column}&nbsp;of {names.get(
              measure.column,
            ) ?? measure.column}{/if}{/snippet}
        {#snippet children(close)}<MeasureMenu
            {bench}
            {measure}
            onchange={(next) => measureBy(k, next)}
            {close}
          />{/snippet}
      </Pop>{k < spec.measures.length - 2 ? ', ' : k === spec.measures.length - 2 ? ' and ' : ' '}
    {/each}
    <Pop class="word empty" width={320} name="and… add a measure">
      {#snippet label()}and…{/snippet}
      {#snippet children(close)}<MeasureMenu
          {bench}
          measure={null}
          onchange={(next) => measureBy(spec.measures.length, next)}
          {close}
        />{/snippet}
    </Pop>
  </p>
  {#each loose as { key, merges } (key)}
    <p class="offer">
      {merges === 1 ? 'One label' : `${merges} labels`} of {names.get(
        spec.groups[key]?.column ?? '',
      )} differ{merges === 1 ? 's' : ''} only in case or outer spaces.
      <button
        type="button"
        class="act"
        onclick={() => groupBy(key, { ...spec.groups[key], loose: true })}>Take them as one</button
      >
    </p>
  {/each}
  {#if spec.groups.length}
    <span class="visually-hidden">Totals {spec.totals} each group</span>
  {/if}
</div>

<style>
  .sentence {
    padding: 12px 20px 8px;
    border-bottom: 1px solid var(--rule);
    font-size: 19px;
    line-height: 1.5;
    max-height: 168px;
    overflow: auto;
  }
  p {
    margin: 0;
  }
  .sentence :global(.word) {
    font: inherit;
    font-weight: 500;
    color: var(--tide);
    background: none;
    border: 0;
    border-bottom: 2px solid var(--tide);
    padding: 0 1px;
    line-height: 1.15;
    cursor: pointer;
    text-align: left;
    overflow-wrap: anywhere;
    max-width: 100%;
  }
  .sentence :global(.word.empty) {
    color: var(--ink-faint);
    border-bottom: 1px dashed var(--ink-faint);
    font-weight: 400;
  }
  .sentence :global(.word:hover) {
    background: var(--tide-wash);
  }
  .offer {
    font: 14px var(--font-sans);
    color: var(--plum);
    padding-top: 4px;
  }
</style>
