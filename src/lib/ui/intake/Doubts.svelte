<script lang="ts">
  import { showCount } from '../../core/table/format';
  import { ACCOUNT_MARKS } from '../../core/read/numbers';
  import type { IntakeState } from './intake.svelte';

  interface Props {
    intake: IntakeState;
    onchoose: (column: string) => void;
  }
  let { intake, onchoose }: Props = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<section class="doubts" aria-labelledby="doubts" tabindex="0" data-test="doubts">
  <h2 class="caps" id="doubts">Doubts</h2>
  {#each intake.doubts as d, k (k)}
    <div class="doubt-line">
      <details class:asks={d.asks} open={d.asks || d.kind === 'totals'}>
        <summary>{d.words}</summary>
        {#if d.kind === 'totals'}
          <label class="totals"
            ><input type="checkbox" bind:checked={intake.setTotalsAside} /> Set {d.count === 1
              ? 'it'
              : 'them'} aside, so that nothing counts twice</label
          >
          {#if intake.refreshed === null && intake.setTotalsAside}
            <label class="totals"
              ><input type="checkbox" bind:checked={intake.keepStated} data-test="keep-stated" /> Keep
              a total of the whole file as a known total, beside its figure</label
            >
          {/if}
        {/if}
        {#if d.places.length}
          <ul>
            {#each d.places as place (place.record)}<li>
                record {showCount(place.record)}: {place.text || '–'}
              </li>{/each}
            {#if d.count > d.places.length}<li>
                and {showCount(d.count - d.places.length)} more
              </li>{/if}
          </ul>
        {/if}
      </details>
      {#if d.kind === 'years' && d.column}
        <button
          type="button"
          class="act"
          onclick={() => d.column && intake.changeColumn(d.column, { type: 'date', grain: 'year' })}
          data-test="as-years">Read them as years</button
        >
      {/if}
      {#if d.kind === 'dayNumbers' && d.column}
        <button
          type="button"
          class="act"
          onclick={() => d.column && intake.readAsDays(d.column)}
          data-test="as-days">Read them as days</button
        >
      {/if}
      {#if d.kind === 'accountMarks' && d.column}
        {#each ACCOUNT_MARKS as mark (mark)}
          <button
            type="button"
            class="act"
            onclick={() => d.column && intake.changeColumn(d.column, { takenOff: mark })}
            data-test="takes-off">{mark} takes off</button
          >
        {/each}
      {/if}
      {#if d.column}
        <button type="button" class="act" onclick={() => d.column && onchoose(d.column)}
          >Change how it is read</button
        >
      {/if}
    </div>
  {:else}
    <p class="soft">Every cell was read, no record stands twice, none looks like a total.</p>
  {/each}
</section>

<style>
  .doubts {
    flex: 0 1 auto;
    max-height: 38%;
    overflow: auto;
    border-top: 1px solid var(--rule-strong);
    background: var(--panel);
    padding: 10px 20px 16px;
  }
  details {
    flex: 1;
    padding: 4px 0;
  }
  .asks summary {
    color: var(--plum);
    font-weight: 600;
  }
  summary {
    cursor: pointer;
  }
  .doubt-line {
    display: flex;
    gap: 16px;
    align-items: baseline;
    border-bottom: 1px solid var(--rule);
  }
  .doubt-line button {
    flex: none;
  }
  details ul {
    margin: 4px 0 6px;
    padding-left: 22px;
    color: var(--ink-soft);
    columns: 2;
    overflow-wrap: anywhere;
  }
  .totals {
    display: flex;
    gap: 6px;
    padding: 4px 0 0 18px;
  }
  .soft {
    color: var(--ink-soft);
  }
</style>
