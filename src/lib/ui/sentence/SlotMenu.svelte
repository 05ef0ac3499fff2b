<script lang="ts" generics="Spec">
  import { UNREACHED } from '../components/unreached';
  import type { Slot } from '../../core/tally/sentence/sentence';
  import { groupWords, measurePhrase, sortWords } from '../../core/tally/sentence/words';
  import type { Counts } from '../../engine/protocol';
  import type { BenchState } from '../bench/bench.svelte';
  import Choices from '../components/Choices.svelte';
  import { bandsFields } from './bandsFields';
  import ColumnMenu from './ColumnMenu.svelte';
  import { conditionMenu } from './conditionMenu';
  import { dateMenu } from './dateMenu';
  import GroupMenu from './GroupMenu.svelte';
  import { measureMenu } from './measureMenu';
  import NumberMenu from './NumberMenu.svelte';
  import NumbersMenu from './NumbersMenu.svelte';
  import SeveralMenu from './SeveralMenu.svelte';
  import SlotMenu from './SlotMenu.svelte';
  import SortMenu from './SortMenu.svelte';
  import TextMenu from './TextMenu.svelte';

  /** The menu of a marked word: one for each sort of place. */
  interface Props {
    bench: BenchState;
    place: Slot<Spec>;
    /** Columns to choose among; those of another list where the place is of one. */
    columns: Counts['columns'];
    onset: (label: string, spec: Spec) => void;
    close: () => void;
  }
  let { bench, place: slot, columns: own, onset, close }: Props = $props();
  const columns = $derived(slot.ofList === undefined ? own : bench.lists.columnsOf(slot.ofList));
  const takes = $derived(slot.takes);
  const name = $derived(slot.name ?? slot.words);
  const names = $derived(new Map(columns.map((c) => [c.id, c.name])));
  /** The place under `more…` that was chosen. */
  let inside = $state<string | null>(null);
  const chosen = $derived(
    takes.a === 'more' ? (takes.slots.find((s) => s.path === inside) ?? null) : null,
  );
  const isYesNo = (of: Slot<Spec>): boolean =>
    of.takes.a === 'choice' && of.takes.choices.length === 2 && of.takes.choices[0].value === 'yes';
  /** Whether a place can stand for this list: bands only of numbers. */
  const fits = (of: Slot<Spec>): boolean => {
    const { takes: t } = of;
    if (t.a === 'bands') return columns.find((c) => c.id === t.column)?.type === 'number';
    if (t.a === 'column') return columns.some((c) => t.types.some((type) => type === c.type));
    return true;
  };

  function open(of: Slot<Spec>): void {
    const { takes: t } = of;
    if (t.a === 'act') {
      close();
      onset(of.words, t.set());
    } else if (t.a === 'choice' && isYesNo(of)) {
      close();
      onset(of.words, t.set(t.value === 'yes' ? 'no' : 'yes'));
    } else inside = of.path;
  }
</script>

