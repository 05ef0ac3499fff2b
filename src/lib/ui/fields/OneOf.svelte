<script lang="ts" generics="V extends string">
  import Choices from '../components/Choices.svelte';
  import Pop from '../components/Pop.svelte';

  /** One of some values, in a field that opens them as a list. */
  interface Props {
    /** What is chosen, for those who do not see what stands around it; left out inside a label. */
    label?: string;
    value: V | '' | undefined;
    /** Values with their words. */
    options: readonly (readonly [V, string])[];
    test?: string;
    /** Takes the focus when what it stands in opens. */
    first?: boolean;
    onchange: (value: V) => void;
  }
  let { label: name, value, options, test, first = false, onchange }: Props = $props();
  /** Letters typed on the field choose the first value that begins with them, as long as they follow each other. */
  const TOGETHER_MS = 800;
  let typed = '';
  let typedAt = 0;

  function keyed(event: KeyboardEvent): void {
    if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
    const goesOn = event.timeStamp - typedAt < TOGETHER_MS;
    // A space opens the field, unless it stands within what is typed.
    if (event.key === ' ' && !goesOn) return;
    if (event.key === ' ') event.preventDefault();
    // A letter here is no act of the page.
    event.stopPropagation();
    typed = goesOn ? typed + event.key : event.key;
    typedAt = event.timeStamp;
    const wanted = typed.toLowerCase();
    const found = options.find(([, text]) => text.toLowerCase().startsWith(wanted));
    if (found && found[0] !== value) onchange(found[0]);
  }

  const words = $derived(options.find(([v]) => v === value)?.[1] ?? '');
</script>

<Pop
  class="field one-of"
  name={name && `${name}: ${words}`}
  title={words}
  more={{
    'data-test': test,
    'data-value': value,
    onkeydown: keyed,
    ...(first && { 'data-first': true }),
  }}
>
  {#snippet label()}<span class="words">{words}</span><span class="sign" aria-hidden="true">▾</span
    >{/snippet}
  {#snippet children(close)}
    <!-- In a label a press on a value would press the field as well, which opens it again. -->
    <div role="presentation" onclick={(event) => event.preventDefault()}>
      <Choices
        name={name ?? words}
        choices={options.map(([option, text]) => ({ value: option, label: text }))}
        chosen={value === '' ? null : value}
        onchoose={(option) => {
          close();
          if (option !== value) onchange(option);
        }}
      />
    </div>
  {/snippet}
</Pop>

<style>
  :global(.one-of) {
    /* As wide as the room that a form gives it; in a sentence as wide as its words. */
    flex: auto;
    display: inline-flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 6px;
    max-width: 100%;
    text-align: left;
    cursor: pointer;
  }
  .words {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .sign {
    color: var(--ink-soft);
  }
</style>
