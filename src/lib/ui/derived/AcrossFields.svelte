<script lang="ts">
  import type { AcrossSpec } from '../../core/prepare/specs';
  import OneOf from '../fields/OneOf.svelte';
  import ColumnsTaken from './ColumnsTaken.svelte';

  interface Props {
    across: AcrossSpec;
    /** Columns that can be taken together. */
    columns: readonly { readonly id: string; readonly name: string; readonly unit: string }[];
    onchange: (across: AcrossSpec) => void;
  }
  let { across, columns, onchange }: Props = $props();

  const MEASURES = [
    ['sum', 'the total'],
    ['mean', 'the mean'],
    ['median', 'the median'],
    ['max', 'the highest'],
    ['min', 'the lowest'],
    ['second', 'the second highest'],
    ['lead', 'the lead, highest − second highest'],
    ['range', 'the range, highest − lowest'],
    ['sd', 'the spread, standard deviation'],
    ['values', 'how many have a value'],
    ['blanks', 'how many are blank'],
    ['distinct', 'how many different values'],
    ['highestColumn', 'which column holds the highest'],
    ['lowestColumn', 'which column holds the lowest'],
    ['product', 'the product'],
    ['geometricMean', 'the geometric mean'],
  ] as const;
</script>

<div class="fields">
  <label
    >In each record
    <OneOf
      value={across.measure}
      options={MEASURES}
      test="across-measure"
      onchange={(measure) => onchange({ ...across, measure })}
    /></label
  >
  <ColumnsTaken
    {columns}
    taken={across.columns}
    onchange={(ids) => onchange({ ...across, columns: ids })}
  />
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  label {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
  }
</style>
