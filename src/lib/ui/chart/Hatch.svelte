<script lang="ts">
  /** The hatching of what the data cover only in part. */
  let { id }: { id: string } = $props();
</script>

<defs>
  <pattern {id} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <rect width="6" height="6" fill="var(--paper)" />
    <line x1="0" x2="0" y1="0" y2="6" stroke="var(--tide-bar)" stroke-width="4" />
  </pattern>
</defs>
