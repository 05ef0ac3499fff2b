<script lang="ts">
  import { readNumbers } from './bandsText';

  interface Props {
    name: string;
    value: readonly number[];
    least: number;
    most: number;
    usual: readonly { readonly label: string; readonly values: readonly number[] }[];
    onchange: (values: number[]) => void;
    close: () => void;
  }
  let { name, value, least, most, usual, onchange, close }: Props = $props();
  let wrong = $state('');

  function take(text: string): boolean {
    const read = readNumbers(text);
    if ('wrong' in read) wrong = read.wrong;
    else if (read.numbers.some((n) => n < least || n > most))
      wrong = `Each must lie from ${least} to ${most}.`;
    else {
      wrong = '';
      const sorted = [...new Set(read.numbers)].sort((a, b) => a - b);
      if (sorted.join() !== value.join()) onchange(sorted);
    }
    return wrong === '';
  }
</script>

<label
  >{name}, with commas
  <input
    class="field"
    value={value.join(', ')}
    data-first
    data-test="numbers"
    onchange={(e) => take(e.currentTarget.value)}
    onkeydown={(e) => e.key === 'Enter' && take(e.currentTarget.value) && close()}
  /></label
>
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
{#each usual as { label, values } (label)}
  <button
    type="button"
    class="act"
    onclick={() => {
      close();
      onchange([...values]);
    }}>{label}</button
  >
{/each}

<style>
  label {
    display: grid;
    gap: 4px;
    margin-bottom: 6px;
  }
  .act {
    display: block;
  }
  .wrong {
    color: var(--bad);
    margin: 0 0 6px;
  }
</style>
