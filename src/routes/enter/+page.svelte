<script lang="ts">
  import type { ActionData } from './$types';
  let { form }: { form: ActionData } = $props();
</script>

<svelte:head><title>Enter · Tally Loft</title></svelte:head>

<main class="mx-auto max-w-sm p-8">
  <h1 class="serif mb-4 text-2xl">Tally Loft</h1>
  <form method="POST" class="flex flex-col gap-3">
    <label class="flex flex-col gap-1">
      Passphrase
      <input
        class="input"
        type="password"
        name="passphrase"
        autocomplete="current-password"
        required
      />
    </label>
    {#if form?.heard === 'wrong'}<p role="alert" class="text-doubt">
        That is not the passphrase. Try again.
      </p>{:else if form?.heard === 'unheard'}<p role="alert" class="text-doubt">
        Too many guesses come from here at once, and this one was not looked at. Wait a moment and
        try again.
      </p>{/if}
    <button class="btn preset-filled-primary-500" type="submit">Enter</button>
  </form>
</main>
