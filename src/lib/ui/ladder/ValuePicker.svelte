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
  /** The choice whose spellings are chosen one by one. */
  let apart = $state<string | null>(null);

  $effect(() => {
    bench.ask('values', { column, search, limit: 200 }).then(
      (reply) => (found = reply),
      () => {},
    );
  });

  const turn = (texts: readonly string[], on: boolean): void => {
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
    {#each found.items as { text, count, spellings } (text)}
      {@const texts = spellings.map((s) => s.text)}
      {@const chosen = texts.filter((t) => values.includes(t)).length}
      <div class="choice">
        <label>
          <input
            type="checkbox"
            checked={chosen > 0}
            indeterminate={chosen > 0 && chosen < texts.length}
            onchange={(e) => turn(texts, e.currentTarget.checked)}
          />
          <span>{text}</span><small>{showCount(count)}</small>
        </label>
        {#if texts.length > 1}
          <button
            type="button"
            class="act spellings"
            aria-expanded={apart === text}
            title="They look the same, and are chosen together. Choose them apart here."
            onclick={() => (apart = apart === text ? null : text)}>{texts.length} spellings</button
          >
        {/if}
      </div>
      {#if apart === text}
        {#each spellings as spelling (spelling.text)}
          <label class="spelling">
            <input
              type="checkbox"
              checked={values.includes(spelling.text)}
              onchange={(e) => turn([spelling.text], e.currentTarget.checked)}
            />
            <span>“{spelling.text}”</span><small>{showCount(spelling.count)}</small>
          </label>
        {/each}
      {/if}
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
  .choice {
    display: flex;
    align-items: baseline;
    min-width: 0;
  }
  label {
    flex: 1;
    min-width: 0;
    display: flex;
    gap: 8px;
    padding: 2px 4px;
    align-items: baseline;
  }
  .spelling {
    padding-left: 26px;
    white-space: pre-wrap;
  }
  .spellings {
    color: var(--plum);
    font-size: 12px;
    white-space: nowrap;
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
