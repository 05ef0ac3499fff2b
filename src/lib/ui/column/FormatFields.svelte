<script lang="ts">
  import { plainFormat, showNumber, type NumberFormat } from '../../core/table/format';

  import OneOf from '../fields/OneOf.svelte';

  const STYLES = [
    ['plain', 'plain'],
    ['percent', 'percent'],
    ['currency', 'currency'],
  ] as const;
  const SCALES = [
    ['one', 'ones'],
    ['thousand', 'thousands'],
    ['million', 'millions'],
  ] as const;
  const BELOW_ZERO = [
    ['minus', '−1,234'],
    ['parentheses', '(1,234)'],
  ] as const;
  const DEVIATIONS = [
    ['0', 'no deviation'],
    ['1', '± deviation, 1 digit'],
    ['2', '± deviation, 2 digits'],
  ] as const;

  interface Props {
    /** null: as the file had it. */
    format: NumberFormat | null;
    onchange: (format: NumberFormat | null) => void;
  }
  let { format, onchange }: Props = $props();
  const now = $derived(format ?? plainFormat);
  const set = (change: Partial<NumberFormat>): void => onchange({ ...now, ...change });
  const whole = (text: string): number | undefined =>
    text === '' ? undefined : Math.max(0, Math.min(12, Math.round(Number(text))));
</script>

<div class="fields">
  <label
    >Decimals <input
      class="field"
      type="number"
      min="0"
      max="12"
      value={now.decimals ?? ''}
      onchange={(e) => set({ decimals: whole(e.currentTarget.value), significant: undefined })}
      data-test="decimals"
    /></label
  >
  <label
    >Significant digits
    <input
      class="field"
      type="number"
      min="1"
      max="15"
      value={now.significant ?? ''}
      onchange={(e) =>
        set({
          significant:
            e.currentTarget.value === ''
              ? undefined
              : Math.max(1, Math.min(15, Math.round(e.currentTarget.valueAsNumber))),
        })}
    /></label
  >
  <label
    >Style
    <OneOf value={now.style} options={STYLES} onchange={(style) => set({ style })} /></label
  >
  {#if now.style === 'currency'}<label
      >Sign <input
        class="field"
        maxlength="4"
        value={now.currency}
        onchange={(e) => set({ currency: e.currentTarget.value })}
      /></label
    >{/if}
  <label
    >Scale
    <OneOf value={now.scale} options={SCALES} onchange={(scale) => set({ scale })} /></label
  >
  <label
    >Below zero
    <OneOf
      value={now.negative}
      options={BELOW_ZERO}
      onchange={(negative) => set({ negative })}
    /></label
  >
  <label
    >Means shown with
    <OneOf
      value={now.deviation === 1 ? '1' : now.deviation === 2 ? '2' : '0'}
      options={DEVIATIONS}
      test="deviation"
      onchange={(digits) => set({ deviation: digits === '0' ? undefined : digits === '1' ? 1 : 2 })}
    /></label
  >
  <label class="wide"
    ><input
      type="checkbox"
      checked={now.thousands}
      onchange={(e) => set({ thousands: e.currentTarget.checked })}
    /> thousands marks</label
  >
  <p class="wide">
    1234.5 shows as {showNumber(1234.5, now, 2)}.
    <button type="button" class="act" onclick={() => onchange(null)} disabled={format === null}
      >As the file had it</button
    >
  </p>
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px 10px;
  }
  label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
  }
  .wide {
    grid-column: 1 / -1;
    display: block;
    margin: 0;
  }
</style>
