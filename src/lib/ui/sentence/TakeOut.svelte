<script lang="ts">
  /** The act of a menu that takes out what the menu is about. */
  let { what, onclick }: { what: string; onclick: () => void } = $props();
</script>

<button type="button" class="act" {onclick}>Take this {what} out</button>
