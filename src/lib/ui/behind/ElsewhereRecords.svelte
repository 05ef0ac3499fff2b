<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { ElsewhereRecords } from '../../engine/replies/elsewhere';
  import type { Place } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import RecordTable from './RecordTable.svelte';
  import { Stretches } from './stretches.svelte';

  /** The records of the other list behind a figure of two lists side by side. */
  let { bench, place }: { bench: BenchState; place: Place } = $props();
  const STEP = 50;
  const stretches = new Stretches<ElsewhereRecords>(
    (from) => bench.ask('elsewhere', { place, from, count: STEP }, 'elsewhere'),
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
  {@const { list, total, columns, records } = found}
  <section aria-labelledby="elsewhere-records" data-test="elsewhere-records">
    <h3 class="caps" id="elsewhere-records">In {list}: {counted(total, 'record')}</h3>
    {#if total > 0}
      <RecordTable
        columns={[{ name: 'Record', right: false }, ...columns]}
        besides={total - records.length}
        onmore={() => void stretches.more()}
      >
        {#each records as { number, cells } (number)}
          <tr>
            <th scope="row">{showCount(number)}</th>
            {#each cells as cell, c (c)}<td class:right={columns[c]?.right}>{cell}</td>{/each}
          </tr>
        {/each}
      </RecordTable>
    {/if}
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
</style>
