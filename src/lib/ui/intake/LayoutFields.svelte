<script lang="ts">
  import { DELIMITERS, ENCODINGS, type Recipe } from '../../core/read/recipe';

  interface Props {
    recipe: Recipe;
    onchange: (
      change: Partial<Pick<Recipe, 'delimiter' | 'quote' | 'encoding' | 'header' | 'skipLines'>>,
    ) => void;
  }
  let { recipe, onchange }: Props = $props();
  const DELIMITER = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'pipe' } as const;
  const ENCODING = {
    'utf-8': 'UTF-8',
    'utf-16le': 'UTF-16, little end first',
    'utf-16be': 'UTF-16, big end first',
    'windows-1252': 'Windows-1252',
  } as const;
  const one = <T extends string>(all: readonly T[], value: string): T =>
    all.find((v) => v === value) ?? all[0];
</script>

<h2 class="caps">File</h2>
<div class="fields">
  <label
    >Delimiter
    <select
      class="field"
      value={recipe.delimiter}
      onchange={(e) => onchange({ delimiter: one(DELIMITERS, e.currentTarget.value) })}
      data-test="delimiter"
    >
      {#each DELIMITERS as d (d)}<option value={d}>{DELIMITER[d]}</option>{/each}
    </select></label
  >
  <label
    >Quote
    <select
      class="field"
      value={recipe.quote}
      onchange={(e) => onchange({ quote: one(['"', "'", ''] as const, e.currentTarget.value) })}
      data-test="quote"
    >
      <option value="&quot;">double quotes</option><option value="'">single quotes</option><option
        value="">no quotes</option
      >
    </select></label
  >
  <label class="wide"
    >Encoding
    <select
      class="field"
      value={recipe.encoding}
      onchange={(e) => onchange({ encoding: one(ENCODINGS, e.currentTarget.value) })}
      data-test="encoding"
    >
      {#each ENCODINGS as e (e)}<option value={e}>{ENCODING[e]}</option>{/each}
    </select></label
  >
  <label
    >Lines to skip
    <input
      class="field"
      type="number"
      min="0"
      max="10000"
      value={recipe.skipLines}
      onchange={(e) =>
        onchange({ skipLines: Math.max(0, Math.min(10_000, e.currentTarget.valueAsNumber || 0)) })}
      data-test="skip"
    /></label
  >
  <label class="check"
    ><input
      type="checkbox"
      checked={recipe.header}
      onchange={(e) => onchange({ header: e.currentTarget.checked })}
      data-test="header"
    /> first line names the columns</label
  >
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 7px 10px;
    margin: 6px 0 16px;
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
