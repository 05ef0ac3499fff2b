<script lang="ts">
  import { MONTHS, WEEKDAYS } from '../../core/table/calendar';
  import type { Test } from '../../core/scope/condition';
  import type { BenchState } from '../bench/bench.svelte';
  import ValuePicker from './ValuePicker.svelte';

  interface Props {
    bench: BenchState;
    column: string;
    type: string;
    test: Test;
    onchange: (test: Test) => void;
  }
  let { bench, column, type, test, onchange }: Props = $props();

  const kind = $derived(type === 'number' ? 'number' : type === 'time' ? 'time' : 'date');
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
    <input
      class="field"
      type={kind}
      step="any"
      aria-label="Value"
      value={test.value}
      oninput={(e) => onchange({ ...test, value: read(e.currentTarget.value) })}
      data-test="condition-value"
    />
  {:else if test.test === 'between'}
    <input
      class="field"
      type={kind}
      step="any"
      aria-label="From"
      value={test.from}
      oninput={(e) => onchange({ ...test, from: read(e.currentTarget.value) })}
      data-test="condition-from"
    />
    <label
      ><input
        type="checkbox"
        checked={test.fromIn}
        onchange={(e) => onchange({ ...test, fromIn: e.currentTarget.checked })}
      /> itself in</label
    >
    <span>and</span>
    <input
      class="field"
      type={kind}
      step="any"
      aria-label="To"
      value={test.to}
      oninput={(e) => onchange({ ...test, to: read(e.currentTarget.value) })}
      data-test="condition-to"
    />
    <label
      ><input
        type="checkbox"
        checked={test.toIn}
        onchange={(e) => onchange({ ...test, toIn: e.currentTarget.checked })}
      /> itself in</label
    >
  {:else if test.test === 'extreme'}
    <select
      class="field"
      aria-label="Side"
      value={test.side}
      onchange={(e) =>
        onchange({ ...test, side: e.currentTarget.value === 'lowest' ? 'lowest' : 'highest' })}
    >
      <option value="highest">highest</option><option value="lowest">lowest</option>
    </select>
    <input
      class="field short"
      type="number"
      min="0"
      step="any"
      aria-label="How many"
      value={test.k}
      oninput={(e) => onchange({ ...test, k: e.currentTarget.valueAsNumber })}
      data-test="condition-value"
    />
    <select
      class="field"
      aria-label="Of"
      value={test.of}
      onchange={(e) =>
        onchange({ ...test, of: e.currentTarget.value === 'percent' ? 'percent' : 'records' })}
    >
      <option value="records">records</option><option value="percent">% of them</option>
    </select>
    <small>Ties at the edge stay in.</small>
  {:else if test.test === 'mean'}
    <select
      class="field"
      aria-label="Side"
      value={test.side}
      onchange={(e) =>
        onchange({ ...test, side: e.currentTarget.value === 'below' ? 'below' : 'above' })}
    >
      <option value="above">above the mean</option><option value="below">below the mean</option>
    </select>
  {:else if test.test === 'deviations'}
    <label
      >more than <input
        class="field short"
        type="number"
        min="0"
        step="any"
        value={test.k}
        oninput={(e) => onchange({ ...test, k: e.currentTarget.valueAsNumber })}
      /> standard deviations</label
    >
  {:else if test.test === 'outlying'}
    <label
      ><input
        class="field short"
        type="number"
        min="0"
        step="any"
        value={test.k}
        oninput={(e) => onchange({ ...test, k: e.currentTarget.valueAsNumber })}
      /> interquartile ranges beyond the quartiles</label
    >
  {:else if test.test === 'period'}
    <label
      >the
      <select
        class="field"
        value={test.period}
        onchange={(e) => {
          const period = (['year', 'quarter', 'month', 'week'] as const).find(
            (p) => p === e.currentTarget.value,
          );
          if (period) onchange({ ...test, period });
        }}
      >
        <option>year</option><option>quarter</option><option>month</option><option>week</option>
      </select></label
    >
    <label
      >of <input
        class="field"
        type="date"
        value={test.days[0]}
        oninput={(e) => onchange({ ...test, days: [e.currentTarget.value] })}
        data-test="condition-value"
      /></label
    >
  {:else if test.test === 'season'}
    <select
      class="field"
      aria-label="Months, quarters or weekdays"
      value={test.of}
      onchange={(e) => {
        const of = (['month', 'quarter', 'weekday'] as const).find(
          (p) => p === e.currentTarget.value,
        );
        if (of) onchange({ ...test, of, values: [1] });
      }}
    >
      <option value="month">months</option><option value="quarter">quarters</option><option
        value="weekday">weekdays</option
      >
    </select>
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
      >the last <input
        class="field short"
        type="number"
        min="1"
        value={test.k}
        oninput={(e) => onchange({ ...test, k: e.currentTarget.valueAsNumber })}
      /></label
    >
    <select
      class="field"
      aria-label="Periods"
      value={test.period}
      onchange={(e) => {
        const period = (['day', 'week', 'month', 'quarter', 'half', 'year'] as const).find(
          (p) => p === e.currentTarget.value,
        );
        if (period) onchange({ ...test, period });
      }}
    >
      <option value="day">days</option><option value="week">weeks</option><option value="month"
        >months</option
      ><option value="quarter">quarters</option><option value="half">half-years</option><option
        value="year">years</option
      >
    </select>
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
  .short {
    width: 80px;
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
