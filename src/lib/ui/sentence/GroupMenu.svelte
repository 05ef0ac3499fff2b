<script lang="ts">
  import { UNREACHED } from '../components/unreached';
  import { columnNote } from './columnNote';
  import type { GroupKey, GroupOrder } from '../../core/arrange/groupKey';
  import type { Measure } from '../../core/measure/measure';
  import { measurePhrase } from '../../core/tally/sentence/words';
  import { noFinerThan, type CalendarPeriod, type Period } from '../../core/table/period';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Choices from '../components/Choices.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import { bandsFields } from './bandsFields';
  import CalendarFields from './CalendarFields.svelte';
  import TakeOut from './TakeOut.svelte';
  import HandOrder from './HandOrder.svelte';

  interface Props {
    bench: BenchState;
    /** Columns to choose among: the list's, or those of an inner result. */
    columns: Counts['columns'];
    group: GroupKey | null;
    level: number;
    /** Columns that other groups have already. */
    taken: readonly string[];
    /** Measures that groups can be ordered by. */
    measures: readonly Measure[];
    /** A key that cannot be taken out. */
    needed?: boolean;
    onchange: (key: GroupKey | null) => void;
    close: () => void;
  }
  let {
    bench,
    columns: offered,
    group,
    level,
    taken,
    measures,
    needed = false,
    onchange,
    close,
  }: Props = $props();

  const columns = $derived(
    offered
      .filter(
        (c) =>
          c.id === group?.column ||
          !taken.includes(c.id) ||
          c.type === 'date' ||
          c.type === 'datetime',
      )
      .map((c) => ({ value: c.id, label: c.name, note: columnNote(c) })),
  );
  const typeOf = (id: string | undefined): string | undefined =>
    offered.find((c) => c.id === id || c.name === id)?.type;
  const grainOf = (id: string): CalendarPeriod =>
    offered.find((c) => c.id === id || c.name === id)?.grain ?? 'day';
  /** Periods that its dates can be put together by, and the one that holds. */
  const periodsOf = ({ column, period }: GroupKey): readonly (readonly [Period, string])[] =>
    PERIODS.filter(([one]) => noFinerThan(one, grainOf(column)) === one || one === period);
  const type = $derived(typeOf(group?.column));
  const dated = $derived(type === 'date' || type === 'datetime');
  const names = $derived(new Map(offered.map((c) => [c.id, c.name])));
  let handing = $state(false);

  const PERIODS: readonly [Period, string][] = [
    ['day', 'day'],
    ['week', 'week (ISO)'],
    ['month', 'month'],
    ['quarter', 'quarter'],
    ['half', 'half-year'],
    ['year', 'year'],
    ['weekday', 'weekday'],
  ];

  const ORDERS = $derived<{ value: string; label: string; order: GroupOrder }[]>([
    { value: 'label', label: 'label, first to last', order: { by: 'label', descending: false } },
    {
      value: 'label-down',
      label: 'label, last to first',
      order: { by: 'label', descending: true },
    },
    { value: 'count-down', label: 'most records first', order: { by: 'count', descending: true } },
    { value: 'count', label: 'fewest records first', order: { by: 'count', descending: false } },
    ...measures.flatMap((m, k): { value: string; label: string; order: GroupOrder }[] => [
      {
        value: `m${k}-down`,
        label: `${measurePhrase(m, names)}, highest first`,
        order: { by: 'measure', measure: k, descending: true },
      },
      {
        value: `m${k}`,
        label: `${measurePhrase(m, names)}, lowest first`,
        order: { by: 'measure', measure: k, descending: false },
      },
    ]),
  ]);
  const orderNow = $derived(
    group?.order.by === 'hand'
      ? 'hand'
      : ORDERS.find((o) => JSON.stringify(o.order) === JSON.stringify(group?.order))?.value,
  );

  function chooseColumn(column: string): void {
    const t = typeOf(column);
    const kept = bench.doc.orders[column];
    const period =
      t === 'date' || t === 'datetime' ? noFinerThan('month', grainOf(column)) : undefined;
    onchange({
      column,
      ...(period ? { period } : {}),
      // Spellings of one text are one group, and the tally says so; the ledger asks before it merges any.
      loose: t === 'text' && bench.shown.tally.kind !== 'ledger',
      ...(t === 'number' && group?.bands && { bands: group.bands }),
      order: kept ? { by: 'hand', labels: [...kept] } : { by: 'label', descending: false },
    });
    if (!group) close();
  }

  function chooseOrder(value: string): void {
    if (value === 'hand') {
      handing = true;
      return;
    }
    const order = ORDERS.find((o) => o.value === value)?.order;
    if (order && group) onchange({ ...group, order });
  }

  function takeOut(): void {
    close();
    onchange(null);
  }
</script>

{#if handing && group}
  <HandOrder
    {bench}
    {level}
    given={group.order.by === 'hand' ? group.order.labels : (bench.doc.orders[group.column] ?? [])}
    ondone={(labels) => {
      onchange({ ...group, order: { by: 'hand', labels } });
      close();
    }}
  />
{:else}
  {#if group}
    <div class="now">
      {#if dated}
        <label
          >by
          <OneOf
            first
            test="group-period"
            value={group.period ?? 'none'}
            options={[...periodsOf(group), ['none', 'its very value'] as const]}
            onchange={(period) =>
              onchange({ ...group, period: period === 'none' ? undefined : period })}
          /></label
        >
      {/if}
      {#if type === 'text'}
        <label
          ><input
            type="checkbox"
            checked={group.loose}
            onchange={(e) => onchange({ ...group, loose: e.currentTarget.checked })}
          /> ignore case and outer spaces</label
        >
      {/if}
      <label
        >groups in order of
        <OneOf
          value={orderNow}
          options={[
            ...ORDERS.map(({ value, label }) => [value, label] as const),
            ...(bench.shown.tally.kind === 'ledger'
              ? [['hand', 'an order given by hand…'] as const]
              : []),
          ]}
          onchange={chooseOrder}
        /></label
      >
      {#if type === 'number'}
        {#await bandsFields() then { default: BandsFields }}
          <BandsFields
            bands={group.bands ?? null}
            lists={bench.lists.names}
            kept={bench.doc.bands}
            elsewhere={bench.facts.bands}
            onchange={(bands) => onchange({ ...group, bands: bands ?? undefined })}
          />
        {:catch}
          <p>{UNREACHED}</p>
        {/await}
      {/if}
      {#if dated}
        <CalendarFields
          calendar={group.calendar}
          onchange={(calendar) => onchange({ ...group, calendar })}
        />
      {/if}
      {#if !needed}<TakeOut what="group" onclick={takeOut} />{/if}
    </div>
    <p class="caps">Another column</p>
  {/if}
  <Choices
    name="columns"
    choices={columns}
    chosen={group?.column ?? null}
    onchoose={chooseColumn}
    search
  />
{/if}

<style>
  .now {
    display: grid;
    gap: 8px;
    justify-items: start;
    padding-bottom: 8px;
    margin-bottom: 8px;
    border-bottom: 1px solid var(--rule);
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    flex-wrap: wrap;
  }
  label :global(.one-of) {
    max-width: 260px;
  }
  .caps {
    margin: 0 0 6px;
  }
</style>
