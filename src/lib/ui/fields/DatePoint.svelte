<script lang="ts">
  import { takenAs } from '../../core/selection/takenAs';
  import type { ColumnType } from '../../core/table/column';

  /** A date, a period or a time as the column takes it, and what it is taken as. */
  interface Props {
    label: string;
    value: string;
    type: ColumnType;
    onvalue: (text: string) => void;
    /** What stands when the field is left, or Enter is pressed. */
    onsettled?: (text: string) => void;
    test?: string;
    /** Takes the focus when its menu opens. */
    first?: boolean;
  }
  let { label, value, type, onvalue, onsettled, test, first = false }: Props = $props();
  const id = $props.id();
  const words = $derived(takenAs(value, type));
</script>

<span class="point">
  <input
    class="field"
    type="text"
    aria-label={label}
    aria-describedby={id}
    aria-invalid={words.wrong}
    placeholder={type === 'time' ? '08:30' : '2024, 2024-04, 2024-04-30'}
    {value}
    oninput={(e) => onvalue(e.currentTarget.value)}
    onchange={(e) => onsettled?.(e.currentTarget.value)}
    data-first={first || undefined}
    data-test={test}
  />
  <small {id} class:wrong={words.wrong}>{words.words}</small>
</span>

<style>
  .point {
    display: inline-grid;
    gap: 2px;
  }
  input {
    width: 190px;
  }
  small {
    color: var(--ink-soft);
    min-height: 1.2em;
  }
  .wrong {
    color: var(--plum);
  }
</style>
