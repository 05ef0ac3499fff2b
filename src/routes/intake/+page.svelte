<script lang="ts">
  import Intake from '$lib/ui/intake/Intake.svelte';
  import type { PageData } from './$types';
  let { data }: { data: PageData } = $props();
</script>

{#key data.refreshed?.id ?? 0}<Intake
    refreshed={data.refreshed}
    limit={data.limit}
    databases={data.databases}
    databaseFault={data.fault}
    from={data.from}
    bench={data.bench}
    adds={data.adds}
  />{/key}
