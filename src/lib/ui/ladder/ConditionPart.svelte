<script lang="ts">
  import OneOf from '../fields/OneOf.svelte';
  import type { Condition, Joined, Leaf } from '../../core/selection/condition';
  import { describeCondition } from '../../core/selection/describe';
  import { choicesFor, newLeaf } from '../../core/selection/choices';
  import type { BenchState } from '../bench/bench.svelte';
  import ConditionPart from './ConditionPart.svelte';
  import type { ColumnType } from '../../core/table/column';
  import { usedAs } from '../sentence/columnNote';
  import TestFields from './TestFields.svelte';

  interface Props {
    bench: BenchState;
    condition: Condition;
    onchange: (condition: Condition) => void;
    onremove?: () => void;
    depth?: number;
  }
  let { bench, condition, onchange, onremove, depth = 0 }: Props = $props();

  const JOINS = [
    ['all', 'all of these (and)'],
    ['any', 'any of these (or)'],
    ['none', 'none of these (blanks stay)'],
  ] as const;
  const EXAMPLE = '"Fares taken" / NULLIF(Boarded, 0) > 20';
  function typeOf(id: string): ColumnType {
    const column = bench.column(id);
    return column ? usedAs(column) : 'text';
  }

  const setPart = (joined: Joined, k: number, part: Condition): Joined => ({
    ...joined,
    parts: joined.parts.map((p, at) => (at === k ? part : p)),
  });
  const addPart = (joined: Joined, part: Condition): Joined => ({
    ...joined,
    parts: [...joined.parts, part],
  });

  function dropPart(joined: Joined, k: number): void {
    const parts = joined.parts.filter((_, at) => at !== k);
    if (parts.length === 0) onremove?.();
    else onchange({ ...joined, parts });
  }

  function setColumn(leaf: Leaf, id: string): void {
    const keeps =
      choicesFor(typeOf(id)).some((c) => c.is(leaf.test)) &&
      typeOf(id) === typeOf(leaf.column) &&
      leaf.test.test !== 'is';
    onchange(keeps ? { ...leaf, column: id } : { ...newLeaf(id, typeOf(id)), not: leaf.not });
  }

  const another = (): Leaf => {
    const column = condition.kind === 'leaf' ? condition.column : (bench.columns[0]?.id ?? '');
    return newLeaf(column, typeOf(column));
  };
</script>

{#if condition.kind === 'expression'}
  {@const byExpression = condition}
  <label class="expression"
    >Records for which this holds
    <textarea
      class="field"
      rows="3"
      spellcheck="false"
      placeholder={EXAMPLE}
      value={byExpression.expression}
      oninput={(e) => onchange({ ...byExpression, expression: e.currentTarget.value })}
      data-test="condition-expression"></textarea></label
  >
{:else if condition.kind === 'records'}
  <p class="named" data-test="condition-records">
    {describeCondition(condition, new Map())}
    {#if onremove}<button type="button" class="act" onclick={onremove}>Take out</button>{/if}
  </p>
{:else if condition.kind === 'leaf'}
  {@const leaf = condition}
  {@const choices = choicesFor(typeOf(leaf.column))}
  <fieldset class="leaf">
    <legend class="visually-hidden">Condition</legend>
    <div class="row">
      <OneOf
        label="Column"
        value={leaf.column}
        options={bench.columns.map(({ id, name }) => [id, name] as const)}
        onchange={(id) => setColumn(leaf, id)}
        test="condition-column"
      />
      <label class="not"
        ><input
          type="checkbox"
          checked={leaf.not}
          onchange={(e) => onchange({ ...leaf, not: e.currentTarget.checked })}
        /> not</label
      >
      <OneOf
        label="What is asked"
        test="condition-test"
        value={choices.find((c) => c.is(leaf.test))?.key}
        options={choices.map(({ key, label }) => [key, label] as const)}
        onchange={(key) => {
          const choice = choices.find((c) => c.key === key);
          if (choice) onchange({ ...leaf, test: choice.make() });
        }}
      />
      {#if onremove}<button
          type="button"
          class="act remove"
          aria-label="Remove this condition"
          onclick={onremove}>✕</button
        >{/if}
    </div>
    <TestFields
      {bench}
      column={leaf.column}
      type={typeOf(leaf.column)}
      test={leaf.test}
      onchange={(test) => onchange({ ...leaf, test })}
    />
  </fieldset>
{:else}
  {@const joined = condition}
  <fieldset class="joined" class:inner={depth > 0}>
    <legend class="row">
      <OneOf
        label="How the conditions join"
        value={joined.kind}
        options={JOINS}
        onchange={(kind) => onchange({ ...joined, kind })}
      />
      <label class="not"
        ><input
          type="checkbox"
          checked={joined.not}
          onchange={(e) => onchange({ ...joined, not: e.currentTarget.checked })}
        /> not</label
      >
    </legend>
    {#each joined.parts as part, k (k)}
      <ConditionPart
        {bench}
        condition={part}
        depth={depth + 1}
        onchange={(next) => onchange(setPart(joined, k, next))}
        onremove={() => dropPart(joined, k)}
      />
    {/each}
    <div class="row">
      <button type="button" class="act" onclick={() => onchange(addPart(joined, another()))}
        >+ condition</button
      >
      <button
        type="button"
        class="act"
        onclick={() =>
          onchange(
            addPart(joined, {
              kind: joined.kind === 'all' ? 'any' : 'all',
              not: false,
              parts: [another()],
            }),
          )}>+ conditions joined by {joined.kind === 'all' ? 'or' : 'and'}</button
      >
    </div>
  </fieldset>
{/if}

<style>
  fieldset {
    border: 0;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
    min-width: 0;
  }
  .leaf {
    padding: 8px;
    background: var(--panel);
    border-radius: 6px;
  }
  .inner {
    border-left: 2px solid var(--tide);
    padding-left: 12px;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    flex-wrap: wrap;
  }
  .row :global(.one-of) {
    max-width: min(260px, 100%);
  }
  .not {
    display: inline-flex;
    gap: 4px;
    align-items: center;
  }
  .remove {
    margin-left: auto;
  }
  .expression {
    display: grid;
    gap: 4px;
  }
</style>
