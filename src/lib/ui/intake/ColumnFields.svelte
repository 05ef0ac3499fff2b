<script lang="ts">
  import { BLANK_WORDS, type ColumnRecipe } from '../../core/read/recipe';
  import { COLUMN_TYPES, typeName } from '../../core/table/column';
  import OneOf from '../fields/OneOf.svelte';

  interface Props {
    column: ColumnRecipe;
    onchange: (change: Partial<ColumnRecipe>) => void;
    onleave: () => void;
    onclose: () => void;
  }
  let { column, onchange, onleave, onclose }: Props = $props();
  /** A word of this file that stands for a blank. */
  let ownWord = $state('');
  function addWord(): void {
    const word = ownWord.trim();
    if (word !== '' && !column.blanks.includes(word))
      onchange({ blanks: [...column.blanks, word] });
    ownWord = '';
  }
  const dated = $derived(column.type === 'date' || column.type === 'datetime');
  const TYPES = COLUMN_TYPES.map((type) => [type, typeName[type]] as const);
  const ORDER = [
    ['ymd', 'year month day'],
    ['dmy', 'day month year'],
    ['mdy', 'month day year'],
  ] as const;
  const GRAIN = [
    ['day', 'a day'],
    ['month', 'a whole month'],
    ['quarter', 'a whole quarter'],
    ['year', 'a whole year'],
  ] as const;
  const DECIMAL = [
    ['.', 'point'],
    [',', 'comma'],
  ] as const;
  const THOUSANDS = [
    ['', 'none'],
    [',', 'comma'],
    ['.', 'point'],
    [' ', 'space'],
    ["'", 'apostrophe'],
  ] as const;
  const ZONE = [
    ['clock', 'keep the clock as written'],
    ['utc', 'turn all to UTC'],
  ] as const;
  const words = $derived([...new Set<string>([...BLANK_WORDS, ...column.blanks])]);
</script>

<div class="fields" data-test="column-fields">
  <p class="wide head">
    <b>{column.source || column.name}</b>
    <button type="button" class="act" onclick={onclose}>All columns</button>
  </p>
  <label class="wide"
    >Name <input
      class="field"
      value={column.name}
      maxlength="200"
      onchange={(e) =>
        e.currentTarget.value.trim() && onchange({ name: e.currentTarget.value.trim() })}
      data-test="column-name"
    /></label
  >
  <label
    >Type
    <OneOf
      value={column.type}
      options={TYPES}
      test="column-type"
      onchange={(type) => onchange({ type })}
    /></label
  >
  <label
    >Unit <input
      class="field"
      value={column.unit}
      maxlength="40"
      onchange={(e) => onchange({ unit: e.currentTarget.value.trim() })}
      data-test="column-unit"
    /></label
  >
  {#if column.type === 'number'}
    <label class="wide check"
      ><input
        type="checkbox"
        checked={column.unitInCells}
        disabled={!column.unit}
        onchange={(e) => onchange({ unitInCells: e.currentTarget.checked })}
        data-test="unit-in-cells"
      />
      read “{column.unit || 'unit'}” behind a number as the unit</label
    >
    <label
      >Thousands mark
      <OneOf
        value={column.thousands}
        options={THOUSANDS}
        onchange={(thousands) => onchange({ thousands })}
      /></label
    >
    <label
      >Decimal mark
      <OneOf
        value={column.decimal}
        options={DECIMAL}
        test="decimal"
        onchange={(decimal) => onchange({ decimal })}
      /></label
    >
  {/if}
  {#if dated}
    <label
      >Order
      <OneOf
        value={column.dateOrder}
        options={ORDER}
        test="date-order"
        onchange={(dateOrder) => onchange({ dateOrder })}
      /></label
    >
    <button
      type="button"
      class="plain-button confirm"
      onclick={() => onchange({ dateOrder: column.dateOrder })}
      data-test="confirm-order">This order is right</button
    >
    <label
      >A value means
      <OneOf
        value={column.grain}
        options={GRAIN}
        onchange={(grain) => onchange({ grain })}
      /></label
    >
  {/if}
  {#if column.type === 'datetime'}
    <label
      >Offsets
      <OneOf value={column.zone} options={ZONE} onchange={(zone) => onchange({ zone })} /></label
    >
  {/if}
  <fieldset class="wide">
    <legend>Read as blank</legend>
    {#each words as word (word)}
      <label class="check"
        ><input
          type="checkbox"
          checked={column.blanks.includes(word)}
          onchange={(e) =>
            onchange({
              blanks: e.currentTarget.checked
                ? [...column.blanks, word]
                : column.blanks.filter((b) => b !== word),
            })}
        />
        {word}</label
      >
    {/each}
    <label class="check"
      >another word
      <input
        class="field short"
        maxlength="40"
        bind:value={ownWord}
        onkeydown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          addWord();
        }}
        data-test="blank-word"
      /></label
    >
    <button type="button" class="act" onclick={addWord} disabled={ownWord.trim() === ''}
      >Add it</button
    >
  </fieldset>
  <button type="button" class="act wide" onclick={onleave}>Leave this column out</button>
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 7px 10px;
  }
  label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
    min-width: 0;
  }
  .wide {
    grid-column: 1 / -1;
    justify-self: stretch;
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    margin: 0;
    overflow-wrap: anywhere;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .confirm {
    align-self: end;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 3px 12px;
  }
  legend {
    color: var(--ink-soft);
    font-size: 13px;
    padding: 0;
  }
  button.wide {
    justify-self: start;
  }
</style>
