<script lang="ts">
  import { keepBands } from '../../../core/bench/bandEdits';
  import { followBands, leaveBands, usersOfBands } from '../../../core/bench/bandUse';
  import { counted } from '../../../core/table/format';
  import type { Band } from '../../../core/arrange/bands';
  import type { BenchState } from '../../bench/bench.svelte';
  import type { TallyPage } from '../../bench/tallyFigures.svelte';
  import Pop from '../../components/Pop.svelte';

  /** Keeps the bands of the open tally under a name, for any other tally. */
  let { bench, page }: { bench: BenchState; page: TallyPage | null } = $props();
  let typed = $state<string | null>(null);
  /** What the analyst calls them, or else what they are bands of. */
  const name = $derived.by(() => {
    const { tally } = bench.shown;
    const of = tally.kind === 'frequency' ? bench.names.get(tally.key.column) : undefined;
    return typed ?? of ?? '';
  });
  let following = $state(true);
  const isBanded = $derived(
    bench.shown.tally.kind === 'frequency' && bench.shown.tally.key.bands !== undefined,
  );
  /** Other tallies that use the bands kept under this name so far. */
  const others = $derived(
    usersOfBands(bench.doc, name.trim(), bench.names).filter((id) => id !== bench.shown.id),
  );

  /** Which edges are in a band, where that is not as usual: it must be kept with the bands. */
  function sidesOf(k: number): Pick<Band, 'fromIn' | 'toIn'> {
    const { tally } = bench.shown;
    const spec = tally.kind === 'frequency' ? tally.key.bands : undefined;
    if (spec?.by === 'table') {
      const { fromIn, toIn } = spec.bands[k] ?? {};
      return { ...(fromIn !== undefined && { fromIn }), ...(toIn !== undefined && { toIn }) };
    }
    return spec?.edgeIn === 'below' ? { fromIn: k === 0, toIn: true } : {};
  }

  /** The bands as they came out, whatever they were made by. */
  const bands = $derived.by((): Band[] => {
    const main = page?.first.get('main');
    const from = main?.head.columns.findIndex((c) => c.key === 'from') ?? -1;
    const to = main?.head.columns.findIndex((c) => c.key === 'to') ?? -1;
    const edge = (figure: unknown): number | null => (typeof figure === 'number' ? figure : null);
    return (main?.rows ?? [])
      .filter((row) => row.kind === 'group')
      .map((row, k) => ({
        label: row.cells[0],
        from: edge(row.figures[from]),
        to: edge(row.figures[to]),
        ...sidesOf(k),
      }));
  });

  function keep(event: SubmitEvent, close: () => void): void {
    event.preventDefault();
    const called = name.trim();
    if (!called || bands.length === 0) return;
    const follow = others.length > 0 && following;
    close();
    typed = null;
    bench.change(`Keep the bands “${called}”`, (doc) => {
      const kept = { name: called, bands };
      const changed = follow ? followBands(doc, called, bands, bench.names) : doc;
      return leaveBands(keepBands(changed, called, bands), kept, bench.names);
    });
  }
</script>

{#if isBanded}
  <Pop width={290} name="Keep these bands">
    {#snippet label()}Keep these bands…{/snippet}
    {#snippet children(close)}
      <form onsubmit={(event) => keep(event, close)}>
        <label
          >Name of the {bands.length} bands
          <input
            class="field"
            value={name}
            oninput={(e) => (typed = e.currentTarget.value)}
            onfocus={(e) => e.currentTarget.select()}
            maxlength="120"
            data-first
            data-test="bands-name"
          />
        </label>
        {#if others.length}
          <label class="follow"
            ><input type="checkbox" bind:checked={following} data-test="bands-follow" />
            <span
              >Change {counted(others.length, 'other tally', 'other tallies')} that {others.length ===
              1
                ? 'uses'
                : 'use'} “{name.trim()}” as it was</span
            ></label
          >
        {:else}<p>Any tally of this bench can then use them, and those of other benches.</p>{/if}
        <button type="submit" class="main-button" disabled={!name.trim()}>Keep</button>
      </form>
    {/snippet}
  </Pop>
{/if}

<style>
  form,
  label {
    display: grid;
    gap: 6px;
  }
  .follow {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  p {
    margin: 0;
    color: var(--ink-soft);
    font-size: 12px;
  }
</style>
