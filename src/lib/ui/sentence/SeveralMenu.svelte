<script lang="ts">
  import type { Choice } from '../../core/tally/sentence/sentence';

  interface Props {
    name: string;
    value: readonly string[];
    choices: readonly Choice[];
    least: number;
    onchange: (values: string[]) => void;
  }
  let { name, value, choices, least, onchange }: Props = $props();

  const turned = (of: string): string[] =>
    value.includes(of) ? value.filter((v) => v !== of) : [...value, of];
</script>

<fieldset>
  <legend class="caps">{name}</legend>
  {#each choices as { value: of, label, note }, k (of)}
    {@const on = value.includes(of)}
    <label
      ><input
        type="checkbox"
        checked={on}
        disabled={on && value.length <= least}
        data-first={k === 0 || undefined}
        onchange={() => onchange(turned(of))}
      />
      {label}{#if note}<small>{note}</small>{/if}</label
    >
  {/each}
</fieldset>

<style>
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: grid;
    gap: 3px;
    max-height: 380px;
    overflow: auto;
  }
  label {
    display: flex;
    gap: 7px;
    align-items: baseline;
  }
  small {
    color: var(--ink-soft);
  }
</style>
