<script lang="ts">
  import { MONTHS, WEEKDAYS } from '../../core/table/calendar';
  import { USUAL_CALENDAR, type Calendar } from '../../core/table/period';
  import OneOf from '../fields/OneOf.svelte';

  /** Where years and weeks of a group of dates begin. */
  interface Props {
    calendar: Calendar | undefined;
    onchange: (calendar: Calendar) => void;
  }
  let { calendar, onchange }: Props = $props();
  const now = $derived(calendar ?? USUAL_CALENDAR);
  const numbered = (words: readonly string[]): [string, string][] =>
    words.map((word, k) => [String(k + 1), word]);
</script>

<details open={calendar !== undefined}>
  <summary>Years and weeks</summary>
  <label
    >years start in <OneOf
      value={String(now.yearStartsIn)}
      options={numbered(MONTHS)}
      onchange={(month) => onchange({ ...now, yearStartsIn: Number(month) })}
    /></label
  >
  {#if now.yearStartsIn !== 1}
    <label
      >and are named by their <OneOf
        value={now.yearNamedBy}
        options={[
          ['start', 'start'],
          ['end', 'end'],
        ]}
        onchange={(yearNamedBy) => onchange({ ...now, yearNamedBy })}
      /></label
    >
  {/if}
  <label
    >weeks start on <OneOf
      value={String(now.weekStartsOn)}
      options={numbered(WEEKDAYS)}
      onchange={(day) => onchange({ ...now, weekStartsOn: Number(day) })}
    /></label
  >
</details>

<style>
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    margin-top: 5px;
  }
  summary {
    cursor: pointer;
    color: var(--tide);
  }
</style>
