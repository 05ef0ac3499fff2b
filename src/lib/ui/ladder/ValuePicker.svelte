<script lang="ts">
  import { showCount } from '../../core/table/format';
  import type { ReplyOf } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';

  interface Props {
    bench: BenchState;
    column: string;
    values: readonly string[];
    onchange: (values: string[]) => void;
  }
  let { bench, column, values, onchange }: Props = $props();
  let search = $state('');
  let found = $state.raw<ReplyOf<'values'>>({ items: [], more: 0, blank: 0 });

  $effect(() => {
    bench.ask('values', { column, search, limit: 200 }).then(
      (reply) => (found = reply),
      () => {},
    );
  });

  const turn = (text: string, on: boolean): void =>
    onchange(on ? [...values, text] : values.filter((v) => v !== text));
</script>

<div class="picker">
  <input
    class="field"
    placeholder="Find a value…"
    aria-label="Find a value"
    bind:value={search}
    data-test="value-search"
  />
  <div class="values" role="group" aria-label="Values">
    {#each found.items as { text, count } (text)}
      <label>
        <input
          type="checkbox"
          checked={values.includes(text)}
          onchange={(e) => turn(text, e.currentTarget.checked)}
        />
        <span>{text}</span><small>{showCount(count)}</small>
      </label>
    {/each}
    {#if found.more > 0}<p>{showCount(found.more)} more: narrow the search.</p>{/if}
  </div>
</div>

<style>
  .picker {
    display: grid;
    gap: 6px;
    width: 100%;
  }
  .values {
    max-height: 190px;
    overflow: auto;
    display: grid;
    gap: 1px;
  }
  label {
    display: flex;
    gap: 8px;
    padding: 2px 4px;
    align-items: baseline;
  }
  small {
    margin-left: auto;
    color: var(--ink-soft);
  }
  p {
    margin: 4px;
    color: var(--ink-soft);
  }
</style>
