<script lang="ts" generics="V extends string">
  interface Props {
    /** For those who do not see what stands around it; left out inside a label. */
    label?: string;
    value: V;
    /** Values with their words. */
    options: readonly (readonly [V, string])[];
    test?: string;
    onchange: (value: V) => void;
  }
  let { label, value, options, test, onchange }: Props = $props();

  function chosen(text: string): void {
    const found = options.find(([v]) => v === text);
    if (found) onchange(found[0]);
  }
</script>

<select
  class="field"
  aria-label={label}
  {value}
  onchange={(e) => chosen(e.currentTarget.value)}
  data-test={test}
>
  {#each options as [option, words] (option)}<option value={option}>{words}</option>{/each}
</select>
