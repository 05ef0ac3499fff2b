<script lang="ts">
  import { setAsideRecords } from '../../core/bench/edits';
  import { recordNumber } from '../../core/table/recordNumber';
  import { counted, showCount, withUnit } from '../../core/table/format';
  import type { Behind, BehindRecord, Place } from '../../engine/protocol';
  import { Refused } from '../../worker/engineClient';
  import type { BenchState } from '../bench/bench.svelte';
  import { copyText, fileNameFor, saveFile } from '../handover/clipboard';
  import IntoWords from './IntoWords.svelte';
  import KnownTotal from './KnownTotal.svelte';
  import ElsewhereRecords from './ElsewhereRecords.svelte';
  import MovedRecords from './MovedRecords.svelte';
  import RecordTable from './RecordTable.svelte';

  interface Props {
    bench: BenchState;
    place: Place;
    onledger: (place: Place) => void;
  }
  let { bench, place, onledger }: Props = $props();

  const STEP = 100;
  let behind = $state.raw<Behind | null>(null);
  let records = $state.raw<BehindRecord[]>([]);
  let fault = $state('');
  /** A figure of another list: none of its records are of this one. */
  const elsewhereAlone = $derived((behind?.elsewhere ?? null) !== null && behind?.records === 0);

  $effect(() => {
    void bench.runs;
    const at = place;
    bench
      .ask('behind', { place: at })
      .then(async (reply) => {
        // Both at once: records of one figure never stand under another.
        const first = await bench.ask('behindRecords', { place: at, from: 0, count: STEP });
        if (at !== place) return;
        behind = reply;
        fault = '';
        records = first;
      })
      .catch((error: unknown) => {
        if (error instanceof Refused && ['superseded', 'stopped', 'stale'].includes(error.code))
          return;
        behind = null;
        fault = error instanceof Error ? error.message : String(error);
      });
  });

  async function more(): Promise<void> {
    const next = await bench.ask('behindRecords', {
      place,
      from: records.length,
      count: STEP,
    });
    records = [...records, ...next];
  }

  /** Where the figure comes from, as a file that the command line verifies. */
  async function saveRecord(): Promise<void> {
    const record = await bench.ask('figureRecord', { place });
    const name = fileNameFor(bench.facts.listName, 'figure').replace(/\.\w+$/, '.json');
    saveFile(name, `${JSON.stringify(record, null, 1)}\n`, 'application/json');
    bench.notice =
      'The record of the figure was saved. The command line verifies it: tally verify.';
  }
</script>

{#if fault}
  <p class="pad">{fault}</p>
{:else if behind}
  {@const missing = [
    behind.blanks ? `${showCount(behind.blanks)} blank` : '',
    behind.unread ? `${showCount(behind.unread)} unread` : '',
  ].filter(Boolean)}
  <div class="pad" data-test="behind">
    <p class="figure">
      <b class="serif">{withUnit(behind.figure, behind.unit)}</b>
      {behind.words}
    </p>
    <p>
      {behind.where}. {#if !behind.moved && !elsewhereAlone}<b
          >{counted(behind.records, 'record')}</b
        >{#if missing.length}, {missing.join(' and ')} left out of the reckoning{/if}.{/if}
      {behind.arithmetic}
    </p>
    {#if behind.warning}<p class="warning">{behind.warning}</p>{/if}
    {#if behind.rests}{@const { record, words, much } = behind.rests}
      <div class="rests" class:warning={much} data-test="rests">
        <p>{words}</p>
        <div class="acts">
          <button
            type="button"
            class="act"
            onclick={() => (bench.side = { kind: 'record', record, column: null })}
            >See the record</button
          >
          <button
            type="button"
            class="act"
            onclick={() =>
              bench.change(`Set aside record ${recordNumber(record)}`, (doc) =>
                setAsideRecords(doc, [recordNumber(record)]),
              )}
            data-test="rests-aside">Set it aside</button
          >
        </div>
      </div>
    {/if}
    <div class="acts">
      {#if behind.records > 0 && (place.tally !== bench.ledgerItem?.id || (Array.isArray(place.row) && place.row.length))}<button
          type="button"
          class="act"
          onclick={() => onledger(place)}
          data-test="show-in-ledger">Show in ledger</button
        >{/if}
      {#if behind.condition && !elsewhereAlone}{@const { condition, where } = behind}<button
          type="button"
          class="act"
          onclick={() => bench.narrowTo(where, condition)}
          data-test="narrow-to-these">Narrow to these</button
        >{/if}
      <button
        type="button"
        class="act"
        onclick={() =>
          copyText(behind?.figure ?? '').then(() => (bench.notice = 'The figure was copied.'))}
        >Copy figure</button
      >
      <button type="button" class="act" onclick={saveRecord} data-test="save-record"
        >Save its record</button
      >
      {#if Array.isArray(place.row)}<IntoWords {bench} {place} {behind} />{/if}
    </div>
  </div>
  {#if behind.moved}<MovedRecords {bench} {place} />{:else}
    {#if !elsewhereAlone}<RecordTable
        columns={behind.columns}
        besides={behind.records - records.length}
        onmore={() => void more()}
      >
        {#each records as { record, cells } (record)}
          <tr>
            {#each cells as cell, c (c)}
              <td
                class:right={behind.columns[c]?.right}
                class:soft={cell.state === 'blank'}
                class:doubt={cell.state === 'unread' || cell.state === 'corrected'}
              >
                {#if c === 0}<button
                    type="button"
                    class="plain"
                    title="Record {recordNumber(record)}"
                    onclick={() => (bench.side = { kind: 'record', record, column: null })}
                    >{cell.text}</button
                  >{:else}{cell.text}{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </RecordTable>{/if}
    {#if behind.elsewhere !== null}<ElsewhereRecords {bench} {place} />{/if}
  {/if}
  {#if behind.numeric && Array.isArray(place.row)}
    {#key JSON.stringify(place)}<KnownTotal {bench} {place} {behind} />{/key}
  {/if}
{/if}

<style>
  .pad {
    padding: 0 16px 8px;
  }
  p {
    margin: 0 0 6px;
    overflow-wrap: anywhere;
  }
  .figure b {
    font-size: 24px;
  }
  .figure {
    color: var(--ink-soft);
  }
  .figure b {
    color: var(--ink);
  }
  .warning {
    background: var(--plum-wash);
    color: var(--plum);
    padding: 6px 9px;
    border-radius: 5px;
  }
  .rests {
    margin-bottom: 8px;
    color: var(--ink-soft);
  }
  .rests.warning {
    color: var(--plum);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
  }
  .soft {
    color: var(--ink-faint);
    font-style: italic;
  }
  .doubt {
    color: var(--plum);
  }
</style>
