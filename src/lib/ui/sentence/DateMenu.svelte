<script lang="ts">
  interface Props {
    name: string;
    value: string | null;
    onchange: (day: string | null) => void;
    close: () => void;
  }
  let { name, value, onchange, close }: Props = $props();
</script>

<label
  >{name}: a day in it
  <input
    class="field"
    type="date"
    value={value ?? ''}
    data-first
    data-test="day"
    onchange={(e) => onchange(e.currentTarget.value || null)}
  /></label
>
{#if value !== null}
  <button
    type="button"
    class="act"
    onclick={() => {
      close();
      onchange(null);
    }}>As the data say</button
  >
{/if}

<style>
  label {
    display: grid;
    gap: 5px;
    margin-bottom: 6px;
  }
</style>
