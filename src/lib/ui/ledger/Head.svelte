<script lang="ts">
  import { changeColumn, moveColumn } from '../../core/bench/edits';
  import type { Distribution, Head } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Bars from './Bars.svelte';
  import Grip from './Grip.svelte';

  interface Props {
    bench: BenchState;
    head: Head;
    distribution: Distribution | undefined;
    /** Columns in the order shown. */
    order: readonly string[];
    left: number | null;
    onwidth: (width: number | null) => void;
  }
  let { bench, head, distribution, order, left, onwidth }: Props = $props();

  let dropping = $state(false);

  function resize(width: number | null): void {
    const id = head.column;
    if (id)
      bench.change('Resize a column', (doc) =>
        changeColumn(doc, order, id, { width: width ?? undefined }),
      );
  }
  function dropped(event: DragEvent): void {
    dropping = false;
    const id = event.dataTransfer?.getData('application/x-tally-column');
    if (!id || !head.column) return;
    event.preventDefault();
    bench.change('Move a column', (doc) => moveColumn(doc, order, id, head.column));
  }
</script>

<div
  class="head"
  class:right={head.right}
  class:fixed={head.fixed}
  class:dropping
  role="columnheader"
  tabindex="-1"
  style:left={left === null ? undefined : `${left}px`}
  ondragover={(e) => {
    if (e.dataTransfer?.types.includes('application/x-tally-column')) {
      e.preventDefault();
      dropping = true;
    }
  }}
  ondragleave={() => (dropping = false)}
  ondrop={dropped}
>
  <button
    type="button"
    draggable={head.column !== null}
    ondragstart={(e) => e.dataTransfer?.setData('application/x-tally-column', head.column ?? '')}
    onclick={() => head.column && (bench.side = { kind: 'column', column: head.column })}
    title={head.name}
    data-test="head"
  >
    <span class="bars"
      >{#if head.column}<Bars {distribution} />{/if}</span
    >
    <span class="name">{head.name}</span>
    <span class="unit"
      >{head.words && head.figure !== null
        ? `${head.words}${head.unit ? `, ${head.unit}` : ''}`
        : head.unit || ' '}</span
    >
  </button>
  {#if head.column}
    <Grip
      label="Width of {head.name}"
      width={head.width}
      least={50}
      ondrag={onwidth}
      onwidth={resize}
    />
  {/if}
</div>

<style>
  .head {
    position: relative;
    background: var(--paper);
    border-bottom: 1.5px solid var(--rule-strong);
    min-width: 0;
  }
  .fixed {
    position: sticky;
    z-index: 3;
  }
  .dropping {
    box-shadow: inset 3px 0 0 var(--tide);
  }
  button {
    display: grid;
    width: 100%;
    padding: 6px 10px 5px;
    text-align: left;
    background: none;
    border: 0;
    color: inherit;
    font: inherit;
    cursor: pointer;
    justify-items: start;
  }
  .right button {
    justify-items: end;
    text-align: right;
  }
  button:hover .name {
    color: var(--tide);
  }
  button:focus-visible {
    outline-offset: -2px;
  }
  .bars {
    height: 16px;
  }
  .name {
    font-weight: 600;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .unit {
    font-size: 12px;
    color: var(--ink-soft);
    line-height: 1.2;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-height: 1.2em;
  }
</style>
