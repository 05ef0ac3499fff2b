<script lang="ts">
  import Layers from '@lucide/svelte/icons/layers';
  import Link2 from '@lucide/svelte/icons/link-2';
  import Pencil from '@lucide/svelte/icons/pencil';
  import { broughtAs, idOfComputed } from '../../core/prepare/specs';
  import type { BenchState } from '../bench/bench.svelte';

  /** The made columns of a bench. */
  let { bench }: { bench: BenchState } = $props();
  /** The places in a part of the document that are at fault. */
  const faultsOf = (part: 'computed' | 'joins'): Set<number> =>
    new Set(
      (bench.counts?.faults ?? []).flatMap(({ path }) => {
        const [, of, at] = /^(\w+)\[(\d+)\]/.exec(path) ?? [];
        return of === part ? [Number(at)] : [];
      }),
    );
  const readOf = (name: string): string | undefined => {
    const list = bench.lists.followed(name);
    return list ? `${name}, read ${list.readAt}` : undefined;
  };
  const faulty = $derived(faultsOf('computed'));
  const faultyJoins = $derived(faultsOf('joins'));
  const open = $derived(bench.side?.kind === 'made' ? bench.side : null);
</script>

<section class="made" aria-labelledby="made">
  <div class="head">
    <h2 class="caps" id="made">Made columns</h2>
    <button
      type="button"
      class="act"
      title="Make a column (c)"
      aria-pressed={open?.at === null}
      onclick={() => (bench.side = { kind: 'made', of: 'computed', at: null })}
      data-test="new-made">+ New</button
    >
  </div>
  <ul>
    {#each bench.doc.reshape as spec, k (k)}
      <li class="stacked" data-test="stacked-{k}">
        <Layers size={14} aria-hidden="true" />
        <span>{spec.name}, {spec.value}</span>
        <small
          >{spec.do === 'stack'
            ? `stacked from ${spec.columns.length} columns`
            : 'unstacked'}</small
        >
      </li>
    {/each}
    {#each bench.doc.computed as spec, k (idOfComputed(spec))}
      <li class:open={open?.of === 'computed' && open.at === k}>
        <button
          type="button"
          onclick={() => (bench.side = { kind: 'made', of: 'computed', at: k })}
          data-test="made-{k}"
        >
          <Pencil size={14} aria-hidden="true" />
          <span>{spec.name}</span>
          <small class:bad={faulty.has(k)}
            >{faulty.has(k)
              ? 'at fault'
              : `${spec.unit ? `${spec.unit}, ` : ''}${spec.across ? 'across' : spec.window ? 'within groups' : 'worked out'}`}</small
          >
        </button>
      </li>
    {/each}
    {#each bench.doc.joins as join, k (k)}
      <li class:open={open?.of === 'joins' && open.at === k}>
        <button
          type="button"
          onclick={() => (bench.side = { kind: 'made', of: 'joins', at: k })}
          data-test="join-{k}"
        >
          <Link2 size={14} aria-hidden="true" />
          <span>{join.bring.map(broughtAs).join(', ')}</span>
          <small class:bad={faultyJoins.has(k)} title={readOf(join.list)}
            >{faultyJoins.has(k) ? 'at fault' : `from ${join.list}`}</small
          >
        </button>
      </li>
    {/each}
  </ul>
  <button
    type="button"
    class="act small"
    onclick={() => (bench.side = { kind: 'list', of: 'stack' })}
    data-test="stack">Stack columns as records…</button
  >
  <button
    type="button"
    class="act small"
    onclick={() => (bench.side = { kind: 'list', of: 'unstack' })}
    data-test="unstack">Unstack…</button
  >
</section>

<style>
  .made {
    padding: 4px 14px 14px;
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 6px 0;
  }
  li {
    border-radius: 6px;
  }
  li:hover {
    background: var(--band);
  }
  li.open {
    background: var(--tide-wash);
  }
  .stacked {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 5px 8px;
  }
  li button {
    width: 100%;
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 5px 8px;
    background: none;
    border: 0;
    font: inherit;
    color: inherit;
    text-align: left;
    cursor: pointer;
  }
  span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    color: var(--ink-soft);
    white-space: nowrap;
  }
  .small {
    font-size: 13px;
  }
  .bad {
    color: var(--bad);
  }
</style>
