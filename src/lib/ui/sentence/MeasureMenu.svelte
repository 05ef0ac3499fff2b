<script lang="ts">
  import {
    MEASURE_KINDS,
    MEASURES,
    needsOther,
    ofRecords,
    type Measure,
    type MeasureKind,
  } from '../../core/measure/measure';
  import type { BenchState } from '../bench/bench.svelte';
  import Choices from '../shell/Choices.svelte';
  import TakeOut from './TakeOut.svelte';

  interface Props {
    bench: BenchState;
    measure: Measure | null;
    onchange: (measure: Measure | null) => void;
    close: () => void;
  }
  let { bench, measure, onchange, close }: Props = $props();

  /** A measure chosen, its column still to come. */
  let picked = $state<MeasureKind | null>(null);
  const kind = $derived(picked ?? measure?.kind ?? null);
  const kinds = MEASURE_KINDS.filter((kind) => needsOther(kind) === null).map((value) => ({
    value,
    label: MEASURES[value].says,
  }));
  const columns = $derived(
    kind === null
      ? []
      : bench.columns
          .filter((c) => MEASURES[kind].types.some((t) => t === c.type))
          .map((c) => ({ value: c.id, label: c.name, note: c.unit || c.type })),
  );
  const share = $derived(kind === 'percentile' || kind === 'trimmedMean');
  let percent = $derived(
    measure?.kind === kind && measure?.percent !== undefined
      ? measure.percent
      : kind === 'percentile'
        ? 90
        : 5,
  );

  function chooseKind(value: MeasureKind): void {
    if (ofRecords(value)) {
      onchange({ kind: value });
      close();
      return;
    }
    const same =
      measure?.column &&
      MEASURES[value].types.some((t) => t === bench.column(measure.column)?.type);
    picked = value;
    if (same && measure)
      onchange({
        kind: value,
        column: measure.column,
        ...(needsShare(value) ? { percent: value === 'percentile' ? 90 : 5 } : {}),
      });
  }

  const needsShare = (value: MeasureKind): boolean =>
    value === 'percentile' || value === 'trimmedMean';

  function chooseColumn(column: string): void {
    if (!kind) return;
    onchange({ kind, column, ...(share ? { percent } : {}) });
    close();
  }

  function takeOut(): void {
    close();
    onchange(null);
  }
</script>

{#if kind && !ofRecords(kind)}
  <div class="now">
    <div class="row">
      <b>{MEASURES[kind].says}</b>
      <button
        type="button"
        class="act"
        onclick={() => (picked = null)}
        hidden={picked === null || measure === null}>Back</button
      >
    </div>
    {#if share}
      <label>
        {kind === 'percentile' ? 'Percent below' : 'Percent cut at each end'}
        <input
          class="field short"
          type="number"
          min="0"
          max={kind === 'percentile' ? 100 : 49}
          step="any"
          bind:value={percent}
          onchange={() => measure?.kind === kind && onchange({ ...measure, percent })}
        />
      </label>
    {/if}
    {#if measure}
      <TakeOut what="measure" onclick={takeOut} />
    {/if}
  </div>
  <p class="caps">of which column</p>
  <Choices
    name="columns"
    choices={columns}
    chosen={measure?.column ?? null}
    onchoose={chooseColumn}
  />
  {#if measure}
    <p class="caps">another measure</p>
    <Choices name="measures" choices={kinds} chosen={kind} onchoose={chooseKind} search={false} />
  {/if}
{:else}
  <Choices name="measures" choices={kinds} chosen={kind} onchoose={chooseKind} search />
  {#if measure}
    <TakeOut what="measure" onclick={takeOut} />
  {/if}
{/if}

<style>
  .now {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  .row {
    display: flex;
    gap: 10px;
  }
  .short {
    width: 80px;
  }
  .caps {
    margin: 8px 0 4px;
  }
</style>
