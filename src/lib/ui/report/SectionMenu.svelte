<script lang="ts">
  import { inReport } from '../../core/bench/reportEdits';
  import { keepApart, moveTally } from '../../core/bench/trayEdits';
  import type { TrayItem } from '../../core/bench/document';
  import type { BenchState } from '../bench/bench.svelte';
  import MenuButton from '../components/MenuButton.svelte';
  import type { MenuAct } from '../components/menuAct';
  import { UNREACHED } from '../components/unreached';

  /** What can be done with a tally in the report. */
  interface Props {
    bench: BenchState;
    item: TrayItem;
    name: string;
  }
  let { bench, item, name }: Props = $props();
  const SHOWS = [
    ['both', 'Chart and table'],
    ['all', 'Chart and all its tables'],
    ['chart', 'Chart alone'],
    ['table', 'Table alone'],
  ] as const;
  const shows = $derived(item.shows ?? 'both');
  const inside = $derived(bench.doc.tray.filter((i) => !i.apart));
  const at = $derived(inside.findIndex((i) => i.id === item.id));

  function move(by: -1 | 1): void {
    const before = by < 0 ? inside[at - 1] : inside[at + 2];
    if (at + by < 0 || at + by >= inside.length) return;
    bench.arrange('Move a tally', (doc) => moveTally(doc, item.id, before?.id ?? null));
  }

  const show = ([value, label]: (typeof SHOWS)[number]): MenuAct => ({
    label,
    on: shows === value,
    run: () => bench.arrange(label, (doc) => inReport(doc, item.id, { shows: value })),
  });
  const acts = $derived<MenuAct[]>([
    ...(item.tally.kind === 'ledger' ? [] : SHOWS.map(show)),
    {
      label: 'Begin on a new page',
      on: item.newPage === true,
      run: () =>
        bench.arrange('Begin on a new page', (doc) =>
          inReport(doc, item.id, { newPage: item.newPage !== true }),
        ),
    },
    { label: 'Move up', disabled: at <= 0, run: () => move(-1) },
    { label: 'Move down', disabled: at >= inside.length - 1, run: () => move(1) },
    {
      label: 'Keep out of the report',
      run: () => bench.arrange('Keep out of the report', (doc) => keepApart(doc, item.id, true)),
    },
    { label: 'Open the tally', run: () => bench.visit(item.id) },
  ]);
</script>

<MenuButton
  class="section-menu"
  name="{name} in the report"
  {acts}
  onfault={() => (bench.notice = UNREACHED)}
>
  {#snippet label()}⋯{/snippet}
</MenuButton>
