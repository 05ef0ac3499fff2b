<script lang="ts">
  import type { Band, Bands, KeptBands } from '../../core/arrange/bands';
  import type { BenchFacts } from '../bench/facts';
  import Amount from '../fields/Amount.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import { readBands, readNumbers, writeBands } from './bandsText';

  /** How numbers are cut into bands; null: each value on its own. */
  interface Props {
    bands: Bands | null;
    /** Names of other lists, one of which may be a band table. */
    lists: readonly string[];
    /** Band tables kept by name: in this bench, and in others. */
    kept?: readonly KeptBands[];
    elsewhere?: BenchFacts['bands'];
    onchange: (bands: Bands | null) => void;
  }
  let { bands, lists, kept = [], elsewhere = [], onchange }: Props = $props();

  const WAYS = [
    ['none', 'each value on its own'],
    ['number', 'so many bands of one width'],
    ['width', 'bands of a given width'],
    ['equalCount', 'about as many records in each'],
    ['edges', 'edges by hand'],
    ['table', 'bands with names'],
    ['list', 'another list as the band table'],
  ] as const;
  type Way = (typeof WAYS)[number][0];
  const way = $derived<Way>(bands?.by ?? 'none');
  let wrong = $state('');

  function choose(next: Way): void {
    wrong = '';
    const edges = bands?.by === 'edges' ? bands.edges : [0, 10];
    const made: Record<Way, () => Bands | null> = {
      none: () => null,
      number: () => ({ by: 'number', count: 8, round: true }),
      width: () => ({ by: 'width', width: 10, origin: 0 }),
      equalCount: () => ({ by: 'equalCount', count: 4 }),
      edges: () => ({ by: 'edges', edges }),
      table: () => ({ by: 'table', bands: bandsOf(edges) }),
      list: () => ({ by: 'list', list: lists[0] ?? '', from: 'From', to: 'To', label: 'Band' }),
    };
    onchange(made[next]());
  }

  const bandsOf = (edges: readonly number[]): Band[] =>
    edges.slice(1).map((to, k) => ({ from: edges[k], to }));

  function setEdges(text: string): void {
    const read = readNumbers(text);
    const edges = 'numbers' in read ? [...new Set(read.numbers)].sort((a, b) => a - b) : [];
    if ('wrong' in read) wrong = read.wrong;
    else wrong = edges.length < 2 ? 'Type two edges or more that differ.' : '';
    if (edges.length >= 2)
      onchange({ by: 'edges', edges, ...(bands?.edgeIn && { edgeIn: bands.edgeIn }) });
  }

  function setTable(text: string): void {
    const read = readBands(text);
    wrong = 'wrong' in read ? read.wrong : '';
    if ('bands' in read)
      onchange({ by: 'table', bands: read.bands, ...(bands?.edgeIn && { edgeIn: bands.edgeIn }) });
  }
</script>

<div class="bands">
  <label
    >cut into <OneOf
      value={way}
      options={WAYS.filter(([key]) => key !== 'list' || lists.length > 0 || way === 'list')}
      onchange={choose}
      test="bands-way"
    /></label
  >
  {#if bands?.by === 'number' || bands?.by === 'equalCount'}
    <label
      >bands <Amount
        value={bands.count}
        min={1}
        whole
        onchange={(count) =>
          count >= 1 && count <= 1000 && onchange({ ...bands, count: Math.round(count) })}
      /></label
    >
  {/if}
  {#if bands?.by === 'number'}
    <label
      ><input
        type="checkbox"
        checked={bands.round}
        onchange={(e) => onchange({ ...bands, round: e.currentTarget.checked })}
      /> at round edges</label
    >
  {:else if bands?.by === 'width'}
    <label
      >width <Amount
        value={bands.width}
        onchange={(width) => width > 0 && onchange({ ...bands, width })}
      /></label
    >
    <label
      >an edge at <Amount
        value={bands.origin}
        min={-1e12}
        onchange={(origin) => origin === origin && onchange({ ...bands, origin })}
      /></label
    >
  {:else if bands?.by === 'edges'}
    <label class="tall"
      >edges, with commas <input
        class="field"
        value={bands.edges.join(', ')}
        onchange={(e) => setEdges(e.currentTarget.value)}
        data-test="edges"
      /></label
    >
  {:else if bands?.by === 'table'}
    <label class="tall"
      >one band a line: name, from, to; leave an end empty where it is open; [ or ] keeps an edge in
      its band, ( or ) out of it
      <textarea
        class="field"
        rows="6"
        value={writeBands(bands.bands)}
        onchange={(e) => setTable(e.currentTarget.value)}
        data-test="band-table"></textarea></label
    >
  {:else if bands?.by === 'list'}
    <label
      >list <OneOf
        value={bands.list}
        options={lists.map((name) => [name, name] as const)}
        onchange={(list) => onchange({ ...bands, list })}
        test="bands-list"
      /></label
    >
    {#each [['from', 'column of lower edges'], ['to', 'column of upper edges'], ['label', 'column of names'], ['fromIn', 'column that says whether the lower edge is in'], ['toIn', 'column that says whether the upper edge is in']] as const as [key, words] (key)}
      <label
        >{words}
        <input
          class="field short"
          value={bands[key] ?? ''}
          onchange={(e) => onchange({ ...bands, [key]: e.currentTarget.value || undefined })}
        /></label
      >
    {/each}
  {/if}
  {#if bands}
    <label
      >a value on an edge counts in the <OneOf
        value={bands.edgeIn ?? 'above'}
        options={[
          ['above', 'band above it'],
          ['below', 'band below it'],
        ]}
        onchange={(edgeIn) => bands && onchange({ ...bands, edgeIn })}
        test="bands-edge"
      /></label
    >
  {/if}
  {#if kept.length}
    <p class="caps">Kept bands</p>
    {#each kept as { name, bands: table } (name)}
      <button
        type="button"
        class="act"
        onclick={() => onchange({ by: 'table', name, bands: [...table] })}>{name}</button
      >
    {/each}
  {/if}
  {#if elsewhere.length}
    <p class="caps">Kept in other benches</p>
    {#each elsewhere as { name, bands: table, list, bench }, k (k)}
      <button
        type="button"
        class="act"
        onclick={() => onchange({ by: 'table', name, bands: [...table] })}
        >{name} <small>of {list}, {bench}</small></button
      >
    {/each}
  {/if}
  {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
</div>

<style>
  .bands {
    display: grid;
    gap: 6px;
    justify-items: start;
    width: 100%;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    flex-wrap: wrap;
  }
  .tall {
    display: grid;
    width: 100%;
  }
  .short {
    width: 110px;
  }
  .caps {
    margin: 6px 0 0;
  }
  small {
    color: var(--ink-soft);
    font-size: 12px;
  }
  .wrong {
    color: var(--bad);
    margin: 0;
  }
</style>
