<script lang="ts">
  import { config } from 'zod';
  import '../app.css';
  import type { Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();
  // The page's policy forbids code from text; Zod must not try.
  config({ jitless: true });
</script>

{@render children()}
