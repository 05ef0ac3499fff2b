<script lang="ts">
  import type { ReshapeSpec } from '../../core/prepare/specs';
  import { counted } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import { usedAs } from '../sentence/columnNote';
  import RecordsTaken from './RecordsTaken.svelte';
  import PanelForm from './PanelForm.svelte';
  import { Shelving } from './shelving.svelte';
  import ShelvingFields from './ShelvingFields.svelte';

  let { bench }: { bench: BenchState } = $props();
  // The panel is made anew for each bench.
  // svelte-ignore state_referenced_locally
  const shelving = new Shelving(bench, '');
  let records = $state<'all' | 'counted'>('all');
  let name = $state('');
  let value = $state('');
  let repeated = $state<Repeated>('');

  type Repeated = NonNullable<Extract<ReshapeSpec, { do: 'unstack' }>['repeated']> | '';
  const REPEATED = [
    ['', 'refuse them'],
    ['first', 'take the first'],
    ['last', 'take the last'],
    ['values', 'count them'],
  ] as const;
  const OF_NUMBERS = [
    ...REPEATED,
    ['sum', 'add them up'],
    ['mean', 'take their mean'],
    ['min', 'take the lowest'],
    ['max', 'take the highest'],
  ] as const;

  const texts = $derived(bench.columns.filter((c) => c.type === 'text'));
  const column = $derived(bench.columns.find((c) => c.id === value));
  const named = $derived(texts.find((c) => c.id === name));
  const rest = $derived(bench.columns.filter((c) => c.id !== name && c.id !== value));
  const choices = $derived(column && usedAs(column) === 'number' ? OF_NUMBERS : REPEATED);
  let labels = $state.raw<readonly string[]>([]);
  let others = $state(0);

  /** The first of the columns there would be. */
  const SHOWN = 6;
  $effect(() => {
    const asked = name;
    labels = [];
    if (!asked) return;
    void bench
      .ask('values', { column: asked, search: '', limit: 60 }, 'unstack')
      .then(({ items }) => {
        if (asked !== name) return;
        labels = items.slice(0, SHOWN).map(({ text }) => text);
        others = items.length - labels.length;
      })
      .catch(() => undefined);
  });
  $effect(() => {
    if (named && column && shelving.name === '')
      shelving.name = `${column.name} for each ${named.name}`.slice(0, 200);
  });

  const keep = (): Promise<void> =>
    shelving.keep({
      of: 'records',
      records,
      reshape: [{ do: 'unstack', name, value, ...(repeated && { repeated }) }],
    });
</script>

<PanelForm
  test="unstack-panel"
  onsubmit={() => {
    if (named && column) void keep();
  }}
>
  <p>A column for each value of one column, and one record for all that share the rest.</p>
  {#if texts.length === 0}
    <p class="fault">
      This list has no column of text whose values could become columns. Make one first, or stack
      its columns.
    </p>
  {/if}
  <RecordsTaken {bench} bind:records />
  <label
    >A column for each
    <OneOf
      value={name}
      options={[['', 'Choose a column of text…'], ...texts.map((c) => [c.id, c.name] as const)]}
      onchange={(id) => (name = id)}
      test="unstack-name"
    /></label
  >
  <label
    >with its value from
    <OneOf
      {value}
      options={[
        ['', 'Choose a column…'],
        ...bench.columns.filter((c) => c.id !== name).map((c) => [c.id, c.name] as const),
      ]}
      onchange={(id) => (value = id)}
      test="unstack-value"
    /></label
  >
  <label
    >Where several fall together
    <OneOf
      value={repeated}
      options={choices}
      onchange={(chosen) => (repeated = chosen)}
      test="unstack-repeated"
    /></label
  >
  <div aria-live="polite" data-test="unstack-says">
    {#if named && labels.length}
      <p>
        Columns for {labels.join(', ')}{others > 0 ? ` and ${others} more` : ''}; beside them
        {rest.length > 3
          ? counted(rest.length, 'other column')
          : rest.map((c) => c.name).join(', ') || 'nothing else'}.
      </p>
    {/if}
  </div>
  <ShelvingFields {shelving} />
</PanelForm>
