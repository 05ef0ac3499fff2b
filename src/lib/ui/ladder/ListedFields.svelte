<script lang="ts">
  import { onMount } from 'svelte';
  import type { Test } from '../../core/selection/condition';
  import type { ReplyOf } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import OneOf from '../fields/OneOf.svelte';

  type Listed = Extract<Test, { test: 'listed' }>;
  interface Props {
    bench: BenchState;
    /** The column that is asked about. */
    column: string;
    test: Listed;
    onchange: (test: Listed) => void;
  }
  let { bench, column, test, onchange }: Props = $props();
  let other = $state.raw<ReplyOf<'other'> | null>(null);

  const lists = $derived([
    ['', 'Choose a list…'] as const,
    ...bench.lists.names.map((name) => [name, name] as const),
  ]);
  const columns = $derived(other?.columns.map((c) => [c.id, c.name] as const) ?? []);

  async function open(list: string): Promise<ReplyOf<'other'> | null> {
    await bench.lend(list);
    other = await bench.ask('other', { list }, 'other').catch(() => null);
    return other;
  }

  /** Takes a list, and of it the column whose values this one likely has. */
  async function choose(list: string): Promise<void> {
    if (list === '') return;
    const found = await open(list);
    const likely = found?.keys.find((key) => key.column === column)?.with;
    onchange({ ...test, list, column: likely ?? found?.columns[0]?.id ?? '' });
  }

  onMount(() => {
    if (test.list) void open(test.list);
    return () => queueMicrotask(() => void bench.lend(null));
  });
</script>

<label class="listed"
  >List
  <OneOf
    value={test.list}
    options={lists}
    test="listed-list"
    onchange={(list) => void choose(list)}
  /></label
>
{#if columns.length}
  <label class="listed"
    >Its column
    <OneOf
      value={test.column}
      options={columns}
      test="listed-column"
      onchange={(ref) => onchange({ ...test, column: ref })}
    /></label
  >
{/if}

<style>
  .listed {
    display: grid;
    gap: 2px;
    width: 100%;
    color: var(--ink-soft);
    font-size: 13px;
  }
</style>
