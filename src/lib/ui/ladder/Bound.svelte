<script lang="ts">
  import type { ColumnType } from '../../core/table/column';
  import DatePoint from '../fields/DatePoint.svelte';

  interface Props {
    label: 'From' | 'To';
    type: ColumnType;
    value: number | string;
    /** Whether the bound itself belongs to what is between. */
    included: boolean;
    onvalue: (text: string) => void;
    onincluded: (included: boolean) => void;
  }
  let { label, type, value, included, onvalue, onincluded }: Props = $props();
</script>

{#if type === 'number'}
  <input
    class="field"
    type="number"
    step="any"
    aria-label={label}
    {value}
    oninput={(e) => onvalue(e.currentTarget.value)}
    data-test="condition-{label.toLowerCase()}"
  />
{:else}
  <DatePoint
    {label}
    {type}
    value={String(value)}
    {onvalue}
    test="condition-{label.toLowerCase()}"
  />
{/if}
<label
  ><input
    type="checkbox"
    checked={included}
    onchange={(e) => onincluded(e.currentTarget.checked)}
  /> itself in</label
>

<style>
  label {
    display: inline-flex;
    gap: 4px;
    align-items: center;
  }
</style>
