<script lang="ts">
  import Segments from '../components/Segments.svelte';
  import type { Shelving } from './shelving.svelte';

  /** How a list that is made of a bench is called, and whether it follows it. */
  let { shelving }: { shelving: Shelving } = $props();
  const FOLLOWS = [
    { value: 'linked', label: 'follows this bench' },
    { value: 'frozen', label: 'frozen as of today' },
  ] as const;
</script>

<label
  >Name of the new list
  <input class="field" bind:value={shelving.name} maxlength="200" data-test="list-name" /></label
>
<Segments
  label="Whether the new list follows this bench"
  value={shelving.frozen ? 'frozen' : 'linked'}
  options={FOLLOWS}
  onchange={(value) => (shelving.frozen = value === 'frozen')}
  test="list-follows"
/>
<p class="soft">
  {shelving.frozen
    ? 'It stays as it is today, whatever becomes of this bench.'
    : 'It is made anew when this list is refreshed, or when its corrections, made columns or What counts change.'}
</p>
{#if shelving.fault}<p class="fault" role="alert">{shelving.fault}</p>{/if}
<button
  type="submit"
  class="main-button"
  disabled={!shelving.ready}
  aria-busy={shelving.busy}
  data-test="shelve">{shelving.busy ? 'Making it…' : 'Put it on the shelf'}</button
>
