<script lang="ts">
  import { setCorrections, setSetAside } from '../../core/bench/edits';
  import type { BenchState } from './bench.svelte';

  let { bench }: { bench: BenchState } = $props();

  /** Parts that have no card or word of their own where their fault could stand. */
  const OWN = /^(corrections|ladder\.setAside|lists|joins|computed|reshape|sort)/;
  const faults = $derived((bench.counts?.faults ?? []).filter(({ path }) => OWN.test(path)));

  /** Takes the part at fault out; what has no way out here says only what is wrong. */
  function wayOut(path: string): (() => void) | null {
    const correction = /^corrections\[(\d+)\]/.exec(path);
    if (correction)
      return () =>
        bench.change('Take a correction out', (doc) =>
          setCorrections(
            doc,
            doc.corrections.filter((_, k) => k !== Number(correction[1])),
          ),
        );
    const value = /^ladder\.setAside\.values\[(\d+)\]/.exec(path);
    if (value)
      return () =>
        bench.change('Put records back', (doc) =>
          setSetAside(doc, {
            ...doc.ladder.setAside,
            values: doc.ladder.setAside.values.filter((_, k) => k !== Number(value[1])),
          }),
        );
    if (path.startsWith('ladder.setAside'))
      return () =>
        bench.change('Put records back that are gone', (doc) => {
          const there = (n: number): boolean => n <= (bench.counts?.all.records ?? 0);
          const { setAside } = doc.ladder;
          return setSetAside(doc, {
            ...setAside,
            records: setAside.records.filter(there),
            kept: setAside.kept.filter(there),
          });
        });
    return null;
  }
  const WHAT: Record<string, string> = { corrections: 'A correction', ladder: 'Set aside' };
  const whatOf = (path: string): string => WHAT[/^\w+/.exec(path)?.[0] ?? ''] ?? 'A part';
</script>

{#if faults.length}
  <ul class="faults" data-test="faults">
    {#each faults as { path, message, remedy } (path + message)}
      {@const out = wayOut(path)}
      <li>
        {whatOf(path)} takes no part: {message}
        {remedy}
        {#if out}<button type="button" class="act" onclick={out}>Take it out</button>{/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  .faults {
    margin: 0;
    padding: 6px 20px;
    list-style: none;
    color: var(--plum);
    background: var(--plum-wash);
    border-bottom: 1px solid var(--rule);
    max-height: 90px;
    overflow: auto;
  }
</style>
