<script lang="ts">
  interface Props {
    label: 'From' | 'To';
    type: string;
    value: number | string;
    /** Whether the bound itself belongs to what is between. */
    included: boolean;
    onvalue: (text: string) => void;
    onincluded: (included: boolean) => void;
  }
  let { label, type, value, included, onvalue, onincluded }: Props = $props();
</script>

<input
  class="field"
  {type}
  step="any"
  aria-label={label}
  {value}
  oninput={(e) => onvalue(e.currentTarget.value)}
  data-test="condition-{label.toLowerCase()}"
/>
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
