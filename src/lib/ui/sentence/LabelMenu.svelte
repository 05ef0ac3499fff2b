<script lang="ts">
  import { showCount } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import Choices from '../components/Choices.svelte';

  /** One of the values of a column, with how many counted records have it. */
  interface Props {
    bench: BenchState;
    name: string;
    column: string;
    value: string;
    onchange: (label: string) => void;
    close: () => void;
  }
  let { bench, name, column, value, onchange, close }: Props = $props();
  const MOST = 400;
  let choices = $state.raw<{ value: string; label: string; note: string }[] | null>(null);

  $effect(() => {
    bench.ask('values', { column, search: '', limit: MOST }).then(
      ({ items, blank }) => {
        choices = items.map(({ text, count }) => ({
          value: text,
          label: text,
          note: showCount(count),
        }));
        if (blank) choices.push({ value: 'blank', label: 'blank', note: showCount(blank) });
      },
      () => (choices = []),
    );
  });
</script>

{#if choices}
  <Choices
    {name}
    {choices}
    chosen={value}
    search={choices.length > 8}
    onchoose={(label) => {
      close();
      onchange(label);
    }}
  />
{:else}
  <p>Reading the values…</p>
{/if}
