<script lang="ts">
  import { MOST_NOTES, type Recipe } from '../../core/read/recipe';
  import type { LayoutChange } from './intake.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import {
    DATABASE_FORMS,
    FILE_FORM_NAMES,
    type FileForm,
    type FileParts,
  } from '../../core/read/decode/source';
  import type { PartWanted } from '../../core/read/decode/decode';

  interface Props {
    recipe: Recipe;
    /** What of the file can be read in place of what is. */
    choices: FileParts;
    onchange: (change: LayoutChange) => void;
    onchoose: (wanted: PartWanted) => void;
  }
  let { recipe, choices, onchange, onchoose }: Props = $props();
  const form = $derived(recipe.source?.form ?? 'delimited');
  /** Columns that know their types have no lines. */
  const TYPED: readonly FileForm[] = ['arrow', 'parquet', ...DATABASE_FORMS];
  const lines = $derived(!TYPED.includes(form));
  /** Places as they were typed, in order, each once; the first character is 1. */
  const cutsIn = (text: string): number[] =>
    [...new Set((text.match(/\d+/g) ?? []).map((n) => Math.max(0, Number(n) - 1)))]
      .filter((n) => n <= 100_000)
      .sort((a, b) => a - b);
  const named = (names: readonly string[]) => names.map((name) => [name, name] as const);
  const DELIMITER = [
    [',', 'comma'],
    [';', 'semicolon'],
    ['\t', 'tab'],
    ['|', 'pipe'],
  ] as const;
  const QUOTE = [
    ['"', 'double quotes'],
    ["'", 'single quotes'],
    ['', 'no quotes'],
  ] as const;
  const ENCODING = [
    ['utf-8', 'UTF-8'],
    ['utf-16le', 'UTF-16, little end first'],
    ['utf-16be', 'UTF-16, big end first'],
    ['windows-1252', 'Windows-1252'],
  ] as const;
</script>

<h2 class="caps">{recipe.source?.connection ? 'Database' : 'File'}</h2>
<div class="fields">
  {#if recipe.source}<p class="wide" data-test="form">
      This is {FILE_FORM_NAMES[form]}{recipe.source.packed
        ? `, packed (${recipe.source.packed})`
        : ''}.{lines ? '' : ' Its columns say themselves what they are.'}
    </p>{/if}
  {#if recipe.source?.connection}<p class="wide">
      {recipe.source.connection}: {recipe.source.query === undefined
        ? `table ${recipe.source.part}`
        : 'what this query comes to'}
    </p>
    {#if recipe.source.query !== undefined}<pre class="wide">{recipe.source.query}</pre>{/if}{/if}
  {#if choices.members.length > 1}
    <label class="wide"
      >{choices.members.length} files in the package
      <OneOf
        value={recipe.source?.all ? '' : (recipe.source?.member ?? '')}
        options={[['', 'all of them, one behind the other'], ...named(choices.members)]}
        test="member"
        onchange={(member) => onchoose(member === '' ? { all: true } : { member })}
      /></label
    >
  {/if}
  {#if choices.parts.length > 1}
    <label class="wide"
      >Sheet
      <OneOf
        value={recipe.source?.part ?? ''}
        options={form === 'workbook'
          ? [['', 'all of them, one behind the other'], ...named(choices.parts)]
          : named(choices.parts)}
        test="part"
        onchange={(part) => onchoose(part === '' ? { all: true } : { part })}
      /></label
    >
  {/if}
  {#if choices.blocks.length}
    <label class="wide"
      >{choices.blocks.length} tables on the sheet
      <OneOf
        value={String(recipe.source?.block ?? 0)}
        options={[
          ...choices.blocks.map((words, k) => [String(k + 1), words] as const),
          ['0', 'all that stands on it, as one table'],
        ]}
        test="block"
        onchange={(block) =>
          onchoose({
            ...(recipe.source?.part && { part: recipe.source.part }),
            block: Number(block),
          })}
      /></label
    >
  {/if}
  {#if form === 'fixed'}
    <label class="wide"
      >Columns begin at character
      <input
        class="field"
        value={(recipe.source?.cuts ?? []).map((cut) => cut + 1).join(', ')}
        onchange={(e) => {
          const cuts = cutsIn(e.currentTarget.value);
          if (cuts.length) onchoose({ cuts });
        }}
        data-test="cuts"
      /></label
    >
  {/if}
  {#if form === 'delimited'}
    <label
      >Delimiter
      <OneOf
        value={recipe.delimiter}
        options={DELIMITER}
        test="delimiter"
        onchange={(delimiter) => onchange({ delimiter })}
      /></label
    >
    <label
      >Quote
      <OneOf
        value={recipe.quote}
        options={QUOTE}
        test="quote"
        onchange={(quote) => onchange({ quote })}
      /></label
    >
    <label class="wide"
      >Encoding
      <OneOf
        value={recipe.encoding}
        options={ENCODING}
        test="encoding"
        onchange={(encoding) => onchange({ encoding })}
      /></label
    >
  {/if}
  {#if lines}
    <label
      >Lines above to skip
      <input
        class="field"
        type="number"
        min="0"
        max="10000"
        value={recipe.skipLines}
        onchange={(e) =>
          onchange({
            skipLines: Math.max(0, Math.min(10_000, e.currentTarget.valueAsNumber || 0)),
          })}
        data-test="skip"
      /></label
    >
    <label
      >Notes below
      <input
        class="field"
        type="number"
        min="0"
        max={MOST_NOTES}
        value={recipe.notesBelow ?? 0}
        onchange={(e) =>
          onchange({
            notesBelow: Math.max(0, Math.min(MOST_NOTES, e.currentTarget.valueAsNumber || 0)),
          })}
        data-test="notes-below"
      /></label
    >
    <label class="check wide"
      ><input
        type="checkbox"
        checked={recipe.header}
        onchange={(e) => onchange({ header: e.currentTarget.checked })}
        data-test="header"
      /> first line names the columns</label
    >
    {#if recipe.header}
      <label class="check wide"
        ><input
          type="checkbox"
          checked={recipe.unitsBelow === true}
          onchange={(e) => onchange({ unitsBelow: e.currentTarget.checked || undefined })}
          data-test="units-below"
        /> the line below holds units</label
      >
    {/if}
  {/if}
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 7px 10px;
    margin: 6px 0 16px;
  }
  p {
    margin: 0;
    color: var(--ink-soft);
  }
  pre {
    margin: 0;
    font-size: 12px;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    max-height: 140px;
    overflow: auto;
  }
  label {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: 13px;
  }
  .wide {
    grid-column: 1 / -1;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
    align-self: end;
  }
</style>
