<script lang="ts">
  /** What should be known of a chart, under it: above all what it leaves out. */
  let { words }: { words: string } = $props();
</script>

<p data-test="drawn-of">{words}</p>

<style>
  p {
    color: var(--ink-soft);
    margin: 2px 0;
  }
</style>
