<script lang="ts">
  interface Props {
    name: string;
    value: number | null;
    least: number;
    most: number;
    whole: boolean;
    needed?: boolean;
    onchange: (value: number | null) => void;
    close: () => void;
  }
  let { name, value, least, most, whole, needed = false, onchange, close }: Props = $props();
  let text = $derived(value === null ? '' : String(value));
  let wrong = $state('');

  /** Takes what was typed as soon as it is a number that may stand here. */
  function take(typed: string): void {
    text = typed;
    const number = Number(typed.replace('−', '-').replaceAll(',', ''));
    if (typed.trim() === '') wrong = needed ? 'A number is needed here.' : '';
    else if (!Number.isFinite(number)) wrong = 'Type a number.';
    else if (whole && !Number.isInteger(number)) wrong = 'Type a whole number.';
    else if (number < least || number > most) wrong = `Type a number from ${least} to ${most}.`;
    else {
      wrong = '';
      if (number !== value) onchange(number);
    }
  }
</script>

<label
  >{name}
  <input
    class="field"
    inputmode="decimal"
    value={text}
    data-first
    data-test="number"
    onchange={(e) => take(e.currentTarget.value)}
    onkeydown={(e) => {
      if (e.key === 'Enter') {
        take(e.currentTarget.value);
        if (!wrong) close();
      }
      const by = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0;
      if (by === 0) return;
      e.preventDefault();
      take(String(Number(text || 0) + by));
    }}
  /></label
>
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
{#if !needed && value !== null}
  <button
    type="button"
    class="act"
    onclick={() => {
      close();
      onchange(null);
    }}>Take it out</button
  >
{/if}

<style>
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    justify-content: space-between;
    margin-bottom: 6px;
  }
  input {
    width: 110px;
    text-align: right;
  }
  .wrong {
    color: var(--bad);
    margin: 0 0 6px;
  }
</style>
