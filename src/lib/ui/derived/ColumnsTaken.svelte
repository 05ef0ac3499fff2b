<script lang="ts">
  import { wildcardTest } from '../../core/pattern/wildcard';
  import { patternPlaces } from '../../core/selection/textTest';
  import OneOf from '../fields/OneOf.svelte';

  /** Columns picked by run, by a pattern of their names, or one by one. */
  interface Props {
    columns: readonly { readonly id: string; readonly name: string; readonly unit: string }[];
    taken: readonly string[];
    /** Where a run begins unless it is said otherwise; the first column unless given. */
    first?: string | undefined;
    onchange: (ids: string[]) => void;
  }
  let { columns, taken, first, onchange }: Props = $props();

  let pattern = $state('');
  let from = $state('');
  let to = $state('');
  const ids = $derived(new Set(taken));
  const start = $derived(from || (first ?? columns[0]?.id ?? ''));
  const end = $derived(to || (columns.at(-1)?.id ?? ''));
  const options = $derived(columns.map((c) => [c.id, c.name] as const));
  /** Columns keep the order of the list, however they were picked. */
  const take = (now: ReadonlySet<string>): void =>
    onchange(columns.filter((c) => now.has(c.id)).map((c) => c.id));

  function turn(id: string, on: boolean): void {
    const now = new Set(ids);
    if (on) now.add(id);
    else now.delete(id);
    take(now);
  }
  function takeRun(): void {
    const at = (id: string): number => columns.findIndex((c) => c.id === id);
    const [a, b] = [at(start), at(end)];
    const run = columns.slice(Math.min(a, b), Math.max(a, b) + 1);
    take(new Set([...ids, ...run.map((c) => c.id)]));
  }
  function takePattern(): void {
    const fits = wildcardTest(patternPlaces(pattern.trim().toLowerCase()));
    const found = columns.filter((c) => fits(c.name.toLowerCase()));
    take(new Set(found.map((c) => c.id)));
  }
</script>

<div class="fields">
  <div class="row">
    <OneOf label="First column of a run" value={start} {options} onchange={(id) => (from = id)} />
    to
    <OneOf label="Last column of a run" value={end} {options} onchange={(id) => (to = id)} />
    <button type="button" class="act" onclick={takeRun} data-test="take-run">Take the run</button>
  </div>
  <div class="row">
    <input
      class="field"
      bind:value={pattern}
      placeholder="*kiosk*"
      aria-label="Columns with a name like this; * stands for anything"
      onkeydown={(e) => {
        if (e.key !== 'Enter') return;
        e.preventDefault();
        takePattern();
      }}
      data-test="across-pattern"
    />
    <button type="button" class="act" disabled={!pattern.trim()} onclick={takePattern}
      >Take those named so</button
    >
  </div>
  <div class="head">
    <span class="caps">{taken.length} of {columns.length} columns</span>
    {#if taken.length}<button type="button" class="act" onclick={() => take(new Set())}
        >Let all go</button
      >{/if}
  </div>
  <div class="columns" role="group" aria-label="Columns taken together">
    {#each columns as { id, name, unit } (id)}
      <label class="check"
        ><input
          type="checkbox"
          checked={ids.has(id)}
          onchange={(e) => turn(id, e.currentTarget.checked)}
        />
        {name}<small>{unit}</small></label
      >
    {/each}
  </div>
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  .row {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .row :global(.one-of),
  .row input {
    min-width: 0;
    flex: 1;
  }
  .row button {
    white-space: nowrap;
  }
  .head {
    display: flex;
    justify-content: space-between;
  }
  .columns {
    max-height: 170px;
    overflow: auto;
    display: grid;
  }
  .columns label {
    display: flex;
    gap: 6px;
    padding: 2px 4px;
  }
  small {
    margin-left: auto;
    color: var(--ink-soft);
  }
</style>
