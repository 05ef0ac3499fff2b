<script lang="ts">
  import { isComplete, newLeaf } from '../../core/selection/choices';
  import type { Condition } from '../../core/selection/condition';
  import { describeCondition } from '../../core/selection/describe';
  import type { BenchState } from '../bench/bench.svelte';
  import ConditionPart from '../ladder/ConditionPart.svelte';

  interface Props {
    bench: BenchState;
    condition: Condition | null;
    /** The name its row goes by; null where it has none. */
    name: string | null;
    needed?: boolean;
    onchange: (condition: Condition | null, name: string | null) => void;
    close: () => void;
  }
  let { bench, condition, name, needed = false, onchange, close }: Props = $props();

  const words = (of: Condition): string => describeCondition(of, bench.names);
  function beginning(): Condition {
    const first = bench.columns.find((c) => c.type === 'text') ?? bench.columns[0];
    return newLeaf(first?.id ?? '', first?.type ?? 'text');
  }
  let draft = $derived<Condition>(condition ?? beginning());
  /** A name that was typed stays; one that only said the condition follows it. */
  let typed = $derived(
    name !== null && condition !== null && name !== words(condition) ? name : '',
  );

  function keep(event: SubmitEvent): void {
    event.preventDefault();
    if (!isComplete(draft)) return;
    close();
    onchange(draft, typed.trim() || null);
  }

  function another(): void {
    const [first] = bench.columns;
    draft = { kind: 'all', not: false, parts: [draft, newLeaf(first.id, first.type)] };
  }
</script>

<form onsubmit={keep}>
  <ConditionPart {bench} condition={draft} onchange={(next) => (draft = next)} />
  {#if draft.kind === 'leaf'}
    <button type="button" class="act" onclick={another}>+ join another condition</button>
  {/if}
  {#if name !== null}
    <label
      >its name
      <input
        class="field"
        bind:value={typed}
        placeholder={isComplete(draft) ? words(draft) : 'the condition itself'}
      /></label
    >
  {/if}
  <div class="acts">
    {#if condition && !needed}
      <button
        type="button"
        class="act"
        onclick={() => {
          close();
          onchange(null, null);
        }}>Take it out</button
      >
    {/if}
    {#if condition}
      <button
        type="button"
        class="act"
        onclick={() => {
          close();
          bench.narrowTo(words(condition), condition);
        }}>Make a step of it</button
      >
    {/if}
    <button
      type="submit"
      class="main-button"
      disabled={!isComplete(draft)}
      data-test="keep-condition">{condition ? 'Change' : 'Add'}</button
    >
  </div>
</form>

<style>
  form {
    display: grid;
    gap: 9px;
    justify-items: start;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    width: 100%;
  }
  label input {
    flex: 1;
  }
  .acts {
    display: flex;
    gap: 14px;
    justify-content: flex-end;
    width: 100%;
  }
</style>
