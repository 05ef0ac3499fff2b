<script lang="ts">
  import { moveRung, negateRung, removeRung, switchRung } from '../../core/bench/edits';
  import { missingWords } from '../../core/selection/describe';
  import { showCount } from '../../core/table/format';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import MenuButton from '../components/MenuButton.svelte';
  import type { MenuAct } from '../components/menuAct';
  import { UNREACHED } from '../components/unreached';
  import Switch from '../components/Switch.svelte';

  interface Props {
    bench: BenchState;
    rung: Counts['rungs'][number];
    /** Share of all records left after it. */
    share: number;
    first: boolean;
    last: boolean;
    onedit: () => void;
  }
  let { bench, rung, share, first, last, onedit }: Props = $props();

  const missing = $derived(missingWords(rung));
  const change = (label: string, edit: Parameters<typeof bench.change>[1]): void =>
    bench.change(`${label}: ${rung.words}`, edit);
  const acts = $derived<MenuAct[]>([
    { label: 'Edit…', run: onedit },
    {
      label: 'Turn round (not)',
      run: () => change('Turn round', (doc) => negateRung(doc, rung.id)),
    },
    {
      label: 'Move up',
      disabled: first,
      run: () => change('Move up', (doc) => moveRung(doc, rung.id, -1)),
    },
    {
      label: 'Move down',
      disabled: last,
      run: () => change('Move down', (doc) => moveRung(doc, rung.id, 1)),
    },
    { label: 'Remove', run: () => change('Remove', (doc) => removeRung(doc, rung.id)) },
  ]);
</script>

<li class="card" class:off={!rung.on} data-test="rung">
  <div class="line">
    <strong>
      <Switch
        on={rung.on}
        name="{rung.words}: on"
        onchange={() =>
          bench.change(`${rung.on ? 'Switch off' : 'Switch on'}: ${rung.words}`, (doc) =>
            switchRung(doc, rung.id),
          )}
      />
      <span class="condition">{rung.words}</span>
    </strong>
    <b>{rung.on ? showCount(rung.records) : '–'}</b>
  </div>
  <div class="line soft">
    {#if rung.fault}
      <span class="fault" data-test="rung-fault">Takes no part: {rung.fault}</span>
    {:else if rung.on}
      <span>−{showCount(rung.removed)}{missing ? ` (${missing})` : ''}</span>
      <span>{rung.lead}</span>
    {:else}
      <span>switched off</span>
    {/if}
  </div>
  <div class="menu">
    <MenuButton
      class="act"
      name="Change the step {rung.words}"
      {acts}
      onfault={() => (bench.notice = UNREACHED)}
    >
      {#snippet label()}<span aria-hidden="true">⋯</span>{/snippet}
    </MenuButton>
  </div>
  {#if rung.on}<i class="share" style:width="{share * 100}%"></i>{/if}
</li>

<style>
  .off {
    background: transparent !important;
    border-style: dashed !important;
  }
  .off .condition {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  .fault {
    color: var(--plum);
    overflow-wrap: anywhere;
  }
  .menu {
    position: absolute;
    right: 6px;
    bottom: 1px;
    opacity: 0;
  }
  .menu :global(.act) {
    background: var(--raised);
  }
  li:hover .menu,
  .menu:focus-within,
  .menu:has(:global([data-state='open'])) {
    opacity: 1;
  }
</style>
