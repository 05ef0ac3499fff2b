<script lang="ts">
  import { showCount } from '../../../core/table/format';
  import Bars from '../../chart/Bars.svelte';
  import type { Row } from '../../../engine/protocol';
  import { columnAt, drawnAt } from '../source';
  import ChartNote from '../ChartNote.svelte';
  import type { ViewProps } from '../view';

  let { source, width, small = false, chosen = null, onopen }: ViewProps = $props();
  const MOST = 8;
  const table = $derived(source.table('main'));
  /** Figures of several units share an axis only as their relative change. */
  const at = $derived(
    table ? Math.max(columnAt(table, 'change'), columnAt(table, 'difference')) : -1,
  );
  const size = (row: Row): number => {
    const figure = row.figures[at];
    return typeof figure === 'number' ? Math.abs(figure) : -1;
  };
  /** Those that moved most; every one of them stands in the table. */
  const rows = $derived(
    at < 0
      ? []
      : (table?.rows ?? []).toSorted((a, b) => size(b) - size(a)).slice(0, small ? 5 : MOST),
  );
  /** What of the table is not drawn, in words. */
  const left = $derived.by(() => {
    if (!table || rows.length >= table.rows.length) return '';
    const among =
      table.rows.length < table.length ? `, of the first ${showCount(table.rows.length)},` : '';
    return `The ${rows.length} that moved most${among} are drawn; the table has all.`;
  });
  /** `Fulmar, sum of Fares taken`: where it stands is said in the table. */
  const nameOf = ({ cells }: Row): string =>
    `${cells[0].split(' › ').at(-1) ?? cells[0]}, ${cells[1]}`;
</script>

{#if table && at >= 0 && rows.length}
  <Bars
    {width}
    description="The figures that moved most"
    rows={rows.map(nameOf)}
    series={[{ name: 'moved', figures: rows.map((r) => drawnAt(table, r, at)) }]}
    share={table.head.columns[at].type === 'share'}
    {chosen}
    {small}
    {onopen}
  />
  {#if left && !small}<ChartNote words={left} />{/if}
{/if}
