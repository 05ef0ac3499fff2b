<script lang="ts">
  import { Tooltip } from '@skeletonlabs/skeleton-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLButtonAttributes } from 'svelte/elements';

  /** A button that shows a picture alone: what it does stands beside it under the pointer or the focus. */
  interface Props extends HTMLButtonAttributes {
    tip: string;
    children: Snippet;
    'data-test'?: string;
  }
  let { tip, children, ...rest }: Props = $props();
</script>

<Tooltip openDelay={400} closeDelay={100} positioning={{ placement: 'bottom', gutter: 6 }}>
  <Tooltip.Trigger>
    {#snippet element({ disabled: _, ...attributes })}
      <button {...attributes} {...rest} type="button">{@render children()}</button>
    {/snippet}
  </Tooltip.Trigger>
  <Tooltip.Positioner>
    <Tooltip.Content>
      {#snippet element(attributes)}
        <div {...attributes} class="tip">{tip}</div>
      {/snippet}
    </Tooltip.Content>
  </Tooltip.Positioner>
</Tooltip>

<style>
  .tip {
    z-index: 60;
    max-width: 260px;
    padding: 4px 8px;
    font: 12px/1.35 var(--font-sans);
    color: var(--on-bar);
    background: var(--bar);
    border: 1px solid var(--rule-strong);
    border-radius: 5px;
    box-shadow: var(--shadow);
  }
</style>
