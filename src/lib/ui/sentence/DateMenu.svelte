<script lang="ts">
  import { daysCovered } from '../../core/scope/point';
  import { isoDate } from '../../core/table/calendar';
  import DatePoint from '../fields/DatePoint.svelte';

  interface Props {
    name: string;
    value: string | null;
    onchange: (day: string | null) => void;
    close: () => void;
  }
  let { name, value, onchange, close }: Props = $props();
  /** What is being typed, until it can be read. */
  let typed = $state<string | null>(null);

  function take(text: string): void {
    const days = daysCovered(text.trim());
    if (days) onchange(isoDate(days.from));
  }
</script>

<div class="point">
  <span>{name}: a day in it, or its name</span>
  <DatePoint
    label={name}
    type="date"
    value={typed ?? value ?? ''}
    onvalue={(text) => (typed = text)}
    onsettled={take}
    test="day"
    first
  />
</div>
{#if value !== null}
  <button
    type="button"
    class="act"
    onclick={() => {
      close();
      onchange(null);
    }}>As the data say</button
  >
{/if}

<style>
  .point {
    display: grid;
    gap: 5px;
    margin-bottom: 6px;
  }
</style>
