<script lang="ts">
  import { notOwn } from '../../core/bench/ownCells';
  import { madePlace } from '../../core/bench/madeEdits';
  import {
    addRung,
    changeColumn,
    moveColumn,
    setFixed,
    setFormat,
    setGroups,
    setMeasures,
    setSort,
  } from '../../core/bench/edits';
  import { measureWords, suits, type MeasureKind } from '../../core/measure/measure';
  import type { Condition } from '../../core/selection/condition';
  import type { ColumnFacts } from '../../engine/protocol';
  import { noFinerThan } from '../../core/table/period';
  import { isLedger } from '../../core/bench/tray';
  import type { BenchState } from '../bench/bench.svelte';
  import { readAsYears } from './readAsYears';
  import BrushChart from './BrushChart.svelte';
  import FormatFields from './FormatFields.svelte';

  interface Props {
    bench: BenchState;
    column: string;
    onnarrow: (column: string) => void;
  }
  let { bench, column, onnarrow }: Props = $props();

  let facts = $state.raw<ColumnFacts | null>(null);
  let fault = $state('');
  const about = $derived(bench.column(column));
  const name = $derived(about?.name ?? column);
  const view = $derived(bench.ledgerItem?.view ?? { columns: [], fixed: 0 });
  const inLedger = $derived(isLedger(bench.shown));
  const order = $derived([
    ...new Set([...view.columns.map((c) => c.column), ...bench.columns.map((c) => c.id)]),
  ]);
  /** Columns in view, in their order: moving goes past these, not past hidden ones. */
  const visible = $derived([
    ...new Set([
      ...(bench.ledger?.naming ? [bench.ledger.naming.column] : []),
      ...(bench.ledger?.heads ?? []).flatMap((h) => (h.column ? [h.column] : [])),
    ]),
  ]);
  const at = $derived(visible.indexOf(column));
  const hidden = $derived(view.columns.find((c) => c.column === column)?.hidden ?? false);

  $effect(() => {
    void bench.runs;
    bench.ask('facts', { column }).then(
      (reply) => {
        facts = reply;
        fault = '';
      },
      (error: unknown) => (fault = error instanceof Error ? error.message : ''),
    );
  });

  const dated = $derived(about?.type === 'date' || about?.type === 'datetime');
  const MEASURES: readonly MeasureKind[] = ['sum', 'mean', 'median', 'distinct'];
  const offered = $derived(
    MEASURES.filter(
      (kind) => about && suits(kind, { type: about.type } as Parameters<typeof suits>[1]),
    ),
  );

  const made = $derived(madePlace(bench.doc, column));
  function sort(descending: boolean): void {
    bench.change(`Sort by ${name}`, (doc) =>
      setSort(doc, [{ column, descending, blanks: 'last' }]),
    );
  }
  function group(): void {
    const key = {
      column,
      ...(dated && { period: noFinerThan('month', about?.grain ?? 'day') }),
      loose: false,
      order: { by: 'label' as const, descending: false },
    };
    bench.change(`Group by ${name}`, (doc) =>
      setGroups(doc, [
        ...(bench.ledgerItem?.tally.groups ?? []).filter((g) => g.column !== column),
        key,
      ]),
    );
  }
  function narrow(condition: Condition): void {
    bench.change(`Narrow by ${name}`, (doc) => addRung(doc, condition));
  }
  function measure(kind: MeasureKind): void {
    bench.change(`Add the ${measureWords({ kind })} of ${name}`, (doc) =>
      setMeasures(doc, [...(bench.ledgerItem?.tally.measures ?? []), { kind, column }]),
    );
  }
  async function begin(kind: string): Promise<void> {
    const found = await bench.questions({ column });
    const question = found.find((q) => q.kind === kind);
    if (question?.tally) bench.begin(`New tally: ${question.sentence}`, question.tally);
    else fault = question?.needs ?? '';
  }
  const isMissing = (fact: string): fact is 'blank' | 'unread' =>
    fact === 'blank' || fact === 'unread';
  /** The records whose cell is blank, or cannot be read, to be looked through. */
  function narrowToMissing(fact: string): void {
    if (isMissing(fact))
      bench.narrowTo(`${name} is ${fact}`, {
        kind: 'leaf',
        column,
        not: false,
        test: { test: fact },
      });
  }
  function move(by: -1 | 1): void {
    const before = by < 0 ? visible[at - 1] : (order[order.indexOf(visible[at + 1]) + 1] ?? null);
    bench.change(`Move ${name}`, (doc) => moveColumn(doc, order, column, before));
  }
  function widen(by: number): void {
    const now = bench.ledger?.heads.find((h) => h.column === column)?.width ?? 120;
    bench.change(`Resize ${name}`, (doc) =>
      changeColumn(doc, order, column, { width: Math.max(50, Math.min(900, now + by)) }),
    );
  }
  function hide(): void {
    bench.change(`${hidden ? 'Show' : 'Hide'} ${name}`, (doc) =>
      changeColumn(doc, order, column, { hidden: !hidden }),
    );
  }
  function fix(): void {
    const slots = [...new Set((bench.ledger?.heads ?? []).map((h) => h.column))];
    const upTo = slots.indexOf(column) + 1;
    bench.change(`Fix the columns up to ${name}`, (doc) =>
      setFixed(doc, view.fixed === upTo ? 0 : upTo),
    );
  }
