<script lang="ts">
  import { typeName } from '../../core/read/infer';
  import { BLANK_WORDS, DATE_ORDERS, type ColumnRecipe } from '../../core/read/recipe';
  import { COLUMN_TYPES, GRAINS } from '../../core/table/column';

  interface Props {
    column: ColumnRecipe;
    onchange: (change: Partial<ColumnRecipe>) => void;
    onleave: () => void;
    onclose: () => void;
  }
  let { column, onchange, onleave, onclose }: Props = $props();
  const dated = $derived(column.type === 'date' || column.type === 'datetime');
  const ORDER = { ymd: 'year month day', dmy: 'day month year', mdy: 'month day year' } as const;
  const GRAIN = {
    day: 'a day',
    month: 'a whole month',
    quarter: 'a whole quarter',
    year: 'a whole year',
  } as const;
  const MARKS = [
    ['', 'none'],
    [',', 'comma'],
    ['.', 'point'],
    [' ', 'space'],
    ["'", 'apostrophe'],
  ] as const;
  const one = <T extends string>(all: readonly T[], value: string): T =>
    all.find((v) => v === value) ?? all[0];
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
    <select
      class="field"
      value={column.type}
      onchange={(e) => onchange({ type: one(COLUMN_TYPES, e.currentTarget.value) })}
      data-test="column-type"
    >
      {#each COLUMN_TYPES as type (type)}<option value={type}>{typeName[type]}</option>{/each}
    </select></label
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
      <select
        class="field"
        value={column.thousands}
        onchange={(e) =>
          onchange({
            thousands: one(
              MARKS.map(([m]) => m),
              e.currentTarget.value,
            ),
          })}
      >
        {#each MARKS as [mark, name] (mark)}<option value={mark}>{name}</option>{/each}
      </select></label
    >
    <label
      >Decimal mark
      <select
        class="field"
        value={column.decimal}
        onchange={(e) => onchange({ decimal: one(['.', ','] as const, e.currentTarget.value) })}
        data-test="decimal"
      >
        <option value=".">point</option><option value=",">comma</option>
      </select></label
    >
  {/if}
  {#if dated}
    <label
      >Order
      <select
        class="field"
        value={column.dateOrder}
        onchange={(e) => onchange({ dateOrder: one(DATE_ORDERS, e.currentTarget.value) })}
        data-test="date-order"
      >
        {#each DATE_ORDERS as order (order)}<option value={order}>{ORDER[order]}</option>{/each}
      </select></label
    >
    <button
      type="button"
      class="plain-button confirm"
      onclick={() => onchange({ dateOrder: column.dateOrder })}
      data-test="confirm-order">This order is right</button
    >
    <label
      >A value means
      <select
        class="field"
        value={column.grain}
        onchange={(e) => onchange({ grain: one(GRAINS, e.currentTarget.value) })}
      >
        {#each GRAINS as grain (grain)}<option value={grain}>{GRAIN[grain]}</option>{/each}
      </select></label
    >
  {/if}
  {#if column.type === 'datetime'}
    <label
      >Offsets
      <select
        class="field"
        value={column.zone}
        onchange={(e) => onchange({ zone: one(['clock', 'utc'] as const, e.currentTarget.value) })}
      >
        <option value="clock">keep the clock as written</option><option value="utc"
          >turn all to UTC</option
        >
      </select></label
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
