<script lang="ts">
  import { config } from 'zod';
  import '../app.css';
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import Unsent from '$lib/ui/bench/Unsent.svelte';

  let { children }: { children: Snippet } = $props();
  // The page's policy forbids code from text; Zod must not try.
  config({ jitless: true });
</script>

{#if !page.route.id?.startsWith('/benches/') && page.route.id !== '/enter'}<Unsent />{/if}
{@render children()}
