<script lang="ts">
  import Keys from '$lib/ui/components/Keys.svelte';
</script>

<Keys />
