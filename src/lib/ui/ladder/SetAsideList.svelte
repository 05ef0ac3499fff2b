<script lang="ts">
  import { putBack, putBackValue } from '../../core/bench/edits';
  import { recordPlace } from '../../core/table/recordNumber';
  import { showCount } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import WaysBack from './WaysBack.svelte';

  /** What was set aside by hand, each with a way to its record and a way back. */
  let { bench, close }: { bench: BenchState; close: () => void } = $props();

  /** So many stand in the list. */
  const MOST = 200;

  const aside = $derived(bench.doc.ladder.setAside);
  const left = (): number => aside.records.length + aside.values.length;
  const nameOf = (column: string): string => bench.column(column)?.name ?? column;
</script>

<WaysBack>
  {#each aside.values as { column, value } (`${column} ${value}`)}
    {@const words = `all where ${nameOf(column)} is ${value ?? 'blank'}`}
    <li>
      <span>{words}</span>
      <button
        type="button"
        class="act small"
        aria-label="Put back {words}"
        onclick={() => {
          bench.change(`Put back ${words}`, (doc) => putBackValue(doc, column, value));
          if (left() === 1) close();
        }}>Put back</button
      >
    </li>
  {/each}
  {#each aside.records.slice(0, MOST) as record (record)}
    <li>
      <button
        type="button"
        class="act"
        onclick={() => {
          bench.side = { kind: 'record', record: recordPlace(record), column: null };
          close();
        }}>record {showCount(record)}</button
      >
      <button
        type="button"
        class="act small"
        aria-label="Put back record {showCount(record)}"
        onclick={() => {
          bench.change(`Put back record ${showCount(record)}`, (doc) => putBack(doc, [record]));
          if (left() === 1) close();
        }}
        data-test="put-back">Put back</button
      >
    </li>
  {/each}
  {#if aside.records.length > MOST}<li>
      and {showCount(aside.records.length - MOST)} more, struck through in the ledger
    </li>{/if}
</WaysBack>
