<script lang="ts">
  import { followsOrder, WINDOW_TYPES, type WindowSpec } from '../../core/prepare/specs';
  import OneOf from '../fields/OneOf.svelte';

  /** A figure of each record among those of its group. */
  interface Props {
    window: WindowSpec;
    columns: readonly {
      readonly id: string;
      readonly name: string;
      readonly type: string;
    }[];
    onchange: (window: WindowSpec) => void;
  }
  let { window, columns, onchange }: Props = $props();

  const FIGURES = [
    ['rank', 'its rank'],
    ['percentileRank', 'its percentile rank'],
    ['running', 'the running total up to it'],
    ['share', 'its share of the group’s sum'],
    ['previous', 'the value of the record before'],
    ['change', 'the change from the record before'],
    ['number', 'its number in the order, 1, 2, 3 …'],
  ] as const;
  const NONE = '';
  const suitingOf = (figure: WindowSpec['figure']): typeof columns =>
    columns.filter((c) => WINDOW_TYPES[figure].some((type) => type === c.type));
  const suiting = $derived(suitingOf(window.figure));
  const inOrder = $derived(followsOrder(window.figure));
  const named = (of: typeof columns): (readonly [string, string])[] =>
    of.map(({ id, name }) => [id, name] as const);
  const order = $derived(window.order[0]);

  function measured(figure: WindowSpec['figure']): void {
    const fit = suitingOf(figure);
    const of = fit.some(({ id }) => id === window.of) ? window.of : fit[0]?.id;
    onchange({ ...window, figure, of });
  }
  function grouped(at: number, id: string): void {
    const by = [...window.by];
    if (id === NONE) by.splice(at);
    else by[at] = id;
    onchange({ ...window, by });
  }
  const ordered = (column: string, descending: boolean): void =>
    onchange({
      ...window,
      order: column === NONE ? [] : [{ column, descending, blanks: 'last' }],
    });
</script>

<div class="fields">
  <label
    >Of each record
    <OneOf
      value={window.figure}
      options={FIGURES}
      test="window-figure"
      onchange={measured}
    /></label
  >
  {#if window.figure !== 'number'}
    <label
      >of
      <OneOf
        value={window.of ?? ''}
        options={named(suiting)}
        test="window-of"
        onchange={(of) => onchange({ ...window, of })}
      /></label
    >
  {/if}
  {#if window.figure === 'rank'}
    <label
      >with 1 for the
      <OneOf
        value={window.descending ? 'highest' : 'lowest'}
        options={[
          ['highest', 'highest'],
          ['lowest', 'lowest'],
        ]}
        test="window-descending"
        onchange={(end) => onchange({ ...window, descending: end === 'highest' })}
      /></label
    >
  {/if}
  {#each [...window.by, NONE].slice(0, 3) as by, k (k)}
    <label
      >{k === 0 ? 'within each' : 'and'}
      <OneOf
        value={by}
        options={[[NONE, k === 0 ? 'the whole list' : '—'], ...named(columns)]}
        test="window-by-{k}"
        onchange={(id) => grouped(k, id)}
      /></label
    >
  {/each}
  {#if inOrder}
    <label
      >in the order of
      <OneOf
        value={order?.column ?? NONE}
        options={[[NONE, 'the file'], ...named(columns)]}
        test="window-order"
        onchange={(column) => ordered(column, order?.descending ?? false)}
      /></label
    >
    {#if order}
      <label
        >from the
        <OneOf
          value={order.descending ? 'last' : 'first'}
          options={[
            ['first', 'first to the last'],
            ['last', 'last to the first'],
          ]}
          onchange={(way) => ordered(order.column, way === 'last')}
        /></label
      >
    {/if}
  {/if}
  <p>All records of the list take part, whatever counts.</p>
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  label {
    display: grid;
    grid-template-columns: 104px minmax(0, 1fr);
    gap: 8px;
    align-items: center;
    color: var(--ink-soft);
    font-size: 13px;
  }
  p {
    margin: 0;
    color: var(--ink-soft);
    font-size: 13px;
  }
</style>
