<script lang="ts">
  import { Switch } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    on: boolean;
    /** What is switched, for screen readers. */
    name: string;
    onchange: (on: boolean) => void;
  }
  let { on, name, onchange }: Props = $props();
</script>

<Switch checked={on} onCheckedChange={(now) => onchange(now.checked)}>
  {#snippet element(attributes)}
    <label {...attributes} class="switch">
      <Switch.Control>
        {#snippet element(attributes)}
          <span {...attributes} class="control">
            <Switch.Thumb>
              {#snippet element(attributes)}<span {...attributes} class="thumb"></span>{/snippet}
            </Switch.Thumb>
          </span>
        {/snippet}
      </Switch.Control>
      <Switch.HiddenInput>
        {#snippet element(attributes)}
          <input {...attributes} role="switch" aria-labelledby={undefined} aria-label={name} />
        {/snippet}
      </Switch.HiddenInput>
    </label>
  {/snippet}
</Switch>

<style>
  .switch {
    position: relative;
    display: inline-flex;
    padding: 4px 2px;
    cursor: pointer;
  }
  .control {
    box-sizing: border-box;
    width: 22px;
    height: 12px;
    border-radius: 6px;
    border: 1px solid var(--ink-faint);
    background: var(--paper);
  }
  .thumb {
    display: block;
    box-sizing: border-box;
    width: 8px;
    height: 8px;
    margin: 1px;
    border-radius: 4px;
    background: var(--ink-faint);
  }
  .control[data-state='checked'] {
    border-color: var(--tide);
    background: var(--tide);
  }
  .thumb[data-state='checked'] {
    margin-left: 11px;
    background: var(--on-tide);
  }
  .control[data-focus-visible] {
    outline: 2px solid var(--tide);
    outline-offset: 2px;
  }
</style>
