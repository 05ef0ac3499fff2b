<script lang="ts">
  import {
    duplicateTally,
    keepApart,
    moveTally,
    removeTally,
    renameTally,
  } from '../../core/bench/trayEdits';
  import type { TrayItem } from '../../core/bench/document';
  import Scale from '@lucide/svelte/icons/scale';
  import FileText from '@lucide/svelte/icons/file-text';
  import { counted } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import MenuButton from '../components/MenuButton.svelte';
  import type { MenuAct } from '../components/menuAct';
  import { UNREACHED } from '../components/unreached';
  import { KINDS } from './kinds';
  import TallyName from './TallyName.svelte';

  /** The ordered tallies of a bench; the order is the report's. */
  let { bench }: { bench: BenchState } = $props();
  const items = $derived(bench.doc.tray);
  let dragged = $state<string | null>(null);
  let over = $state<string | null>(null);
  /** The tally whose name is being written. */
  let renamed = $state<string | null>(null);

  /** Known totals of a tally that do not agree. */
  const apartIn = (item: TrayItem): number =>
    bench.known.filter(({ tally, stands }) => tally === item.id && stands !== 'agrees').length;
  const differing = $derived(bench.known.filter(({ stands }) => stands !== 'agrees').length);
  /** In the tray all are of this list: what they differ by comes first, as there is room for little. */
  function withoutList(name: string): string {
    const { listName } = bench.facts;
    if (!name.startsWith(`${listName} `)) return name;
    const rest = name.slice(listName.length + 1);
    return rest.charAt(0).toUpperCase() + rest.slice(1);
  }

  function factOf(item: TrayItem): string {
    const fact = bench.small.get(item.id);
    const apart = apartIn(item);
    if (apart) return `${apart} ${apart === 1 ? 'differs' : 'differ'}`;
    if (!fact) return '';
    if (fact.foots === false) return 'does not foot';
    return fact.text || (fact.foots ? 'foots ✓' : '');
  }

  function move(item: TrayItem, by: -1 | 1): void {
    const at = items.indexOf(item);
    const before = by < 0 ? items[at - 1] : items[at + 2];
    if (at + by < 0 || at + by >= items.length) return;
    bench.arrange('Move a tally', (doc) => moveTally(doc, item.id, before?.id ?? null));
  }

  function keyed(event: KeyboardEvent, item: TrayItem): void {
    const at = items.indexOf(item);
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (event.altKey && step) move(item, step);
    else if (step) focusOn(items[at + step]?.id);
    else if (event.key === 'Delete') takeOut(item);
    else if (event.key === 'F2') renamed = item.id;
    else return;
    event.preventDefault();
    if (event.altKey) requestAnimationFrame(() => focusOn(item.id));
  }
  const focusOn = (id: string | undefined): void =>
    document.querySelector<HTMLElement>(`[data-tally="${id ?? ''}"]`)?.focus();

  function takeOut(item: TrayItem): void {
    if (items.length === 1) {
      bench.notice = 'A bench has one tally at least; this is its last.';
      return;
    }
    bench.change(`Take out: ${bench.nameOf(item)}`, (doc) => removeTally(doc, item.id));
  }

  /** @param next null where the name stays */
  function rename(item: TrayItem, next: string | null): void {
    renamed = null;
    if (next !== null && next !== (item.name ?? ''))
      bench.arrange('Rename a tally', (doc) => renameTally(doc, item.id, next));
    requestAnimationFrame(() => focusOn(item.id));
  }

  function actsOf(item: TrayItem): MenuAct[] {
    const at = items.indexOf(item);
    const part = item.apart ? 'Let into the report' : 'Keep out of the report';
    return [
      // The menu gives the focus back to its button first.
      { label: 'Rename…', run: () => requestAnimationFrame(() => (renamed = item.id)) },
      {
        label: 'Duplicate',
        run: () =>
          bench.change(`Duplicate: ${bench.nameOf(item)}`, (doc) => duplicateTally(doc, item.id)),
      },
      { label: 'Move up', disabled: at === 0, run: () => move(item, -1) },
      { label: 'Move down', disabled: at === items.length - 1, run: () => move(item, 1) },
      {
        label: part,
        run: () => bench.arrange(part, (doc) => keepApart(doc, item.id, !item.apart)),
      },
      {
        label: 'A list of its rows…',
        run: () => {
          bench.visit(item.id);
          bench.side = { kind: 'list', of: 'rows' };
        },
      },
      { label: 'Take out', disabled: items.length === 1, run: () => takeOut(item) },
    ];
  }

  function dropped(): void {
    const [id, before] = [dragged, over];
    dragged = over = null;
    if (id && before && id !== before)
      bench.arrange('Move a tally', (doc) => moveTally(doc, id, before));
  }
</script>

