<script lang="ts">
  import ListPage from '$lib/ui/shelf/ListPage.svelte';
  import type { PageData } from './$types';
  let { data }: { data: PageData } = $props();
</script>

<ListPage {...data} />
