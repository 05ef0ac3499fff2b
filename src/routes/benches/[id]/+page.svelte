<script lang="ts">
  import Bench from '$lib/ui/bench/Bench.svelte';
  import type { PageData } from './$types';
  let { data }: { data: PageData } = $props();
</script>

{#key `${data.facts.id}/${data.facts.revision}/${data.facts.earlier?.revision ?? ''}`}
  <Bench facts={data.facts} />
{/key}
