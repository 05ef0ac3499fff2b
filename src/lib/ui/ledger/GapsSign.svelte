<script lang="ts">
  interface Props {
    /** `29 of 31`; empty where every record has a value. */
    gaps: string | undefined;
    /** The figure that it stands beside, as text, and the width of their column. */
    figure: string;
    width: number;
  }
  let { gaps, figure, width }: Props = $props();
  /** As a value: a space at the start of a block is dropped. */
  const APART = ' ';
  /** Where the column has no room for the words a sign stands for them. */
  const fits = $derived(
    gaps !== undefined && width - 20 - figure.length * 8 >= gaps.length * 6 + 6,
  );
</script>

{#if gaps}{APART}<small title="A sum of {gaps}: the other records have no value to add up"
    ><span aria-hidden="true">{fits ? gaps : '◦'}</span><span class="visually-hidden"
      >, a sum of {gaps} records</span
    ></small
  >{/if}

<style>
  small {
    margin-left: 4px;
    font-size: 10px;
    font-weight: 400;
    color: var(--ink-soft);
  }
</style>
