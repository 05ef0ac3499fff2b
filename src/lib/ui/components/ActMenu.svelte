<script lang="ts">
  import { Menu } from '@skeletonlabs/skeleton-svelte';
  import type { Snippet } from 'svelte';
  import type { MenuAct } from './menuAct';

  interface Props {
    /** What stands on the button. */
    label: Snippet;
    acts: readonly MenuAct[];
    class: string;
    /** Its name for screen readers. */
    name: string;
  }
  let { label, acts, class: look, name }: Props = $props();
</script>

<Menu
  defaultOpen
  onSelect={({ value }) => acts.find((act) => act.label === value)?.run()}
  positioning={{ placement: 'bottom-start', strategy: 'fixed', gutter: 4, overflowPadding: 8 }}
  aria-label={name}
>
  <Menu.Trigger>
    {#snippet element(attributes)}
      <button {...attributes} type="button" class={look} aria-label={name}>{@render label()}</button
      >
    {/snippet}
  </Menu.Trigger>
  <Menu.Positioner>
    {#snippet element(attributes)}
      <div {...attributes} class="positioner">
        <Menu.Content>
          {#snippet element(attributes)}
            <div {...attributes} class="menu" aria-labelledby={undefined} aria-label={name}>
              {#each acts as act (act.label)}
                <Menu.Item value={act.label} disabled={act.disabled ?? false}>
                  {#snippet element(attributes)}
                    <div
                      {...attributes}
                      class="act-item"
                      role={act.on === undefined ? 'menuitem' : 'menuitemcheckbox'}
                      aria-checked={act.on}
                    >
                      <span class="tick" aria-hidden="true">{act.on ? '✓' : ''}</span>{act.label}
                    </div>
                  {/snippet}
                </Menu.Item>
              {/each}
            </div>
          {/snippet}
        </Menu.Content>
      </div>
    {/snippet}
  </Menu.Positioner>
</Menu>

<style>
  .positioner {
    font-family: var(--font-sans);
  }
  .menu {
    z-index: 40;
    min-width: 190px;
    padding: 5px;
    color: var(--ink);
    background: var(--raised);
    border: 1px solid var(--rule);
    border-radius: 8px;
    box-shadow: var(--shadow);
    font-size: 14px;
    line-height: 1.4;
    outline: none;
  }
  .act-item {
    display: flex;
    gap: 4px;
    padding: 4px 12px 4px 4px;
    border-radius: 4px;
    cursor: pointer;
    white-space: nowrap;
  }
  .act-item[data-highlighted] {
    background: var(--tide-wash);
  }
  .act-item[data-disabled] {
    color: var(--ink-faint);
    cursor: default;
  }
  .tick {
    flex: none;
    width: 16px;
    color: var(--tide);
    text-align: center;
  }
</style>
