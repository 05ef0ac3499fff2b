<script lang="ts">
  import Keys from '$lib/ui/shell/Keys.svelte';
</script>

<Keys />
