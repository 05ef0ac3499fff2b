<script lang="ts">
  import { page } from '$app/state';
  import TopBar from '$lib/ui/components/TopBar.svelte';
</script>

<svelte:head><title>Not here · Tally Loft</title></svelte:head>
<TopBar />
<main>
  <h1 class="serif">{page.status === 404 ? 'Not here' : 'This page could not be made'}</h1>
  <p>{page.error?.message}</p>
  <p><a href="/">Go to the shelf</a></p>
</main>

<style>
  main {
    max-width: 560px;
    margin: 60px auto;
    padding: 0 24px;
  }
  h1 {
    font-size: 26px;
    margin: 0 0 12px;
  }
  p {
    margin: 0 0 8px;
  }
  a {
    color: var(--tide);
  }
</style>
