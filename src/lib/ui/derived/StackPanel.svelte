<script lang="ts">
  import { likeRun } from '../../core/prepare/likeRun';
  import { madePlace } from '../../core/bench/madeEdits';
  import { counted, listed } from '../../core/table/format';
  import { TYPE_PHRASES } from '../../core/table/column';
  import type { BenchState } from '../bench/bench.svelte';
  import { usedAs } from '../sentence/columnNote';
  import ColumnsTaken from './ColumnsTaken.svelte';
  import RecordsTaken from './RecordsTaken.svelte';
  import PanelForm from './PanelForm.svelte';
  import { Shelving } from './shelving.svelte';
  import ShelvingFields from './ShelvingFields.svelte';

  let { bench }: { bench: BenchState } = $props();
  let name = $state('Name');
  let value = $state('Value');
  let dropBlanks = $state(false);
  let records = $state<'all' | 'counted'>('all');
  // The panel is made anew for each bench.
  // svelte-ignore state_referenced_locally
  const shelving = new Shelving(bench, `${bench.facts.listName}, stacked`.slice(0, 200));

  /** Made columns come after stacking: only the list's own can be stacked. */
  const columns = $derived(
    bench.columns
      .filter((c) => madePlace(bench.doc, c.id) === null)
      .map((c) => ({ ...c, type: usedAs(c) })),
  );
  // One thing spread over many columns is most likely what is stacked.
  // svelte-ignore state_referenced_locally
  let taken = $state.raw(likeRun(columns));
  /** What is stacked is mostly what there is most of: the kiosks, and not the day. */
  const first = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const { type } of columns) counts.set(type, (counts.get(type) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
    return columns.find((c) => c.type === most)?.id;
  });
  const chosen = $derived(columns.filter((c) => taken.includes(c.id)));
  const rest = $derived(columns.filter((c) => !taken.includes(c.id)));
  /** Numbers that are not stacked, made ones among them: each record made has them again. */
  const repeated = $derived(
    bench.columns.filter((c) => usedAs(c) === 'number' && !taken.includes(c.id)).map((c) => c.name),
  );
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
  const from = $derived(
    (records === 'all' ? bench.counts?.all.records : bench.counts?.counted.records) ?? 0,
  );
  const ready = $derived(chosen.length > 1 && wrong === '' && name.trim() && value.trim());

  async function keep(): Promise<void> {
    if (!ready) return;
    const stack = {
      do: 'stack',
      columns: taken,
      name: name.trim(),
      value: value.trim(),
      dropBlanks,
    } as const;
    await shelving.keep({ of: 'records', records, reshape: [{ ...stack, columns: [...taken] }] });
  }
</script>

<PanelForm
  test="stack-panel"
  onsubmit={() => {
    void keep();
  }}
>
  <p>One record for each record and each column taken, as a list of its own.</p>
  <RecordsTaken {bench} bind:records />
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
        {counted(from, 'record')} and {counted(chosen.length, 'column')} make
        {dropBlanks ? 'up to ' : ''}<b>{counted(from * chosen.length, 'record')}</b>, each with {rest.length
          ? `its ${rest.length > 3 ? counted(rest.length, 'other column') : rest.map((c) => c.name).join(', ')}`
          : 'nothing else'}.
      </p>
      {#if repeated.length}<p data-test="stack-repeats">
          {listed(repeated.slice(0, 4))}{repeated.length > 4
            ? ` and ${counted(repeated.length - 4, 'more number')}`
            : ''}
          {repeated.length === 1 ? 'stands' : 'stand'} in each of the {chosen.length} records: added up
          there, {repeated.length === 1 ? 'it comes' : 'they come'} to {chosen.length} times as much.
        </p>{/if}{/if}
  </div>
  {#if ready}<ShelvingFields {shelving} />{/if}
</PanelForm>
