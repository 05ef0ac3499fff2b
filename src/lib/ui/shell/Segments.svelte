<script lang="ts">
  /** A few choices side by side, one of which holds. */
  interface Props {
    label: string;
    value: string;
    options: readonly { readonly value: string; readonly label: string }[];
    onchange: (value: string) => void;
    /** What tests find each choice by. */
    test?: string;
  }
  let { label, value, options, onchange, test }: Props = $props();
</script>

<div class="segments" role="group" aria-label={label}>
  {#each options as option (option.value)}
    <button
      type="button"
      aria-pressed={option.value === value}
      title={option.label}
      onclick={() => onchange(option.value)}
      data-test={test}>{option.label}</button
    >
  {/each}
</div>

<style>
  .segments {
    display: inline-flex;
    border: 1px solid var(--rule);
    border-radius: 6px;
    overflow: hidden;
  }
  button {
    border: 0;
    border-right: 1px solid var(--rule);
    background: var(--raised);
    color: var(--ink);
    padding: 3px 11px;
    font: inherit;
    cursor: pointer;
    white-space: nowrap;
    max-width: 170px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  button:last-child {
    border-right: 0;
  }
  button[aria-pressed='true'] {
    background: var(--tide);
    color: var(--on-tide);
    font-weight: 600;
  }
  button:focus-visible {
    outline-offset: -2px;
  }
</style>
