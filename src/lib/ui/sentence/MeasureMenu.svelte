<script lang="ts">
  import { columnNote, usedAs } from './columnNote';
  import {
    byQuantiles,
    MEASURES,
    needsOther,
    ofRecords,
    type Measure,
    type MeasureKind,
  } from '../../core/measure/measure';
  import type { Counts } from '../../engine/protocol';
  import Choices from '../components/Choices.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import { MEASURE_GROUPS } from './measureGroups';
  import TakeOut from './TakeOut.svelte';

  interface Props {
    columns: Counts['columns'];
    measure: Measure | null;
    needed?: boolean;
    onchange: (measure: Measure | null) => void;
    close: () => void;
  }
  let { columns: offered, measure, needed = false, onchange, close }: Props = $props();

  /** A measure chosen, its column still to come. */
  let picked = $state<MeasureKind | null>(null);
  const kind = $derived(picked ?? measure?.kind ?? null);
  const KINDS = MEASURE_GROUPS.flatMap(({ name, kinds }) =>
    kinds.map((value) => ({ value, label: MEASURES[value].words, group: name })),
  );
  const columnOf = (ref: string | undefined): Counts['columns'][number] | undefined =>
    offered.find((c) => c.id === ref || c.name === ref);
  const suiting = (of: MeasureKind): Counts['columns'] =>
    offered.filter((c) => MEASURES[of].types.some((t) => t === usedAs(c)));
  const columns = $derived(
    kind === null
      ? []
      : suiting(kind).map((c) => ({
          value: c.id,
          label: c.name,
          note: columnNote(c),
        })),
  );
  const other = $derived(kind ? needsOther(kind) : null);
  /** What the second column does. */
  const OTHER_WORDS: Partial<Record<MeasureKind, string>> = {
    weightedMean: 'weighed by',
    ratio: 'divided by the sum of',
    difference: 'less the sum of',
    atMin: 'showing',
    atMax: 'showing',
  };
  const share = $derived(kind === 'percentile' || kind === 'trimmedMean');

  /** What a kind has besides its column, until something else is typed. */
  const beginning = (of: MeasureKind): Partial<Measure> => ({
    ...(of === 'percentile' && { percent: 90 }),
    ...(of === 'trimmedMean' && { percent: 5 }),
    ...(needsOther(of) !== null && {
      other: (needsOther(of) === 'shown' ? offered : suiting('sum')).find(
        (c) => c.id !== measure?.column,
      )?.id,
    }),
  });

  function chooseKind(value: MeasureKind): void {
    if (ofRecords(value)) {
      onchange({ kind: value });
      close();
      return;
    }
    const now = columnOf(measure?.column);
    picked = value;
    if (measure && now && suiting(value).includes(now))
      onchange({ kind: value, column: measure.column, ...beginning(value) });
  }

  function chooseColumn(column: string): void {
    if (!kind) return;
    const same = measure?.kind === kind ? measure : { kind, ...beginning(kind) };
    onchange({ ...same, kind, column });
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
      <b>{MEASURES[kind].words}</b>
      <button
        type="button"
        class="act"
        onclick={() => (picked = null)}
        hidden={picked === null || measure === null}>Back</button
      >
    </div>
    {#if share && measure?.kind === kind}
      <label>
        {kind === 'percentile' ? 'Per cent below' : 'Per cent cut at each end'}
        <input
          class="field short"
          type="number"
          min="0"
          max={kind === 'percentile' ? 100 : 49}
          step="any"
          value={measure.percent}
          onchange={(e) => onchange({ ...measure, percent: e.currentTarget.valueAsNumber })}
        />
      </label>
    {/if}
    {#if other && measure?.kind === kind}
      <label
        >{OTHER_WORDS[kind]}
        <OneOf
          value={measure.other}
          options={(other === 'shown' ? offered : suiting('sum')).map(
            (c) => [c.id, c.name] as const,
          )}
          onchange={(id) => onchange({ ...measure, other: id })}
        /></label
      >
    {/if}
    {#if byQuantiles(kind) && measure?.kind === kind}
      <label
        >definition
        <input
          class="field short"
          type="number"
          min="1"
          max="9"
          value={measure.definition ?? 7}
          onchange={(e) => {
            const definition = e.currentTarget.valueAsNumber;
            if (definition >= 1 && definition <= 9) onchange({ ...measure, definition });
          }}
        /></label
      >
    {/if}
    {#if measure && !needed}<TakeOut what="measure" onclick={takeOut} />{/if}
  </div>
  <p class="caps">of which column</p>
  <Choices
    name="columns"
    choices={columns}
    chosen={columnOf(measure?.column)?.id ?? null}
    onchoose={chooseColumn}
  />
  {#if measure}
    <p class="caps">another measure</p>
    <Choices name="measures" choices={KINDS} chosen={kind} onchoose={chooseKind} search />
  {/if}
{:else}
  <Choices name="measures" choices={KINDS} chosen={kind} onchoose={chooseKind} search />
  {#if measure && !needed}<TakeOut what="measure" onclick={takeOut} />{/if}
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
