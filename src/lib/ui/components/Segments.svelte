<script lang="ts">
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';

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

<SegmentedControl
  {value}
  onValueChange={(now) => {
    if (now.value !== null) onchange(now.value);
  }}
>
  {#snippet element(attributes)}
    <div {...attributes} aria-labelledby={undefined} aria-label={label}>
      <SegmentedControl.Control>
        {#snippet element(attributes)}
          <div {...attributes} class="segments">
            {#each options as option (option.value)}
              <SegmentedControl.Item value={option.value}>
                {#snippet element(attributes)}
                  <label {...attributes} class="segment" title={option.label} data-test={test}>
                    <SegmentedControl.ItemText>{option.label}</SegmentedControl.ItemText>
                    <SegmentedControl.ItemHiddenInput />
                  </label>
                {/snippet}
              </SegmentedControl.Item>
            {/each}
          </div>
        {/snippet}
      </SegmentedControl.Control>
    </div>
  {/snippet}
</SegmentedControl>

<style>
  .segments {
    display: inline-flex;
    border: 1px solid var(--rule);
    border-radius: 6px;
    overflow: hidden;
  }
  .segment {
    position: relative;
    border-right: 1px solid var(--rule);
    background: var(--raised);
    color: var(--ink);
    padding: 3px 11px;
    cursor: pointer;
    white-space: nowrap;
    max-width: 280px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .segment:last-child {
    border-right: 0;
  }
  .segment[data-state='checked'] {
    background: var(--tide);
    color: var(--on-tide);
    font-weight: 600;
  }
  .segment[data-focus-visible] {
    outline: 2px solid var(--tide);
    outline-offset: -2px;
  }
  .segment[data-focus-visible][data-state='checked'] {
    outline-color: var(--on-tide);
  }
</style>
