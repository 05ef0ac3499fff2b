<script lang="ts">
  import Shelf from '$lib/ui/shelf/Shelf.svelte';
  import type { PageData } from './$types';
  let { data }: { data: PageData } = $props();
</script>

<Shelf lists={data.lists} now={data.now} databases={data.databases} databaseFault={data.fault} />