<section class="tray" aria-labelledby="tray">
  <div class="head">
    <h2 class="caps" id="tray">Tallies</h2>
    <button
      type="button"
      class="act"
      aria-pressed={bench.choosing}
      title="Begin a tally (t)"
      onclick={() => (bench.choosing ? (bench.choosing = false) : bench.choose())}
      data-test="new-tally">+ New</button
    >
  </div>
  <ul>
    {#each items as item (item.id)}
      {@const { icon: Icon, word } = KINDS[item.tally.kind]}
      {@const name = bench.nameOf(item)}
      {@const open = !bench.choosing && !bench.reporting && item.id === bench.shown.id}
      <li
        class:open
        class:over={over === item.id && dragged !== item.id}
        class:apart={item.apart}
        draggable="true"
        ondragstart={() => (dragged = item.id)}
        ondragend={() => (dragged = over = null)}
        ondragover={(e) => {
          if (!dragged) return;
          e.preventDefault();
          over = item.id;
        }}
        ondrop={dropped}
      >
        {#if renamed === item.id}
          <TallyName name={item.name ?? ''} usual={name} ondone={(next) => rename(item, next)} />
        {:else}
          <button
            type="button"
            class="name"
            title={name}
            aria-current={open ? 'page' : undefined}
            aria-label="{word}: {name}{factOf(item) ? `, ${factOf(item)}` : ''}{item.apart
              ? ', kept out of the report'
              : ''}"
            data-tally={item.id}
            data-test="tally-{item.id}"
            onclick={() => bench.visit(item.id)}
            ondblclick={() => (renamed = item.id)}
            onkeydown={(e) => keyed(e, item)}
          >
            <Icon size={15} aria-hidden="true" />
            <span>{withoutList(name)}</span>
            <small class:bad={bench.small.get(item.id)?.foots === false || apartIn(item) > 0}
              >{factOf(item)}</small
            >
          </button>
        {/if}
        <MenuButton
          class="more"
          name="More about {name}"
          acts={actsOf(item)}
          onfault={() => (bench.notice = UNREACHED)}
        >
          {#snippet label()}⋯{/snippet}
        </MenuButton>
      </li>
    {/each}
  </ul>
  <button
    type="button"
    class="report"
    class:open={bench.reporting}
    aria-current={bench.reporting ? 'page' : undefined}
    onclick={() => bench.report()}
    data-test="report-open"
  >
    <FileText size={15} aria-hidden="true" />
    <span>The report</span>
    <small>{counted(items.filter((i) => !i.apart).length, 'tally', 'tallies')}</small>
  </button>
  {#if bench.doc.known.length}
    <button
      type="button"
      class="report known"
      aria-pressed={bench.side?.kind === 'known'}
      onclick={() => (bench.side = bench.side?.kind === 'known' ? null : { kind: 'known' })}
      data-test="known-open"
    >
      <Scale size={15} aria-hidden="true" />
      <span>Known totals</span>
      <small class:bad={differing > 0}
        >{differing
          ? `${differing} of ${bench.doc.known.length} ${differing === 1 ? 'differs' : 'differ'}`
          : `${bench.doc.known.length} ${bench.doc.known.length === 1 ? 'agrees' : 'agree'} ✓`}</small
      >
    </button>
  {/if}
</section>

<style>
  .tray {
    padding: 4px 14px 14px;
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 6px 0;
  }
  li {
    display: flex;
    align-items: center;
    border-radius: 6px;
    border-top: 2px solid transparent;
  }
  li:hover {
    background: var(--band);
  }
  li.open {
    background: var(--tide-wash);
  }
  li.over {
    border-top-color: var(--tide);
  }
  .apart .name span {
    color: var(--ink-soft);
    font-style: italic;
  }
  .report {
    width: 100%;
    margin-top: 8px;
    border-top: 1px solid var(--rule) !important;
    border-radius: 0 !important;
    padding: 8px 9px !important;
  }
  .known {
    margin-top: 0;
    border-top: 0 !important;
  }
  .report:hover {
    background: var(--band) !important;
  }
  .report.open {
    background: var(--tide-wash) !important;
    font-weight: 600;
  }
  .name,
  .report {
    flex: 1;
    min-width: 0;
    display: flex;
    gap: 9px;
    align-items: center;
    padding: 4px 4px 4px 9px;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    text-align: left;
    cursor: pointer;
    border-radius: 6px;
  }
  .name > :global(svg),
  .report > :global(svg) {
    flex: none;
    color: var(--ink-soft);
  }
  .name span,
  .report span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .open .name span {
    font-weight: 600;
  }
  small {
    flex: none;
    color: var(--ink-soft);
    font-size: 12px;
    max-width: 92px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small.bad {
    color: var(--bad);
  }
  li :global(.more) {
    border: 0;
    background: none;
    color: var(--ink-soft);
    padding: 0 6px;
    cursor: pointer;
    opacity: 0;
    font: inherit;
  }
  li:hover :global(.more),
  li:focus-within :global(.more),
  li.open :global(.more) {
    opacity: 1;
  }
</style>
