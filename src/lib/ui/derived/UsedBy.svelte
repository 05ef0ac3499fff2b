<script lang="ts">
  /** Where made columns are used, said before they go. */
  let { uses }: { uses: readonly string[] } = $props();
</script>

<p role="alert" data-test="made-uses">
  Used by {uses.join(', ')}. Without it {uses.length === 1 ? 'that takes' : 'those take'} no part in the
  figures until changed. It can be undone.
</p>

<style>
  p {
    margin: 0;
    padding: 7px 10px;
    border-radius: 6px;
    background: var(--plum-wash);
    color: var(--plum);
  }
</style>
