<script lang="ts">
  import { untrack } from 'svelte';
  import { putBack, setAsideRecords, switchRung } from '../../core/bench/edits';
  import { removeKnown, setKnown } from '../../core/bench/reportEdits';
  import { readKnown } from '../../core/check/known';
  import { counted, showCount } from '../../core/table/format';
  import { recordNumber } from '../../core/table/recordNumber';
  import { KNOWN_FIELD } from './knownField';
  import type { Behind, Place, ReplyOf } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';

  /** What a figure should be by another source: kept, compared at every change, a difference explained. */
  interface Props {
    bench: BenchState;
    place: Place;
    behind: Behind;
  }
  let { bench, place, behind }: Props = $props();

  type Explanation = ReplyOf<'check'>['explanations'][number];
  const SHOWN = 5;
  const figure = $derived.by(() => {
    const { tally, scope, ...at } = place;
    return { tally, place: at, ...(scope !== undefined && { scope }) };
  });
  const kept = $derived(
    bench.doc.known.find(
      (k) =>
        k.tally === figure.tally &&
        k.scope === figure.scope &&
        [k.place, bench.known.find(({ id }) => id === k.id)?.place].some(
          (at) => JSON.stringify(at) === JSON.stringify(figure.place),
        ),
    ),
  );
  const now = $derived(bench.known.find(({ id }) => id === kept?.id));
  let typed = $state('');
  let source = $state('');
  let wrong = $state('');
  let explanations = $state.raw<readonly Explanation[]>([]);

  /** What was put into the fields last: what is being typed over it stays. */
  let filled = { typed: '', source: '' };
  $effect(() => {
    const next = { typed: now?.known ?? '', source: kept?.source ?? '' };
    if (untrack(() => typed) === filled.typed) typed = next.typed;
    if (untrack(() => source) === filled.source) source = next.source;
    filled = next;
  });
  // A difference is explained anew whenever the figure is.
  $effect(() => {
    void bench.runs;
    explanations = [];
    if (!kept || now?.stands !== 'differs' || !behind.canCheck) return;
    const { value } = kept;
    bench
      .ask('check', { place, known: value })
      .then((check) => (explanations = check.explanations))
      .catch(() => undefined);
  });

  function keep(event: SubmitEvent): void {
    event.preventDefault();
    const read = readKnown(typed, behind.share);
    if (!read) {
      wrong = 'Type the total as a number, such as 8,826,504.25.';
      return;
    }
    wrong = '';
    bench.change('Keep a known total', (doc) =>
      setKnown(doc, {
        ...figure,
        ...(kept && { place: kept.place }),
        ...read,
        source: source.trim().slice(0, 300),
        note: kept?.note ?? '',
      }),
    );
  }

  const REMEDIES = {
    setAside: 'Set aside',
    putBack: 'Put back',
    switchOff: 'Switch that step off',
  } as const;
  function mend({ remedy, records }: Explanation): void {
    if (!remedy) return;
    const numbers = records.map(recordNumber);
    if (remedy.do === 'switchOff') {
      const { id } = bench.doc.ladder.rungs[remedy.rung];
      bench.change('Switch a step off', (doc) => switchRung(doc, id));
    } else if (remedy.do === 'putBack')
      bench.change(`Put back ${counted(numbers.length, 'record')}`, (doc) => putBack(doc, numbers));
    else
      bench.change(`Set aside ${counted(numbers.length, 'record')}`, (doc) =>
        setAsideRecords(doc, numbers),
      );
  }
</script>

<form class="known" onsubmit={keep}>
  <h3 class="caps">Known total</h3>
  <div class="row">
    <label
      >It should be
      <input
        class="field right"
        inputmode="decimal"
        bind:value={typed}
        aria-invalid={wrong !== ''}
        id={KNOWN_FIELD}
        data-test="known"
      /></label
    >
    <label
      >by
      <input
        class="field"
        placeholder="the quarterly statement"
        maxlength="300"
        bind:value={source}
        data-test="known-source"
      /></label
    >
  </div>
  {#if wrong}<p class="bad" role="alert">{wrong}</p>{/if}
  <div class="acts">
    <button type="submit" class="plain-button" data-test="known-keep"
      >{kept ? 'Change it' : 'Keep and compare'}</button
    >
    {#if kept}
      <button
        type="button"
        class="act"
        onclick={() => bench.change('Take a known total off', (doc) => removeKnown(doc, kept.id))}
        data-test="known-out">Take it off</button
      >
    {/if}
  </div>
  <div aria-live="polite" data-test="check">
    {#if now?.stands === 'agrees'}
      <p class="good">✓ It agrees.</p>
    {:else if now?.stands === 'lost'}
      <p class="bad">{now.why}</p>
    {:else if now}
      <p class="bad">✗ The figure is <b>{now.difference}</b> from it (figure less known).</p>
      <ul>
        {#each explanations as explanation, k (k)}
          {@const { words, records, remedy } = explanation}
          <li>
            {words}
            {#if records.length || remedy}
              <span class="acts">
                {#each records.slice(0, SHOWN) as record (record)}
                  <button
                    type="button"
                    class="act"
                    onclick={() => (bench.side = { kind: 'record', record, column: null })}
                    >record {showCount(recordNumber(record))}</button
                  >
                {/each}
                {#if records.length > SHOWN}<span>and {records.length - SHOWN} more</span>{/if}
                {#if remedy}
                  <button
                    type="button"
                    class="act remedy"
                    onclick={() => mend(explanation)}
                    data-test="known-mend"
                    >{REMEDIES[remedy.do]}{remedy.do === 'switchOff'
                      ? ''
                      : records.length === 1
                        ? ' this record'
                        : ` these ${records.length}`}</button
                  >
                {/if}
              </span>
            {/if}
          </li>
        {:else}
          {#if behind.canCheck}<li>
              Nothing here explains it: no record, pair, set-aside or narrowed records of that
              amount.
            </li>{/if}
        {/each}
      </ul>
    {/if}
  </div>
</form>

<style>
  .known {
    background: var(--panel);
    border-top: 1px solid var(--rule);
    padding: 10px 16px 14px;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 7px;
  }
  .row {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
  }
  label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
  }
  input {
    min-width: 0;
  }
  .right {
    text-align: right;
  }
  p {
    margin: 0 0 4px;
  }
  .acts {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
    align-items: center;
  }
  .remedy {
    font-weight: 600;
  }
  .good {
    color: var(--good);
  }
  .bad {
    color: var(--bad);
  }
  ul {
    margin: 0;
    padding-left: 18px;
    color: var(--brass);
  }
</style>
