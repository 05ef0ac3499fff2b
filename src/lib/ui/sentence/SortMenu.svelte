<script lang="ts">
  import { columnNote } from './columnNote';
  import type { SortKey } from '../../core/arrange/sortKey';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Choices from '../components/Choices.svelte';
  import TakeOut from './TakeOut.svelte';

  interface Props {
    bench: BenchState;
    columns: Counts['columns'];
    sort: SortKey | null;
    onchange: (key: SortKey | null) => void;
    close: () => void;
  }
  let { bench, columns: offered, sort, onchange, close }: Props = $props();
  const columns = $derived(
    offered.map((c) => ({ value: c.id, label: c.name, note: columnNote(c) })),
  );
  let byHand = $state(false);
  let text = $state('');

  function giveOrder(): void {
    byHand = true;
    text = (sort?.hand ?? bench.doc.orders[sort?.column ?? ''] ?? []).join('\n');
  }

  function takeOrder(): void {
    if (!sort) return;
    const hand = text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
    onchange({ ...sort, hand: hand.length ? hand : undefined });
    close();
  }

  function takeOut(): void {
    close();
    onchange(null);
  }
</script>

{#if byHand && sort}
  <label class="hand">
    Values in order, one a line; others follow
    <textarea
      class="field"
      rows="6"
      bind:value={text}
      placeholder="Low&#10;Medium&#10;High"
      data-first></textarea>
  </label>
  <button type="button" class="main-button" onclick={takeOrder}>Use this order</button>
{:else}
  {#if sort}
    <div class="now">
      <label
        ><input
          type="checkbox"
          checked={sort.descending}
          onchange={(e) => onchange({ ...sort, descending: e.currentTarget.checked })}
          data-first
        /> highest first</label
      >
      <label
        ><input
          type="checkbox"
          checked={sort.blanks === 'first'}
          onchange={(e) =>
            onchange({ ...sort, blanks: e.currentTarget.checked ? 'first' : 'last' })}
        /> blanks first</label
      >
      {#if bench.column(sort.column)?.type === 'text'}<button
          type="button"
          class="act"
          onclick={giveOrder}>Give an order by hand…</button
        >{/if}
      <TakeOut what="order" onclick={takeOut} />
    </div>
    <p class="caps">Another column</p>
  {/if}
  <Choices
    name="columns"
    choices={columns}
    chosen={sort?.column ?? null}
    search
    onchoose={(column) => {
      onchange({ column, descending: sort?.descending ?? false, blanks: sort?.blanks ?? 'last' });
      if (!sort) close();
    }}
  />
{/if}

<style>
  .now {
    display: grid;
    gap: 6px;
    justify-items: start;
    padding-bottom: 8px;
    margin-bottom: 8px;
    border-bottom: 1px solid var(--rule);
  }
  .hand {
    display: grid;
    gap: 6px;
    margin-bottom: 8px;
  }
  .caps {
    margin: 0 0 6px;
  }
</style>