</script>

<div class="pad" data-test="column-panel">
  <h3 class="serif">{name}</h3>
  <p class="soft">
    {facts?.type ?? ''}{facts?.unit ? `, in ${facts.unit}` : ''}. Facts of the counted records.
  </p>
  {#if made}<button
      type="button"
      class="act"
      onclick={() => (bench.side = { kind: 'made', ...made })}
      data-test="change-made">Change how it is made</button
    >{/if}
  {#if fault}<p>{fault}</p>{/if}
  {#if facts?.mayBeYears && notOwn(bench.doc, column) === '' && !bench.facts.origin}
    <p class="soft">
      Its numbers may be years: as dates they group and roll up by year.
      <button
        type="button"
        class="act"
        onclick={async () => (fault = await readAsYears(bench, column))}
        data-test="as-years">Read them as years</button
      >
    </p>
  {/if}
  {#if facts}
    {#key column}<BrushChart
        distribution={facts.distribution}
        {column}
        type={about?.type ?? 'text'}
        onnarrow={narrow}
      />{/key}
    <dl>
      {#each facts.facts as fact (fact.name)}<dt>{fact.name}</dt>
        <dd>
          {#if isMissing(fact.name) && fact.value !== '0'}<button
              type="button"
              class="act"
              title="Narrow to these records"
              onclick={() => narrowToMissing(fact.name)}
              data-test="narrow-{fact.name}">{fact.value}</button
            >{:else}{fact.value}{/if}
        </dd>{/each}
    </dl>
  {/if}
  <p class="caps">Arrange</p>
  <div class="acts">
    {#if inLedger}
      <button type="button" class="plain-button" onclick={() => sort(false)}>Sort</button>
      <button type="button" class="plain-button" onclick={() => sort(true)}
        >Sort, highest first</button
      >
      <button type="button" class="plain-button" onclick={group}>Group</button>
    {/if}
    <button type="button" class="plain-button" onclick={() => onnarrow(column)}>Narrow…</button>
  </div>
  {#if facts?.asked.length}
    <p class="caps">Ask</p>
    <div class="acts">
      {#each facts.asked as { kind, words } (kind)}<button
          type="button"
          class="plain-button"
          onclick={() => void begin(kind)}
          data-test="begin-{kind}">{words}</button
        >{/each}
    </div>
  {/if}
  {#if offered.length && inLedger}
    <p class="caps">Add to the ledger</p>
    <div class="acts">
      {#each offered as kind (kind)}<button
          type="button"
          class="plain-button"
          onclick={() => measure(kind)}>{kind === 'distinct' ? 'distinct values' : kind}</button
        >{/each}
    </div>
  {/if}
  {#if inLedger}<p class="caps">Look</p>{/if}
  <div class="acts" hidden={!inLedger}>
    <button type="button" class="plain-button" disabled={at <= 0} onclick={() => move(-1)}
      >Move left</button
    >
    <button
      type="button"
      class="plain-button"
      disabled={at < 0 || at >= visible.length - 1}
      onclick={() => move(1)}>Move right</button
    >
    <button type="button" class="plain-button" onclick={() => widen(-20)}>Narrower</button>
    <button type="button" class="plain-button" onclick={() => widen(20)}>Wider</button>
    <button type="button" class="plain-button" onclick={hide}
      >{hidden ? 'Show' : 'Hide from view'}</button
    >
    <button type="button" class="plain-button" onclick={fix}>Fix at the left, or let go</button>
  </div>
  {#if about?.type === 'number'}
    <p class="caps">Numbers shown</p>
    <FormatFields
      format={bench.doc.formats[column] ?? null}
      onchange={(format) =>
        bench.change(`Show ${name} otherwise`, (doc) => setFormat(doc, column, format))}
    />
  {/if}
</div>

<style>
  .pad {
    padding: 0 16px 16px;
  }
  h3 {
    margin: 0;
    font-size: 20px;
    overflow-wrap: anywhere;
  }
  p {
    margin: 0 0 8px;
  }
  .caps {
    margin: 14px 0 5px;
  }
  .soft {
    color: var(--ink-soft);
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    margin: 10px 0 0;
  }
  dt,
  dd {
    margin: 0;
    padding: 2px 0;
    border-bottom: 1px solid var(--rule);
  }
  dd {
    text-align: right;
    overflow-wrap: anywhere;
    max-width: 190px;
  }
  dt {
    color: var(--ink-soft);
  }
  .acts[hidden] {
    display: none;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
