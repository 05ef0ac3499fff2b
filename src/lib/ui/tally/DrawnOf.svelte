<script lang="ts">
  import { showCount } from '../../core/table/format';
  import ChartNote from './ChartNote.svelte';
  import { groupsOf, type SourceTable } from './source';

  /** Says where a chart draws the first of a table's groups only. */
  interface Props {
    table: SourceTable;
    /** How many are drawn. */
    drawn: number;
    /** What they are: groups unless given. */
    what?: string;
  }
  let { table, drawn, what = 'groups' }: Props = $props();
  const cut = $derived(drawn < groupsOf(table).length || table.rows.length < table.length);
</script>

{#if cut}
  <ChartNote words="The first {showCount(drawn)} {what} are drawn; the table has all." />
{/if}
