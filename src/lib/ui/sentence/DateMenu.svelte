<script lang="ts">
  import { daysCovered } from '../../core/selection/point';
  import { isoDate } from '../../core/table/calendar';
  import { daysNamed } from '../../core/table/periodName';
  import type { CalendarPeriod } from '../../core/table/period';
  import { PERIOD_FORMS } from '../../core/tally/series/periodNamed';
  import DatePoint from '../fields/DatePoint.svelte';

  interface Props {
    name: string;
    /** What is named: the name of one is shown as an example. */
    period: CalendarPeriod;
    value: string | null;
    onchange: (name: string | null) => void;
    close: () => void;
  }
  let { name, period, value, onchange, close }: Props = $props();
  const example = $derived(PERIOD_FORMS[period]);
  /** What is being typed, until it can be read. */
  let typed = $state<string | null>(null);

  function take(text: string): void {
    const days = daysCovered(text.trim());
    if (daysNamed(text.trim())) onchange(text.trim());
    else if (days) onchange(isoDate(days.from));
  }
</script>

<div class="point">
  <span>{name}: its name ({example}), or a day in it</span>
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
