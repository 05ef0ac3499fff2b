<script lang="ts">
  import { plainFormat, showNumber, type NumberFormat } from '../../core/table/format';

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
    <select
      class="field"
      value={now.style}
      onchange={(e) => {
        const style = (['plain', 'percent', 'currency'] as const).find(
          (s) => s === e.currentTarget.value,
        );
        if (style) set({ style });
      }}
    >
      <option value="plain">plain</option><option value="percent">percent</option><option
        value="currency">currency</option
      >
    </select></label
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
    <select
      class="field"
      value={now.scale}
      onchange={(e) => {
        const scale = (['one', 'thousand', 'million'] as const).find(
          (s) => s === e.currentTarget.value,
        );
        if (scale) set({ scale });
      }}
    >
      <option value="one">ones</option><option value="thousand">thousands</option><option
        value="million">millions</option
      >
    </select></label
  >
  <label
    >Below zero
    <select
      class="field"
      value={now.negative}
      onchange={(e) =>
        set({ negative: e.currentTarget.value === 'parentheses' ? 'parentheses' : 'minus' })}
    >
      <option value="minus">−1,234</option><option value="parentheses">(1,234)</option>
    </select></label
  >
  <label
    >Means shown with
    <select
      class="field"
      value={String(now.deviation ?? 0)}
      onchange={(e) => {
        const digits = Number(e.currentTarget.value);
        set({ deviation: digits === 1 || digits === 2 ? digits : undefined });
      }}
      data-test="deviation"
    >
      <option value="0">no deviation</option><option value="1">± deviation, 1 digit</option><option
        value="2">± deviation, 2 digits</option
      >
    </select></label
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
