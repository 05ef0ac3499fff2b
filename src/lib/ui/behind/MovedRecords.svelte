<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { MovedRecords } from '../../engine/replies/moved';
  import type { Place } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import RecordTable from './RecordTable.svelte';
  import { Stretches } from './stretches.svelte';

  /** The records of both readings behind a figure that moved, side by side. */
  let { bench, place }: { bench: BenchState; place: Place } = $props();
  const STEP = 50;
  const stretches = new Stretches<MovedRecords>(
    (from) => bench.ask('movedRecords', { place, from, count: STEP }, 'movedRecords'),
    (before, next) => ({ ...next, records: [...before.records, ...next.records] }),
  );
  const found = $derived(stretches.found);

  $effect(() => {
    void bench.runs;
    void place;
    stretches.begin();
  });
</script>

{#if found}
  {@const { total, columns, records } = found}
  <section aria-labelledby="moved-records" data-test="moved-records">
    <h3 class="caps" id="moved-records">
      Through {counted(total, 'record')}, most first
    </h3>
    <RecordTable
      columns={[{ name: 'Record', right: false }, ...columns]}
      besides={total - records.length}
      onmore={() => void stretches.more()}
    >
      {#each records as { how, number, record, cells }, k (k)}
        <tr class={how}>
          <th scope="row">
            {#if record === null}{showCount(number)}{:else}<button
                type="button"
                class="plain"
                onclick={() => (bench.side = { kind: 'record', record, column: null })}
                >{showCount(number)}</button
              >{/if}
            <small>{how}</small>
          </th>
          {#each cells as cell, c (c)}<td class:right={columns[c]?.right}>{cell}</td>{/each}
        </tr>
      {/each}
    </RecordTable>
  </section>
{/if}

<style>
  /* Its parts stand in the panel themselves, so that the table takes the room that is left. */
  section {
    display: contents;
  }
  h3 {
    margin: 8px 16px 4px;
  }
  small {
    color: var(--plum);
    margin-left: 4px;
  }
  .changed small {
    color: var(--ink-soft);
  }
</style>
