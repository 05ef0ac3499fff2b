<script lang="ts">
  import { differenceKey, differenceWords } from '../../core/read/refresh';
  import type { IntakeState } from './intake.svelte';

  let { intake }: { intake: IntakeState } = $props();
</script>

<section class="differences" aria-label="Differences from the list">
  <h2 class="caps">Different from the list</h2>
  {#each intake.differences as d (differenceKey(d))}
    {@const words = differenceWords(d)}
    {@const key = differenceKey(d)}
    {#if intake.adds}
      <p><b>{words.asks}</b> {words.added}</p>
    {:else}
      <fieldset>
        <legend>{words.asks}</legend>
        <label
          ><input
            type="radio"
            name={key}
            checked={intake.decisions.get(key) === true}
            onchange={() => intake.decideOn(d, true)}
          />
          {words.keep}</label
        >
        <label
          ><input
            type="radio"
            name={key}
            checked={intake.decisions.get(key) === false}
            onchange={() => intake.decideOn(d, false)}
          />
          {words.follow}</label
        >
      </fieldset>
    {/if}
  {/each}
</section>

<style>
  .differences {
    padding: 10px 20px;
    background: var(--brass-wash);
    border-bottom: 1px solid var(--rule);
    max-height: 34%;
    overflow: auto;
  }
  fieldset {
    border: 0;
    padding: 5px 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
  }
  legend {
    font-weight: 600;
    padding: 0;
    float: left;
    margin-right: 14px;
  }
</style>
