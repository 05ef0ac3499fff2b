<script lang="ts">
  import { typeName } from '../../core/table/column';
  import type { Recipe } from '../../core/read/recipe';
  import type { PreviewCell } from '../../worker/intakeMessages';

  interface Props {
    recipe: Recipe;
    rows: readonly (readonly PreviewCell[])[];
    /** Column whose recipe is open. */
    chosen: string | null;
    onchoose: (column: string) => void;
  }
  let { recipe, rows, chosen, onchoose }: Props = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="preview" tabindex="0" role="region" aria-label="First records">
  <table data-test="preview">
    <thead>
      <tr>
        <th scope="col" class="n">#</th>
        {#each recipe.columns as c (c.id)}
          <th scope="col" class:right={c.type === 'number'} class:chosen={c.id === chosen}>
            <button type="button" onclick={() => onchoose(c.id)}
              >{c.name}<small>{typeName[c.type]}{c.unit ? `, ${c.unit}` : ''}</small></button
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row, k (k)}
        <tr>
          <td class="n">{k + 1}</td>
          {#each row as cell, c (c)}
            <td class={cell.state} class:right={recipe.columns[c]?.type === 'number'}
              >{cell.text}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .preview {
    overflow: auto;
    flex: 1 1 50%;
    min-height: 160px;
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
  }
  th {
    position: sticky;
    top: 0;
    background: var(--paper);
    border-bottom: 1.5px solid var(--rule-strong);
    padding: 0;
    text-align: left;
    z-index: 1;
  }
  th button {
    display: grid;
    background: none;
    border: 0;
    padding: 5px 10px;
    color: inherit;
    font: inherit;
    font-weight: 600;
    text-align: inherit;
    cursor: pointer;
    white-space: nowrap;
    width: 100%;
  }
  th button:focus-visible {
    outline-offset: -2px;
  }
  th small {
    font-weight: 400;
  }
  .chosen {
    background: var(--tide-wash);
  }
  td {
    padding: 3px 10px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
    max-width: 320px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .n {
    color: var(--ink-soft);
    text-align: right;
    padding: 3px 10px;
    font-weight: 400;
  }
  .right {
    text-align: right;
  }
  .right button {
    text-align: right;
    justify-items: end;
  }
  td.blank {
    color: var(--ink-faint);
    font-style: italic;
  }
  td.unread {
    color: var(--plum);
    text-decoration: underline dashed;
    text-underline-offset: 3px;
  }
  small {
    color: var(--ink-soft);
  }
</style>
