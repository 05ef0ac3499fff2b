<script lang="ts">
  import type { Dialect } from '../../core/write/dialect';
  import OneOf from '../fields/OneOf.svelte';

  /** How delimited text is written: what parts its fields, its decimal mark, its encoding. */
  let { dialect, onchange }: { dialect: Dialect; onchange: (next: Dialect) => void } = $props();

  const DELIMITER: readonly (readonly [Dialect['delimiter'], string])[] = [
    ['comma', 'comma ,'],
    ['semicolon', 'semicolon ;'],
    ['tab', 'tab'],
    ['bar', 'bar |'],
  ];
  const DECIMAL: readonly (readonly [Dialect['decimal'], string])[] = [
    ['point', 'point 1.5'],
    ['comma', 'comma 1,5'],
  ];
  const ENCODING: readonly (readonly [Dialect['encoding'], string])[] = [
    ['utf-8-marked', 'UTF-8, with its mark'],
    ['utf-8', 'UTF-8'],
    ['utf-16le', 'UTF-16'],
    ['windows-1252', 'Windows-1252'],
  ];
</script>

<div class="dialect">
  <label
    >Between fields
    <OneOf
      value={dialect.delimiter}
      options={DELIMITER}
      test="out-delimiter"
      onchange={(delimiter) => onchange({ ...dialect, delimiter })}
    /></label
  >
  <label
    >Decimal mark
    <OneOf
      value={dialect.decimal}
      options={DECIMAL}
      test="out-decimal"
      onchange={(decimal) => onchange({ ...dialect, decimal })}
    /></label
  >
  <label
    >Encoding
    <OneOf
      value={dialect.encoding}
      options={ENCODING}
      test="out-encoding"
      onchange={(encoding) => onchange({ ...dialect, encoding })}
    /></label
  >
</div>

<style>
  .dialect {
    display: grid;
    grid-template-columns: auto auto;
    gap: 6px 10px;
    width: 100%;
  }
  label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 12.5px;
  }
  label:last-child {
    grid-column: 1 / -1;
  }
</style>
