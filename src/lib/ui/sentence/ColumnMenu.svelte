<script lang="ts">
  import { type ColumnType } from '../../core/table/column';
  import type { Counts } from '../../engine/protocol';
  import Choices from '../components/Choices.svelte';
  import { columnNote } from './columnNote';
  import TakeOut from './TakeOut.svelte';

  interface Props {
    columns: Counts['columns'];
    column: string | null;
    types: readonly ColumnType[];
    needed?: boolean;
    onchange: (column: string | null) => void;
    close: () => void;
  }
  let { columns, column, types, needed = false, onchange, close }: Props = $props();
  const choices = $derived(
    columns
      .filter((c) => types.some((t) => t === c.type) || c.id === column)
      .map((c) => ({ value: c.id, label: c.name, note: columnNote(c) })),
  );

  function choose(value: string | null): void {
    close();
    onchange(value);
  }
</script>

{#if choices.length}
  <Choices name="columns" {choices} chosen={column} onchoose={choose} search />
{:else}
  <p>This list has no column that could stand here.</p>
{/if}
{#if column !== null && !needed}<TakeOut what="column" onclick={() => choose(null)} />{/if}
