<script lang="ts">
  import { MONTHS, WEEKDAYS } from '../../core/table/calendar';
  import type { ColumnType } from '../../core/table/column';
  import type { Test } from '../../core/selection/condition';
  import type { BenchState } from '../bench/bench.svelte';
  import Amount from '../fields/Amount.svelte';
  import DatePoint from '../fields/DatePoint.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import Bound from './Bound.svelte';
  import ValuePicker from './ValuePicker.svelte';

  interface Props {
    bench: BenchState;
    column: string;
    type: ColumnType;
    test: Test;
    onchange: (test: Test) => void;
  }
  let { bench, column, type, test, onchange }: Props = $props();

  const PERIODS = [
    ['year', 'year'],
    ['quarter', 'quarter'],
    ['month', 'month'],
    ['week', 'week'],
  ] as const;
  const LAST = [
    ['day', 'days'],
    ['week', 'weeks'],
    ['month', 'months'],
    ['quarter', 'quarters'],
    ['half', 'half-years'],
    ['year', 'years'],
  ] as const;
  const read = (text: string): number | string =>
    type === 'number' && text !== '' ? Number(text) : text;
  const seasons = $derived(
    test.test !== 'season'
      ? []
      : test.of === 'month'
        ? MONTHS.map((m) => m.slice(0, 3))
        : test.of === 'weekday'
          ? WEEKDAYS.map((d) => d.slice(0, 3))
          : ['Q1', 'Q2', 'Q3', 'Q4'],
  );
</script>

<div class="fields">
  {#if test.test === 'is'}
    <ValuePicker
      {bench}
      {column}
      values={test.values}
      onchange={(values) => onchange({ ...test, values })}
    />
  {:else if test.test === 'listed'}
    {#await import('./ListedFields.svelte') then { default: ListedFields }}
      <ListedFields {bench} {column} {test} {onchange} />
    {/await}
  {:else if 'text' in test}
    <input
      class="field wide"
      aria-label="Text"
      value={test.text}
      oninput={(e) => onchange({ ...test, text: e.currentTarget.value })}
      data-test="condition-value"
    />
    <label
      ><input
        type="checkbox"
        checked={test.exact}
        onchange={(e) => onchange({ ...test, exact: e.currentTarget.checked })}
      /> case and accents matter</label
    >
  {:else if test.test === 'compare'}
    {#if type === 'number'}
      <input
        class="field"
        type="number"
        step="any"
        aria-label="Value"
        value={test.value}
        oninput={(e) => onchange({ ...test, value: read(e.currentTarget.value) })}
        data-test="condition-value"
      />
    {:else}
      <DatePoint
        label="Value"
        {type}
        value={String(test.value)}
        onvalue={(value) => onchange({ ...test, value })}
        test="condition-value"
      />
    {/if}
  {:else if test.test === 'between'}
    <Bound
      label="From"
      {type}
      value={test.from}
      included={test.fromIn}
      onvalue={(text) => onchange({ ...test, from: read(text) })}
      onincluded={(fromIn) => onchange({ ...test, fromIn })}
    />
    <span>and</span>
    <Bound
      label="To"
      {type}
      value={test.to}
      included={test.toIn}
      onvalue={(text) => onchange({ ...test, to: read(text) })}
      onincluded={(toIn) => onchange({ ...test, toIn })}
    />
  {:else if test.test === 'extreme'}
    <OneOf
      label="Side"
      value={test.side}
      options={[
        ['highest', 'highest'],
        ['lowest', 'lowest'],
      ]}
      onchange={(side) => onchange({ ...test, side })}
    />
    <Amount
      label="How many"
      value={test.k}
      test="condition-value"
      onchange={(k) => onchange({ ...test, k })}
    />
    <OneOf
      label="Of"
      value={test.of}
      options={[
        ['records', 'records'],
        ['percent', '% of them'],
      ]}
      onchange={(of) => onchange({ ...test, of })}
    />
    <small>Ties at the edge stay in.</small>
  {:else if test.test === 'mean'}
    <OneOf
      label="Side"
      value={test.side}
      options={[
        ['above', 'above the mean'],
        ['below', 'below the mean'],
      ]}
      onchange={(side) => onchange({ ...test, side })}
    />
  {:else if test.test === 'deviations'}
    <label
      >more than <Amount value={test.k} onchange={(k) => onchange({ ...test, k })} /> standard deviations</label
    >
  {:else if test.test === 'outlying'}
    <label
      ><Amount value={test.k} onchange={(k) => onchange({ ...test, k })} /> interquartile ranges beyond
      the quartiles</label
    >
  {:else if test.test === 'period'}
    <label
      >the <OneOf
        value={test.period}
        options={PERIODS}
        onchange={(period) => onchange({ ...test, period })}
      /></label
    >
    <label
      >of <DatePoint
        label="A day in it"
        {type}
        value={test.days[0]}
        onvalue={(day) => onchange({ ...test, days: [day] })}
        test="condition-value"
      /></label
    >
  {:else if test.test === 'season'}
    <OneOf
      label="Months, quarters or weekdays"
      value={test.of}
      options={[
        ['month', 'months'],
        ['quarter', 'quarters'],
        ['weekday', 'weekdays'],
      ]}
      onchange={(of) => onchange({ ...test, of, values: [1] })}
    />
    <div class="marks">
      {#each seasons as name, k (name)}
        <label
          ><input
            type="checkbox"
            checked={test.values.includes(k + 1)}
            onchange={(e) =>
              onchange({
                ...test,
                values: e.currentTarget.checked
                  ? [...test.values, k + 1].sort((a, b) => a - b)
                  : test.values.filter((v) => v !== k + 1),
              })}
          />
          {name}</label
        >
      {/each}
    </div>
  {:else if test.test === 'last'}
    <label
      >the last <Amount
        value={test.k}
        min={1}
        whole
        onchange={(k) => onchange({ ...test, k })}
      /></label
    >
    <OneOf
      label="Periods"
      value={test.period}
      options={LAST}
      onchange={(period) => onchange({ ...test, period })}
    />
  {/if}
</div>

<style>
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  .wide {
    flex: 1;
  }
  .marks {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
  }
  label {
    display: inline-flex;
    gap: 4px;
    align-items: center;
  }
  small {
    color: var(--ink-soft);
  }
</style>
