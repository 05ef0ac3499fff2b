<script lang="ts">
  interface Props {
    label?: string;
    value: number;
    min?: number;
    /** Whether only whole numbers are meant. */
    whole?: boolean;
    test?: string;
    /** NaN while the field is empty. */
    onchange: (value: number) => void;
  }
  let { label, value, min = 0, whole = false, test, onchange }: Props = $props();
</script>

<input
  class="field"
  type="number"
  {min}
  step={whole ? 1 : 'any'}
  aria-label={label}
  {value}
  oninput={(e) => onchange(e.currentTarget.valueAsNumber)}
  data-test={test}
/>

<style>
  input {
    width: 80px;
  }
</style>
