<script lang="ts">
  import { ScopeName } from '../../core/tally/answer/result';
  import { SCOPE_WORDS } from '../../core/tally/sentence/words';
  import type { TableHead } from '../../engine/replies/tables';
  import type { TrayItem } from '../../core/bench/document';
  import type { BenchState } from '../bench/bench.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import PanelForm from './PanelForm.svelte';
  import { Shelving } from './shelving.svelte';
  import ShelvingFields from './ShelvingFields.svelte';

  interface Props {
    bench: BenchState;
    /** The tally whose rows become records. */
    item: TrayItem;
  }
  let { bench, item }: Props = $props();
  // The panel is made anew for each tally.
  // svelte-ignore state_referenced_locally
  const shelving = new Shelving(bench, bench.nameOf(item).replace(/\.$/, '').slice(0, 200));
  let tables = $state.raw<readonly TableHead[]>([]);
  let refused = $state('');
  let chosen = $state('');
  // svelte-ignore state_referenced_locally
  let scope = $state(item.tally.scope);

  $effect(() => {
    void bench.runs;
    void bench
      .ask('answer', { tally: item.id }, 'rows to shelve')
      .then((answered) => {
        tables = answered.tables;
        refused = answered.refused;
      })
      .catch(() => undefined);
  });
  const table = $derived(tables.find((t) => t.name === chosen) ?? tables[0]);
  const titles = $derived(table?.columns.map((c) => c.title).filter(Boolean) ?? []);

  async function keep(): Promise<void> {
    if (table)
      await shelving.keep({
        of: 'tally',
        tally: { ...$state.snapshot(item.tally), scope },
        table: table.name,
      });
  }
</script>

<PanelForm
  test="rows-panel"
  onsubmit={() => {
    void keep();
  }}
>
  <p>
    One record for each group of “{bench.nameOf(item).replace(/\.$/, '')}”, totals left out. Labels
    stay what they stand for: a month is a date, a blank is blank.
  </p>
  {#if tables.length > 1}
    <label
      >Table
      <OneOf
        value={table?.name ?? ''}
        options={tables.map((t) => [t.name, t.caption || t.name] as const)}
        onchange={(name) => (chosen = name)}
        test="rows-table"
      /></label
    >
  {/if}
  <label
    >Reckoned from
    <OneOf
      value={scope}
      options={ScopeName.options.map((value) => [value, SCOPE_WORDS[value]] as const)}
      onchange={(value) => (scope = value)}
      test="rows-scope"
    /></label
  >
  {#if table}<p data-test="rows-says">Columns: {titles.join(', ')}.</p>{/if}
  {#if refused}<p class="fault">{refused}</p>{/if}
  {#if table}<ShelvingFields {shelving} />{/if}
</PanelForm>