{#if takes.a === 'key'}<GroupMenu
    {bench}
    {columns}
    group={takes.value}
    level={takes.level}
    taken={takes.taken}
    measures={takes.measures}
    needed={takes.needed}
    onchange={(next) =>
      onset(next ? `Group by ${groupWords(next, names)}` : 'Take a group out', takes.set(next))}
    {close}
  />
{:else if takes.a === 'sort'}<SortMenu
    {bench}
    {columns}
    sort={takes.value}
    onchange={(next) =>
      onset(next ? `Sort by ${sortWords(next, names)}` : 'Take a sort out', takes.set(next))}
    {close}
  />
{:else if takes.a === 'measure'}
  {#await measureMenu() then { default: MeasureMenu }}
    <MeasureMenu
      {columns}
      measure={takes.value}
      needed={takes.needed}
      onchange={(next) =>
        onset(
          next ? `Show the ${measurePhrase(next, names)}` : 'Take a measure out',
          takes.set(next),
        )}
      {close}
    />
  {:catch}
    <p>{UNREACHED}</p>
  {/await}
{:else if takes.a === 'column'}<ColumnMenu
    {columns}
    column={takes.value}
    types={takes.types}
    needed={takes.needed}
    onchange={(next) => onset(`Choose ${names.get(next ?? '') ?? 'no column'}`, takes.set(next))}
    {close}
  />
{:else if takes.a === 'number'}<NumberMenu
    {name}
    value={takes.value}
    least={takes.least}
    most={takes.most}
    whole={takes.whole}
    needed={takes.needed}
    onchange={(next) => onset(`${name}: ${next ?? 'as the data say'}`, takes.set(next))}
    {close}
  />
{:else if takes.a === 'numbers'}<NumbersMenu
    {name}
    value={takes.value}
    least={takes.least}
    most={takes.most}
    usual={takes.usual}
    onchange={(next) => onset(`${name}: ${next.join(', ') || 'none'}`, takes.set(next))}
    {close}
  />
{:else if takes.a === 'choice'}<Choices
    {name}
    choices={takes.choices}
    chosen={takes.value}
    onchoose={(value) => {
      const label = takes.choices.find((c) => c.value === value)?.label ?? value;
      close();
      onset(`${name}: ${label}`, takes.set(value));
    }}
  />
{:else if takes.a === 'several'}<SeveralMenu
    {name}
    value={takes.value}
    choices={takes.choices}
    least={takes.least}
    onchange={(next) => onset(`${name} changed`, takes.set(next))}
  />
{:else if takes.a === 'condition'}
  {#await conditionMenu() then { default: ConditionMenu }}
    <ConditionMenu
      {bench}
      condition={takes.value}
      name={takes.name}
      needed={takes.needed}
      onchange={(next, called) =>
        onset(next ? 'Change a condition' : 'Take a condition out', takes.set(next, called))}
      {close}
    />
  {:catch}
    <p>{UNREACHED}</p>
  {/await}
{:else if takes.a === 'bands'}
  {#await bandsFields() then { default: BandsFields }}
    <BandsFields
      bands={takes.value}
      lists={bench.lists.names}
      kept={bench.doc.bands}
      elsewhere={bench.facts.bands}
      onchange={(next) => onset('Change the bands', takes.set(next))}
    />
  {:catch}
    <p>{UNREACHED}</p>
  {/await}
{:else if takes.a === 'date'}
  {#await dateMenu() then { default: DateMenu }}
    <DateMenu
      name={slot.name ?? 'Period'}
      period={takes.period}
      value={takes.value}
      onchange={(next) => onset('Change a period', takes.set(next))}
      {close}
    />
  {:catch}
    <p>{UNREACHED}</p>
  {/await}
{:else if takes.a === 'text'}<TextMenu
    {name}
    value={takes.value}
    onchange={(next) => onset(`${name}: ${next}`, takes.set(next))}
    {close}
  />
{:else if takes.a === 'label'}
  {#await import('./LabelMenu.svelte') then { default: LabelMenu }}
    <LabelMenu
      {bench}
      {name}
      column={takes.column}
      value={takes.value}
      onchange={(next) => onset(`${name}: ${next}`, takes.set(next))}
      {close}
    />
  {/await}
{:else if takes.a === 'list'}<Choices
    name={takes.lists ? 'lists' : 'lists and readings'}
    choices={[
      ...(takes.none ? [{ value: '', label: takes.none }] : []),
      ...(takes.lists ? bench.lists.names : bench.lists.comparable).map((value) => ({
        value,
        label: value,
      })),
    ]}
    chosen={takes.value}
    onchoose={(value) => {
      close();
      onset(`${name}: ${value || takes.none}`, takes.set(value));
    }}
  />
{:else if takes.a === 'act'}<button
    type="button"
    class="act"
    onclick={() => {
      close();
      onset(slot.words, takes.set());
    }}>{slot.words}</button
  >
{:else if chosen}
  <button type="button" class="act back" onclick={() => (inside = null)}>‹ {chosen.words}</button>
  <SlotMenu {bench} place={chosen} columns={own} {onset} {close} />
{:else}
  <Choices
    name="choices"
    choices={takes.slots.filter(fits).map((of) => ({ value: of.path, label: of.words }))}
    onchoose={(path) => {
      const of = takes.slots.find((slot) => slot.path === path);
      if (of) open(of);
    }}
  />
{/if}

<style>
  .back {
    margin-bottom: 6px;
    font-weight: 600;
  }
</style>
