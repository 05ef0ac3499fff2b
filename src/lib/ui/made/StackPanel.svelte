<script lang="ts">
  import { goto } from '$app/navigation';
  import { z } from 'zod';
  import { madePlace } from '../../core/bench/madeEdits';
  import { stackedBench } from '../../core/bench/stackedBench';
  import { counted } from '../../core/table/format';
  import { TYPE_PHRASES } from '../../core/table/column';
  import type { BenchState } from '../bench/bench.svelte';
  import { usedAs } from '../sentence/columnNote';
  import ColumnsTaken from './ColumnsTaken.svelte';

  let { bench }: { bench: BenchState } = $props();
  let taken = $state.raw<string[]>([]);
  let name = $state('Name');
  let value = $state('Value');
  let dropBlanks = $state(false);
  let fault = $state('');
  let busy = $state(false);

  /** Made columns come after stacking: only the list's own can be stacked. */
  const columns = $derived(
    bench.columns
      .filter((c) => madePlace(bench.doc, c.id) === null)
      .map((c) => ({ ...c, type: usedAs(c) })),
  );
  /** What is stacked is mostly what there is most of: the kiosks, and not the day. */
  const first = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const { type } of columns) counts.set(type, (counts.get(type) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
    return columns.find((c) => c.type === most)?.id;
  });
  const chosen = $derived(columns.filter((c) => taken.includes(c.id)));
  const rest = $derived(columns.filter((c) => !taken.includes(c.id)));
  const odd = $derived(chosen.find((c) => c.type !== chosen[0]?.type));
  const doubled = $derived.by(() => {
    const [a, b] = [name.trim(), value.trim()];
    const kept = new Set(rest.map((c) => c.name.toLowerCase()));
    if (a.toLowerCase() === b.toLowerCase()) return a;
    return [a, b].find((word) => kept.has(word.toLowerCase()));
  });
  const wrong = $derived(
    odd && chosen[0]
      ? `“${chosen[0].name}” is ${TYPE_PHRASES[chosen[0].type]}, “${odd.name}” ${TYPE_PHRASES[odd.type]}: they cannot stand in one column.`
      : doubled !== undefined
        ? `There would be two columns “${doubled}”: give one another name.`
        : '',
  );
  const records = $derived((bench.counts?.all.records ?? 0) * chosen.length);
  const ready = $derived(chosen.length > 1 && wrong === '' && name.trim() && value.trim() && !busy);

  const Made = z.object({ id: z.int() });

  async function keep(): Promise<void> {
    if (!ready) return;
    busy = true;
    const stack = {
      do: 'stack' as const,
      columns: taken,
      name: name.trim(),
      value: value.trim(),
      dropBlanks,
    };
    const doc = stackedBench($state.snapshot(bench.doc), stack, chosen[0]?.type === 'number');
    await bench.saver.flush();
    const response = await fetch(`/api/lists/${bench.facts.listId}/benches`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: `${stack.value} by ${stack.name}`.slice(0, 120), doc }),
    }).catch(() => null);
    busy = false;
    if (response?.ok) await goto(`/benches/${Made.parse(await response.json()).id}`);
    else fault = 'The bench could not be made: the server did not take it. Try again.';
  }
</script>

<form
  class="pad"
  data-test="stack-panel"
  onsubmit={(e) => {
    e.preventDefault();
    void keep();
  }}
>
  <p>
    One record for each record and each column taken, in a bench of its own. It is reckoned from
    this list, and follows it to every new reading. What counts here, and tallies, are not taken
    along.
  </p>
  <ColumnsTaken {columns} {taken} {first} onchange={(ids) => (taken = ids)} />
  <label
    >The column that says which one a value stood in
    <input class="field" bind:value={name} maxlength="200" data-test="stack-name" /></label
  >
  <label
    >The column of the values
    <input class="field" bind:value maxlength="200" data-test="stack-value" /></label
  >
  <label class="check"
    ><input type="checkbox" bind:checked={dropBlanks} /> no records for cells that are blank</label
  >
  <div aria-live="polite" data-test="stack-says">
    {#if wrong && chosen.length > 1}<p class="fault">{wrong}</p>
    {:else if chosen.length > 1}<p>
        {counted(bench.counts?.all.records ?? 0, 'record')} and {counted(chosen.length, 'column')} make
        {dropBlanks ? 'up to ' : ''}<b>{counted(records, 'record')}</b>, each with {rest.length
          ? `its ${rest.length > 3 ? counted(rest.length, 'other column') : rest.map((c) => c.name).join(', ')}`
          : 'nothing else'}.
      </p>{/if}
    {#if fault}<p class="fault">{fault}</p>{/if}
  </div>
  <button type="submit" class="main-button" disabled={!ready} data-test="stack-keep"
    >Open them in a new bench</button
  >
</form>

<style>
  .pad {
    padding: 4px 16px 20px;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
  p {
    margin: 0;
  }
  label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .fault {
    padding: 7px 10px;
    border-radius: 6px;
    background: var(--plum-wash);
    color: var(--plum);
  }
  .main-button {
    justify-self: end;
  }
</style>
