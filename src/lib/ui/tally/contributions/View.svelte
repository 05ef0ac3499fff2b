<script lang="ts">
  import { showCount } from '../../../core/table/format';
  import Steps from '../../chart/Steps.svelte';
  import { columnAt, drawnAt, labelOf, numberAt } from '../source';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 24;
  const table = $derived(source.table('main'));
  const whole = $derived(table?.whole);
  const parts = $derived((table?.rows ?? []).filter((row) => row.kind !== 'total'));
  /** Parts there are, of which very many are not all at hand. */
  const count = $derived(table ? Math.max(parts.length, table.length - 1) : 0);
  const at = $derived({
    before: table ? columnAt(table, 'before') : -1,
    after: table ? columnAt(table, 'after') : -1,
    gave: table ? columnAt(table, 'gave') : -1,
  });
  const side = (column: number): string =>
    (table?.head.columns[column]?.title ?? '').split(', ').at(-1) ?? '';
</script>

{#if table && whole && count && count <= MOST}
  <Steps
    {width}
    description="From {whole.cells[at.before]} to {whole.cells[at.after]} in {parts.length} steps"
    start={{ name: side(at.before), value: numberAt(whole, at.before) }}
    end={{ name: side(at.after), value: numberAt(whole, at.after) }}
    steps={parts.slice(0, small ? 6 : MOST).map((row) => ({
      name: labelOf(table, row),
      drawn: drawnAt(table, row, at.gave),
    }))}
    unit={table.head.columns[at.gave]?.unit}
    {chosen}
    {small}
    {onopen}
  />
{:else if count > MOST && !small}
  <p class="soft">
    {showCount(count)} groups are too many to draw: show the first few and all others in one.
  </p>
{/if}

<style>
  .soft {
    color: var(--ink-soft);
    margin: 2px 0;
  }
</style>
