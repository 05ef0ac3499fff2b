<script lang="ts">
  interface Props {
    name: string;
    value: string;
    onchange: (text: string) => void;
    close: () => void;
  }
  let { name, value, onchange, close }: Props = $props();
</script>

<label
  >{name}
  <input
    class="field"
    {value}
    data-first
    onchange={(e) => onchange(e.currentTarget.value)}
    onkeydown={(e) => {
      if (e.key !== 'Enter') return;
      onchange(e.currentTarget.value);
      close();
    }}
  /></label
>

<style>
  label {
    display: grid;
    gap: 5px;
  }
</style>
