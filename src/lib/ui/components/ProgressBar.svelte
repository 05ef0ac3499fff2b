<script lang="ts">
  import { Progress } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    /** Share done, from 0 to 1; none where it is not known. */
    value?: number | null;
    /** What is going on, for screen readers. */
    name: string;
  }
  let { value = null, name }: Props = $props();
</script>

<Progress
  value={value === null ? null : Math.round(value * 100)}
  translations={{ value: () => name }}
>
  {#snippet element(attributes)}
    <div {...attributes} class="progress">
      <Progress.Track>
        {#snippet element(attributes)}
          <div {...attributes} class="track" aria-label={name}>
            <Progress.Range>
              {#snippet element(attributes)}<div {...attributes} class="range"></div>{/snippet}
            </Progress.Range>
          </div>
        {/snippet}
      </Progress.Track>
    </div>
  {/snippet}
</Progress>

<style>
  .progress {
    display: inline-block;
    width: 160px;
    vertical-align: middle;
  }
  .track {
    height: 8px;
    border-radius: 4px;
    background: var(--band);
    border: 1px solid var(--rule);
    overflow: hidden;
  }
  .range {
    height: 100%;
    background: var(--tide);
    transition: width 0.15s linear;
  }
  .range[data-state='indeterminate'] {
    width: 35%;
    animation: run 1.2s ease-in-out infinite alternate;
  }
  @keyframes run {
    from {
      margin-left: 0;
    }
    to {
      margin-left: 65%;
    }
  }
  @media (prefers-reduced-motion: reduce) {
    .range[data-state='indeterminate'] {
      animation: none;
      width: 100%;
      opacity: 0.5;
    }
  }
</style>
