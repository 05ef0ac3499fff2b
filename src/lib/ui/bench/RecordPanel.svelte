<script lang="ts">
  import { notOwn } from '../../core/bench/ownCells';
  import { recordNumber } from '../../core/table/recordNumber';
  import {
    correctCells,
    putBack,
    setAsideRecords,
    setAsideValue,
    takeBackCorrection,
  } from '../../core/bench/edits';
  import { counted, showCount } from '../../core/table/format';
  import type { ReplyOf } from '../../engine/protocol';
  import type { BenchState } from './bench.svelte';

  interface Props {
    bench: BenchState;
    /** Its place in the list, from 0. */
    record: number;
    /** The column that was clicked. */
    column: string | null;
    onledger: (record: number) => void;
  }
  let { bench, record, column, onledger }: Props = $props();

  let cells = $state.raw<ReplyOf<'recordCells'>>([]);
  let editing = $state<string | null>(null);
  let text = $state('');
  let why = $state('');
  /** The records whose cell holds the same as the one that is being put right. */
  let alike = $state.raw<ReplyOf<'alikeCells'>>({ records: [], more: false });
  let all = $state(false);

  $effect(() => {
    void bench.runs;
    bench.ask('recordCells', { record }).then(
      (reply) => (cells = reply),
      () => {},
    );
  });

  const number = $derived(recordNumber(record));
  const aside = $derived(
    bench.lines.lines.find((l) => l.record === record)?.aside === 1 ||
      bench.doc.ladder.setAside.records.includes(number),
  );

  function begin(cell: (typeof cells)[number]): void {
    editing = cell.column;
    text = cell.text;
    why = '';
    all = false;
    alike = { records: [], more: false };
    if (cell.state === 'corrected') return;
    bench.ask('alikeCells', { record, column: cell.column }).then(
      (reply) => (alike = reply),
      () => {},
    );
  }

  function correct(event: SubmitEvent, cell: (typeof cells)[number]): void {
    event.preventDefault();
    const was = cell.state === 'corrected' ? cell.was : cell.text;
    const now = text;
    const said = why.trim();
    editing = null;
    if (now === cell.text) return;
    const records = all ? alike.records : [number];
    const where = all ? counted(records.length, 'record') : `record ${showCount(number)}`;
    bench.change(`Correct ${cell.name} in ${where}`, (doc) =>
      correctCells(
        doc,
        records.map((record) => ({
          record,
          column: cell.column,
          text: now,
          was,
          ...(said && { why: said }),
        })),
      ),
    );
  }
</script>

<div class="pad" data-test="record-panel">
  <h3 class="serif">Record {showCount(number)}</h3>
  <div class="acts">
    {#if aside}
      <button
        type="button"
        class="plain-button"
        onclick={() => bench.change(`Put back record ${number}`, (doc) => putBack(doc, [number]))}
        >Put back</button
      >
    {:else}
      <button
        type="button"
        class="plain-button"
        onclick={() =>
          bench.change(`Set aside record ${number}`, (doc) => setAsideRecords(doc, [number]))}
        data-test="set-aside">Set aside</button
      >
    {/if}
    <button type="button" class="act" onclick={() => onledger(record)}>Show in ledger</button>
  </div>
  <dl>
    {#each cells as cell (cell.column)}
      <div class="cell" class:here={cell.column === column}>
        <dt>{cell.name}</dt>
        <dd>
          {#if editing === cell.column}
            <form onsubmit={(e) => correct(e, cell)}>
              <!-- svelte-ignore a11y_autofocus -->
              <input
                class="field"
                autofocus
                aria-label="{cell.name} corrected"
                bind:value={text}
                onkeydown={(e) => e.key === 'Escape' && (e.stopPropagation(), (editing = null))}
                data-test="correction"
              />
              <button type="submit" class="main-button">Correct</button>
              <input
                class="field why"
                aria-label="Why, if it should be said"
                placeholder="Why, if it should be said"
                maxlength="500"
                bind:value={why}
                data-test="correction-why"
              />
              {#if alike.records.length > 1}
                <label class="all"
                  ><input type="checkbox" bind:checked={all} data-test="correct-alike" />
                  {alike.more ? 'The first' : 'All'}
                  {counted(alike.records.length, 'record')} that say “{cell.text || 'blank'}”</label
                >
              {/if}
            </form>
          {:else}
            <span
              class:blank={cell.state === 'blank'}
              class:doubt={cell.state === 'unread' || cell.state === 'corrected'}
              >{cell.state === 'blank' ? 'blank' : cell.text}</span
            >
            {#if cell.state === 'unread'}<small>cannot be read; no figure counts it</small>{/if}
            {#if cell.state === 'corrected'}
              <small>corrected; the file says “{cell.was || 'blank'}”</small>
              <button
                type="button"
                class="act"
                onclick={() =>
                  bench.change(`Take back the correction of ${cell.name}`, (doc) =>
                    takeBackCorrection(doc, number, cell.column),
                  )}>Take back</button
              >
            {/if}
            <span class="tools">
              {#if notOwn(bench.doc, cell.column) === ''}
                <button
                  type="button"
                  class="act"
                  aria-label="Correct {cell.name}"
                  onclick={() => begin(cell)}>Correct</button
                >
              {:else if cell.column === column}
                <small>{notOwn(bench.doc, cell.column)}</small>
              {/if}
              <button
                type="button"
                class="act"
                aria-label="Set all like it aside: all records with this {cell.name}"
                onclick={() =>
                  bench.change(
                    `Set aside all where ${cell.name} is ${cell.text || 'blank'}`,
                    (doc) =>
                      setAsideValue(doc, cell.column, cell.state === 'blank' ? null : cell.text),
                  )}>Set all like it aside</button
              >
            </span>
          {/if}
        </dd>
      </div>
    {/each}
  </dl>
</div>

<style>
  .pad {
    padding: 0 16px 16px;
  }
  h3 {
    margin: 0 0 6px;
    font-size: 20px;
  }
  .acts {
    display: flex;
    gap: 10px;
    align-items: center;
    margin-bottom: 8px;
  }
  dl {
    margin: 0;
  }
  .cell {
    border-bottom: 1px solid var(--rule);
    padding: 5px 0;
  }
  .here {
    background: var(--tide-wash);
    margin: 0 -6px;
    padding: 5px 6px;
  }
  dt {
    color: var(--ink-soft);
    font-size: 12px;
  }
  dd {
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: baseline;
    overflow-wrap: anywhere;
  }
  .why,
  .all {
    flex: 1 0 100%;
  }
  .all {
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    width: 100%;
  }
  form input {
    flex: 1;
  }
  .tools {
    display: flex;
    gap: 8px;
    font-size: 12px;
    margin-left: auto;
  }
  .blank {
    color: var(--ink-faint);
    font-style: italic;
  }
  .doubt {
    color: var(--plum);
  }
  small {
    color: var(--ink-soft);
  }
</style>
