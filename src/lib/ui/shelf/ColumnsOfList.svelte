<script lang="ts">
  import { typeName, type ColumnType } from '../../core/table/column';

  /** The columns of a list, each with its name and unit, which can be told otherwise. */
  interface Props {
    columns: readonly {
      id: string;
      name: string;
      type: ColumnType;
      unit: string;
      unitInCells: boolean;
    }[];
    /** Lists made of others take their columns from there. */
    fixed: boolean;
    ontell: (change: { id: string; name?: string; unit?: string; as?: 'years' }) => void;
  }
  let { columns, fixed, ontell }: Props = $props();
  let telling = $state<string | null>(null);

  function tell(event: SubmitEvent, id: string): void {
    event.preventDefault();
    const data = new FormData(event.currentTarget as HTMLFormElement);
    const unit = data.get('unit');
    telling = null;
    ontell({
      id,
      name: String(data.get('name') ?? ''),
      ...(unit !== null && { unit: String(unit) }),
    });
  }
</script>

<ul>
  {#each columns as { id, name, type, unit, unitInCells } (id)}
    <li>
      {#if telling === id}
        <form onsubmit={(event) => tell(event, id)}>
          <label
            >Name <input class="field" name="name" value={name} maxlength="200" required /></label
          >
          {#if unitInCells}<small>in {unit}, by which its cells are read</small>
          {:else}<label
              >Unit <input class="field unit" name="unit" value={unit} maxlength="40" /></label
            >{/if}
          <button type="submit" class="plain-button" data-test="tell-column">Keep</button>
          <button type="button" class="act" onclick={() => (telling = null)}>Leave</button>
        </form>
      {:else}
        {name} <small>{typeName[type]}{unit ? `, ${unit}` : ''}</small>
        {#if !fixed}
          <button
            type="button"
            class="act"
            aria-label="Change name or unit of {name}"
            onclick={() => (telling = id)}
            data-test="change-column">Change</button
          >
          {#if type === 'number' && /year|season/i.test(name)}
            <button
              type="button"
              class="act"
              onclick={() => ontell({ id, as: 'years' })}
              data-test="as-years">Read them as years</button
            >
          {/if}
        {/if}
      {/if}
    </li>
  {/each}
</ul>

<style>
  ul {
    padding-left: 18px;
    overflow-wrap: anywhere;
  }
  small {
    color: var(--ink-soft);
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: end;
    padding: 4px 0;
  }
  label {
    display: grid;
    font-size: 12px;
    color: var(--ink-soft);
  }
  .unit {
    width: 90px;
  }
</style>
