<script lang="ts">
  import { counted, showCount } from '../../core/table/format';
  import type { MovedRecords } from '../../engine/replies/moved';
  import type { Place } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';

  /** The records of both readings behind a figure that moved, side by side. */
  let { bench, place }: { bench: BenchState; place: Place } = $props();
  const STEP = 50;
  let found = $state.raw<MovedRecords | null>(null);

  const stretch = (from: number): Promise<MovedRecords> =>
    bench.ask('movedRecords', { place, from, count: STEP }, 'movedRecords');

  $effect(() => {
    void bench.reckonings;
    stretch(0).then(
      (first) => (found = first),
      // A newer one is on its way, or the figure is gone: the panel behind it says so.
      () => (found = null),
    );
  });

  async function more(): Promise<void> {
    if (!found) return;
    const next = await stretch(found.records.length);
    found = { ...next, records: [...found.records, ...next.records] };
  }
</script>

{#if found}
  <section aria-labelledby="moved-records" data-test="moved-records">
    <h3 class="caps" id="moved-records">
      Through {counted(found.total, 'record')}, those that moved it most first
    </h3>
    {#if found.total > 0}
      <table>
        <thead>
          <tr>
            <th scope="col">Record</th>
            {#each found.columns as { name, right }, c (c)}
              <th scope="col" class:right>{name}</th>
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each found.records as { how, number, record, cells }, k (k)}
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
              {#each cells as cell, c (c)}
                <td class:right={found.columns[c]?.right}>{cell}</td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
      {#if found.records.length < found.total}
        <button type="button" class="act more" onclick={more}
          >{showCount(found.total - found.records.length)} more</button
        >
      {/if}
    {/if}
  </section>
{/if}

<style>
  section {
    border-top: 1px solid var(--rule);
    overflow: auto;
    flex: 1;
    min-height: 120px;
  }
  h3 {
    margin: 8px 16px 4px;
  }
  table {
    border-collapse: collapse;
    min-width: 100%;
    font-size: 13px;
  }
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 3px 8px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
  }
  th:first-child {
    padding-left: 16px;
  }
  thead th {
    font-weight: 600;
    border-bottom: 1.5px solid var(--rule-strong);
    position: sticky;
    top: 0;
    background: var(--paper);
  }
  .right {
    text-align: right;
  }
  small {
    color: var(--plum);
    margin-left: 4px;
  }
  .changed small {
    color: var(--ink-soft);
  }
  .plain {
    background: none;
    border: 0;
    padding: 0;
    font: inherit;
    color: var(--tide);
    cursor: pointer;
  }
  .more {
    margin: 6px 16px;
  }
</style>
