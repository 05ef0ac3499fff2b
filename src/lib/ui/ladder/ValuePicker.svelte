<script lang="ts">
  import { showCount } from '../../core/table/format';
  import type { ReplyOf } from '../../engine/protocol';
  import { alikeValues, type AlikeValues } from './alikeValues';
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

  const choices = $derived(alikeValues(found.items));
  const turn = ({ texts }: AlikeValues, on: boolean): void => {
    const others = values.filter((v) => !texts.includes(v));
    onchange(on ? [...others, ...texts] : others);
  };
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
    {#each choices as choice (choice.text)}
      <label
        title={choice.texts.length > 1
          ? `Written ${choice.texts.length} ways, which differ only in case or outer spaces: ${choice.texts.map((t) => `“${t}”`).join(', ')}`
          : undefined}
      >
        <input
          type="checkbox"
          checked={choice.texts.some((t) => values.includes(t))}
          onchange={(e) => turn(choice, e.currentTarget.checked)}
        />
        <span
          >{choice.text}{#if choice.texts.length > 1}<em>
              {choice.texts.length} spellings</em
            >{/if}</span
        ><small>{showCount(choice.count)}</small>
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
    min-width: 0;
  }
  .picker .field {
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
  em {
    color: var(--plum);
    font-size: 12px;
    margin-left: 5px;
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
