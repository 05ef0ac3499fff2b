<script lang="ts">
  import type { KnownNow } from '../../engine/protocol';

  /** Beside a figure that has a known total: whether it agrees. */
  let { stands }: { stands: KnownNow['stands'] | undefined } = $props();
</script>

{#if stands === 'agrees'}<sup
    class="good"
    role="img"
    title="It agrees with its known total"
    aria-label="agrees with its known total">✓</sup
  >{:else if stands}<sup
    class="bad"
    role="img"
    title="It differs from its known total: open it to see why"
    aria-label="differs from its known total">✗</sup
  >{/if}

<style>
  sup {
    margin-left: 3px;
    font-weight: 600;
    line-height: 0;
  }
  .good {
    color: var(--good);
  }
  .bad {
    color: var(--bad);
  }
</style>
